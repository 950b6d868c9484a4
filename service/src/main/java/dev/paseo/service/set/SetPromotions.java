package dev.paseo.service.set;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.SetCourse;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.engine.EffectHandler;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Promotions of sets: one gate, one record, and all of them or none. */
@Component
class SetPromotions implements EffectHandler {

    static final String KIND = "set";
    private static final Logger LOG = LoggerFactory.getLogger(SetPromotions.class);

    private final SetMapper mapper;
    private final Sets sets;
    private final SetRequests requests;
    private final SetReturns returns;
    private final Changes changes;

    SetPromotions(SetMapper mapper, Sets sets, SetRequests requests, SetReturns returns, Changes changes) {
        this.mapper = mapper;
        this.sets = sets;
        this.requests = requests;
        this.returns = returns;
        this.changes = changes;
    }

    /** Promotes all of a set as one; the number of the deployment at whose gate it waits. */
    long promote(SetMapper.SetRow set, Environments.Environment environment, Person by, String comment) {
        return requests.first(set, sets.members(set.id()), environment.name(), by,
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
                changes.now());
        mapper.promote(row);
        changes.record(AuditTrail.Entry.of(by.name(), "set promotion requested", set.name())
                .in(environment.name()).because(comment).with("deployment", Long.toString(first)));
        return row.id;
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
        List<Versions.Version> members = sets.members(promotion.setId());
        SetCourse.Next next = changes.in(() -> noted(promotion, members));
        if (next.act().isPresent()) {
            Versions.Version member = members.get(next.member());
            if (next.act().get() == SetCourse.Act.REQUEST) {
                requestNext(promotion, member, members);
            } else {
                returns.goBack(promotion, member, culprit(promotion, members) + " of its set did not go live");
            }
        }
    }

    /** How it stands now, written down, and what is next. */
    private SetCourse.Next noted(SetMapper.PromotionRow promotion, List<Versions.Version> members) {
        mapper.lock(promotion.id());
        SetCourse.Next next = SetCourse.next(standing(promotion, members));
        String word = Word.of(next.status());
        mapper.moved(promotion.id(), next.status(), next.status().ended() ? changes.now() : null);
        if (next.status() != promotion.status()) {
            changes.record(AuditTrail.Entry.of("paseo", "set " + word, mapper.byId(promotion.setId()).name())
                    .in(promotion.environment())
                    .because(next.status().fell() ? culprit(promotion, members) + " did not come to be live" : "")
                    .with("promotion", Long.toString(promotion.id())));
        }
        changes.publish("deployment", "set " + promotion.setId());
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

    /** A member that can no longer be requested fails the set: what is live of it goes back. */
    private void requestNext(SetMapper.PromotionRow promotion, Versions.Version member,
            List<Versions.Version> members) {
        SetMapper.SetRow set = mapper.byId(promotion.setId());
        try {
            requests.next(set, members, promotion, member);
        } catch (Refusal refused) {
            String why = member.component() + " " + member.number() + " of its set could not be requested: "
                    + refused.getMessage();
            changes.run(() -> changes.record(AuditTrail.Entry
                    .of("paseo", "set goes back", set.name()).in(promotion.environment()).because(why)));
            members.reversed().forEach(each -> returns.goBack(promotion, each, why));
        }
    }

    @Override
    public void gaveUp(String body, String error) {
        LOG.error("a set's promotion stays where it is; a person has to look: {} ({})", body, error);
    }
}
