package dev.paseo.service.set;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.SetCourse;
import dev.paseo.core.gate.Subject;
import dev.paseo.core.text.Word;
import dev.paseo.language.file.Names;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.database.Json;
import dev.paseo.service.deployment.Requests;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.LongUnaryOperator;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/** Sets of versions, and their promotions: one gate, one record, and all of them or none. */
@Component
class Sets implements EffectHandler {

    static final String KIND = "set";
    private static final Logger LOG = LoggerFactory.getLogger(Sets.class);
    private static final TypeReference<Map<String, Subject>> SUBJECTS = new TypeReference<>() {};
    private static final int MOST = 50;

    private final SetMapper mapper;
    private final Deployments deployments;
    private final Places places;
    private final Lookups lookups;
    private final Around around;

    /** What its members are. */
    @Component("setLookups")
    record Lookups(Environments environments, Versions versions, Accounts accounts, Requests requests) {}

    /** What every change leaves. */
    @Component("setAround")
    record Around(Changes changes, Json json) {}

    Sets(SetMapper mapper, Deployments deployments, Places places, Lookups lookups, Around around) {
        this.mapper = mapper;
        this.deployments = deployments;
        this.places = places;
        this.lookups = lookups;
        this.around = around;
    }

    /** Makes a set; it never changes. */
    void create(String name, List<Versions.Version> members, Person by) {
        if (!Names.NAME.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A set's name has " + Names.NAME_WORDS);
        }
        if (members.size() < 2 || members.size() > MOST
                || members.stream().map(Versions.Version::component).distinct().count() != members.size()) {
            throw Refusal.invalid("/members", "A set has 2 to " + MOST + " versions, each of another component");
        }
        around.changes().run(() -> {
            if (mapper.named(name).isPresent()) {
                throw Refusal
                        .conflict("there is a set " + name + " already, and sets do not change: choose another name");
            }
            SetMapper.NewSet row = new SetMapper.NewSet(name, by.id(), around.changes().now());
            mapper.add(row);
            for (int at = 0; at < members.size(); at++) {
                mapper.addMember(row.id, members.get(at).id(), at);
            }
            around.changes().record(AuditTrail.Entry.of(by.name(), "set made", name).with("members",
                    String.join(", ", members.stream().map(each -> each.component() + " " + each.number()).toList())));
            around.changes().publish("set", name);
        });
    }

    SetMapper.SetRow named(String name) {
        return mapper.named(name).orElseThrow(() -> Refusal.notFound("There is no set " + name));
    }

    List<Versions.Version> members(long set) {
        return mapper.members(set).stream().map(lookups.versions()::byId).toList();
    }

    /** Promotes all of a set as one; the number of the deployment at whose gate it waits. */
    long promote(SetMapper.SetRow set, Environments.Environment environment, Person by, String comment) {
        List<Versions.Version> members = members(set.id());
        members.forEach(member -> {
            lookups.environments().place(member.component(), environment.name());
            if (member.blocked()) {
                throw Refusal.conflict(member.component() + " " + member.number() + " of the set is blocked");
            }
        });
        return request(set, environment.name(), members.getFirst(), by,
                first -> begun(set, environment, by, comment, first));
    }

    /** Within the transaction of the first member's request: both are there, or neither. */
    private long begun(SetMapper.SetRow set, Environments.Environment environment, Person by, String comment,
            long first) {
        mapper.lockSet(set.id());
        if (mapper.promotions(set.id()).stream()
                .anyMatch(other -> other.environmentId() == environment.id() && !other.status().ended())) {
            throw Refusal.conflict(set.name() + " is on its way into " + environment.name() + " already");
        }
        SetMapper.NewPromotion row = new SetMapper.NewPromotion(set.id(), environment.id(), by.id(), comment,
                around.changes().now());
        mapper.promote(row);
        around.changes().record(AuditTrail.Entry.of(by.name(), "set promotion requested", set.name())
                .in(environment.name()).because(comment).with("deployment", Long.toString(first)));
        return row.id;
    }

    /** Outside any transaction, since git is asked for authors; one that is refused leaves nothing behind. */
    private long request(SetMapper.SetRow set, String environment, Versions.Version member, Person by,
            LongUnaryOperator promotion) {
        members(set.id())
                .forEach(each -> places.learn(lookups.environments().place(each.component(), environment), each));
        Environments.Place place = lookups.environments().place(member.component(), environment);
        return lookups.requests().request(new Requests.Wanted(place, member, Kind.PROMOTION, Optional.of(by),
                new Cause.Asked(by.name(), Optional.of("with the set " + set.name())), Optional.empty(),
                Optional.of(promotion)));
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public void perform(String body) {
        long id = Long.parseLong(body);
        SetMapper.PromotionRow promotion = mapper.promotion(id);
        // One that is live can still lose a member, which its recipe keeps checking.
        if (promotion.status().ended() && promotion.status() != SetCourse.Status.LIVE) {
            return;
        }
        List<Versions.Version> members = members(promotion.setId());
        SetCourse.Next next = around.changes().in(() -> noted(promotion, members));
        if (next.act().isPresent()) {
            Versions.Version member = members.get(next.member());
            if (next.act().get() == SetCourse.Act.REQUEST) {
                requestNext(promotion, member, members);
            } else {
                goBack(promotion, member, culprit(promotion, members) + " of its set did not go live");
            }
        }
    }

    /** How it stands now, written down, and what is next. */
    private SetCourse.Next noted(SetMapper.PromotionRow promotion, List<Versions.Version> members) {
        mapper.lock(promotion.id());
        SetCourse.Next next = SetCourse.next(standing(promotion, members));
        String word = Word.of(next.status());
        mapper.moved(promotion.id(), next.status(), next.status().ended() ? around.changes().now() : null);
        if (next.status() != promotion.status()) {
            around.changes().record(AuditTrail.Entry.of("paseo", "set " + word, mapper.byId(promotion.setId()).name())
                    .in(promotion.environment())
                    .because(next.status().fell() ? culprit(promotion, members) + " did not come to be live" : "")
                    .with("promotion", Long.toString(promotion.id())));
        }
        around.changes().publish("deployment", "set " + promotion.setId());
        return next;
    }

    /** The member that did not come to be live. */
    private String culprit(SetMapper.PromotionRow promotion, List<Versions.Version> members) {
        OptionalInt culprit = SetCourse.culprit(standing(promotion, members));
        return culprit.isPresent()
                ? members.get(culprit.getAsInt()).component() + " " + members.get(culprit.getAsInt()).number()
                : "another member";
    }

    /** How the deployment of each member stands, in the set's order. */
    private List<Optional<DeploymentStatus>> standing(SetMapper.PromotionRow promotion,
            List<Versions.Version> members) {
        List<SetMapper.MemberRow> rows = mapper.deployments(promotion.id());
        return members.stream().map(member -> rows.stream().filter(row -> row.versionId() == member.id()).findFirst()
                .map(SetMapper.MemberRow::status)).toList();
    }

    /**
     * What is live, waits or is under way of a member goes back; where somebody has deployed another since, it is left.
     */
    private void goBack(SetMapper.PromotionRow promotion, Versions.Version member, String why) {
        mapper.deployments(promotion.id()).stream().filter(row -> row.versionId() == member.id()).findFirst()
                .ifPresent(row -> places
                        .change(deployments.get(row.deployment()).placeId(),
                                place -> Optional.of(new PlaceEvent.GoesBack(row.deployment(), why)))
                        .ifPresent(refused -> LOG.warn("{} {} does not go back with its set: {}", member.component(),
                                member.number(), refused)));
    }

    /** A member that can no longer be requested fails the set: what is live of it goes back. */
    private void requestNext(SetMapper.PromotionRow promotion, Versions.Version member,
            List<Versions.Version> members) {
        SetMapper.SetRow set = mapper.byId(promotion.setId());
        try {
            refuseChanged(promotion, member);
            request(set, promotion.environment(), member, lookups.accounts().named(promotion.by()),
                    deployment -> promotion.id());
        } catch (Refusal refused) {
            String why = member.component() + " " + member.number() + " of its set could not be requested: "
                    + refused.getMessage();
            around.changes().run(() -> around.changes().record(AuditTrail.Entry
                    .of("paseo", "set goes back", set.name()).in(promotion.environment()).because(why)));
            members.reversed().forEach(each -> goBack(promotion, each, why));
        }
    }

    /**
     * People approved all members as they were when the set's gate opened: one that would be another now does not go.
     */
    private void refuseChanged(SetMapper.PromotionRow promotion, Versions.Version member) {
        Map<String, Subject> approved = mapper.subjects(promotion.id()).map(text -> around.json().read(text, SUBJECTS))
                .orElse(Map.of());
        Subject now = places.subject(lookups.environments().place(member.component(), promotion.environment()), member);
        Optional.ofNullable(approved.get(member.component())).filter(then -> !then.digest().equals(now.digest()))
                .ifPresent(then -> {
                    throw Refusal.conflict(
                            String.join(" and ", now.changedSince(then)) + " changed since the set was approved");
                });
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("a set's promotion stays where it is; a person has to look: {} ({})", body, error);
    }

    /** The newest 200. */
    List<SetMapper.SetRow> all() {
        return mapper.all();
    }

    /** The newest first. */
    List<SetMapper.PromotionRow> promotions(long set) {
        return mapper.promotions(set);
    }

    List<SetMapper.MemberRow> deployments(long promotion) {
        return mapper.deployments(promotion);
    }
}
