package dev.paseo.service.asking;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.AskedAct;
import dev.paseo.core.access.Person;
import dev.paseo.core.text.Word;
import dev.paseo.service.asking.AskMapper.AskRow;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What is asked of those who may, until one of them does it or declines, or whoever asks drops it. */
@Component
public class Asks {

    private static final int MOST = 20;

    /** How it ended; {@code over}: there was nothing left to do. */
    public enum Outcome {
        DONE, DECLINED, DROPPED, OVER
    }

    /**
     * What somebody asks of those who may.
     *
     * @param sentence   as it completes "asks to ..."
     * @param words      why
     * @param asked      who may do it now, in the order of their names
     * @param outcome    nothing: it waits
     * @param deployment by which it was done
     */
    public record AskedView(long id, AskedAct act, String sentence, String component, String environment,
            Optional<String> version, String words, String by, Instant at, Set<String> asked,
            Optional<Outcome> outcome, Optional<String> answer, Optional<String> answeredBy,
            Optional<Long> deployment, Optional<Instant> endedAt) {}

    private final AskMapper mapper;
    private final Environments environments;
    private final Versions versions;
    private final Changes changes;
    private final WhoIsAsked who;

    Asks(AskMapper mapper, Environments environments, Versions versions, Changes changes, WhoIsAsked who) {
        this.mapper = mapper;
        this.environments = environments;
        this.versions = versions;
        this.changes = changes;
        this.who = who;
    }

    /** What is asked of this person, the oldest first. */
    public List<AskedView> waitingFor(Person person) {
        return open(person).map(this::view).toList();
    }

    /** How much is asked of this person; without looking up of whom else. */
    public int countFor(Person person) {
        return (int) open(person).count();
    }

    private Stream<AskRow> open(Person person) {
        return mapper.open().stream().filter(row -> !row.by().equals(person.name()))
                .filter(row -> may(person, act(row), row.component(), row.environment()));
    }

    private static boolean may(Person person, AskedAct act, String component, String environment) {
        return person.may(act.action(), Optional.of(component), Optional.of(environment));
    }

    private static AskedAct act(AskRow row) {
        return Word.read(AskedAct.class, row.act()).orElseThrow();
    }

    /** What this person asked, the newest first; at most 50. */
    List<AskedView> of(Person person) {
        return mapper.of(person.id()).stream().map(this::view).toList();
    }

    /** Asks it of those who may; the same once more is the one that is open. */
    AskedView ask(Person person, AskedAct act, Place place, Optional<String> number, String words) {
        Optional<Versions.Version> version = number
                .map(each -> versions.numbered(place.componentId(), place.component(), each));
        refuseNeedless(person, act, place, version);
        return view(changes.in(() -> {
            mapper.lock(person.id());
            Long of = version.map(Versions.Version::id).orElse(null);
            Optional<Long> same = mapper.same(person.id(), Word.of(act), place.id(), of);
            if (same.isEmpty() && mapper.countOpen(person.id()) >= MOST) {
                throw Refusal
                        .conflict("You ask " + MOST + " things already, which is the most: drop one of them first");
            }
            return same.orElseGet(() -> {
                mapper.add(person.id(), Word.of(act), place.id(), of, words, changes.now());
                long id = mapper.same(person.id(), Word.of(act), place.id(), of).orElseThrow();
                AskedView ask = view(id);
                changes.record(entry(person.name(), "asked to " + Word.of(act), ask).because(words));
                who.asked(ask);
                changes.publish("asks", Long.toString(id));
                return id;
            });
        }));
    }

    private void refuseNeedless(Person person, AskedAct act, Place place, Optional<Versions.Version> version) {
        String what = act.sentence(place.component(), version.map(Versions.Version::number), place.environment());
        if (may(person, act, place.component(), place.environment())) {
            throw Refusal.conflict("You may " + what + " yourself");
        }
        Optional<String> needless = switch (act) {
            case PROMOTE -> version.filter(Versions.Version::blocked).map(each -> each.number() + " is blocked")
                    .or(() -> version.flatMap(each -> mapper.already(place.id(), each.id())).map(
                            id -> "it is there already, or on its way, by deployment " + id));
            case ROLL_BACK -> place.liveDeployment().isEmpty() ? Optional.of("nothing is live there")
                    : Optional.empty();
            case HOLD -> mapper.held(place.id()) ? Optional.of("it is held") : Optional.empty();
            case LIFT_HOLD -> mapper.held(place.id()) ? Optional.empty() : Optional.of("it is not held");
        };
        needless.or(() -> place.retired().map(since -> "nothing is deployed there any more"))
                .or(() -> who.of(act, place.component(), place.environment()).isEmpty()
                        ? Optional.of("nobody may; an administrator gives that role")
                        : Optional.empty())
                .ifPresent(why -> {
                    throw Refusal.conflict("Nobody is asked to " + what + ": " + why);
                });
    }

    /** Who may do it says that it is not done, and why. */
    AskedView decline(Person person, long id, String answer) {
        changes.run(() -> {
            AskedView ask = open(person, id);
            if (!may(person, ask.act(), ask.component(), ask.environment())) {
                throw Refusal.notAllowed("Only who may " + ask.sentence() + " declines it: "
                        + String.join(", ", ask.asked()));
            }
            end(ask, Outcome.DECLINED, person.name() + " declined: " + answer,
                    new AskMapper.EndRow(id, person.id(), null, answer));
            changes.record(entry(person.name(), "ask declined", ask).because(answer).with("asked by", ask.by()));
        });
        return view(id);
    }

    /** Whoever asked asks it no more. */
    void drop(Person person, long id) {
        changes.run(() -> {
            AskedView ask = open(person, id);
            if (!ask.by().equals(person.name())) {
                throw Refusal.notAllowed("Only " + ask.by() + ", who asked it, drops it");
            }
            end(ask, Outcome.DROPPED, "", new AskMapper.EndRow(id, person.id(), null, null));
            changes.record(entry(person.name(), "ask dropped", ask));
        });
    }

    /** Ends what has been done since, whichever way, and what can no longer be done. */
    void endWhatIsDone() {
        mapper.ended().forEach(row -> changes.run(() -> {
            AskedView ask = view(row.id());
            if (ask.outcome().isEmpty()) {
                end(ask, row.needless() == null ? Outcome.DONE : Outcome.OVER, row.needless() == null
                        ? "It is done" + Optional.ofNullable(row.deployment())
                                .map(deployment -> ", as deployment " + deployment).orElse("") + "."
                        : "There is nothing left to do: " + row.needless() + ".", row);
            }
        }));
    }

    /** One that waits, for a person who sees it. */
    private AskedView open(Person person, long id) {
        AskedView ask = view(id);
        if (!ask.by().equals(person.name()) && !person.may(Action.LOOK, Optional.of(ask.component()),
                Optional.of(ask.environment()))) {
            throw unknown(id);
        }
        refuseEnded(ask);
        return ask;
    }

    private static void refuseEnded(AskedView ask) {
        ask.outcome().ifPresent(outcome -> {
            throw Refusal.conflict("Ask " + ask.id() + " waits no more: it is " + Word.of(outcome)
                    + ask.answeredBy().map(by -> ", by " + by).orElse(""));
        });
    }

    private void end(AskedView ask, Outcome outcome, String told, AskMapper.EndRow row) {
        if (mapper.end(ask.id(), Word.of(outcome), row.needless(), row.by(), row.deployment(), changes.now()) == 0) {
            refuseEnded(view(ask.id()));
        }
        if (!told.isEmpty()) {
            who.ended(ask, told, Optional.ofNullable(row.deployment()));
        }
        changes.publish("asks", Long.toString(ask.id()));
    }

    private static AuditTrail.Entry entry(String by, String action, AskedView ask) {
        return AuditTrail.Entry
                .of(by, action, ask.component() + ask.version().map(number -> " " + number).orElse(""))
                .in(ask.environment()).with("ask", Long.toString(ask.id()));
    }

    private AskedView view(long id) {
        return mapper.byId(id).map(this::view).orElseThrow(() -> unknown(id));
    }

    private static Refusal unknown(long id) {
        return Refusal.notFound("There is no ask " + id);
    }

    private AskedView view(AskRow row) {
        AskedAct act = act(row);
        Optional<String> version = Optional.ofNullable(row.version());
        return new AskedView(row.id(), act, act.sentence(row.component(), version, row.environment()), row.component(),
                row.environment(), version, row.words(), row.by(), row.at(),
                who.of(act, row.component(), row.environment()),
                Optional.ofNullable(row.outcome()).flatMap(word -> Word.read(Outcome.class, word)),
                Optional.ofNullable(row.answer()), Optional.ofNullable(row.answeredBy()),
                Optional.ofNullable(row.deployment()), Optional.ofNullable(row.endedAt()));
    }
}
