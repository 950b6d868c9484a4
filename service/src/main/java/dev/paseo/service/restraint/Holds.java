package dev.paseo.service.restraint;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Person;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Holds of places, closures of environments, blocks of versions. Each is set and lifted with a reason. */
@Component
public class Holds {

    private final RestraintMapper mapper;
    private final Restraints restraints;
    private final Changes changes;

    Holds(RestraintMapper mapper, Restraints restraints, Changes changes) {
        this.mapper = mapper;
        this.restraints = restraints;
        this.changes = changes;
    }

    public Optional<Restraints.Hold> held(Place place) {
        return restraints.hold(place.id());
    }

    public Optional<Restraints.Closure> closed(long environment) {
        return restraints.closure(environment);
    }

    public Optional<Restraints.ClosedPeriod> period(long environment) {
        return restraints.period(environment);
    }

    private static String given(String reason, String what) {
        String kept = reason.strip();
        if (kept.isEmpty()) {
            throw Refusal.invalid("/reason", "Say why " + what);
        }
        return Shortened.to(kept, 1000);
    }

    private void told(AuditTrail.Entry entry, String kind, long id) {
        changes.record(RestraintStates.into(entry, kind, id, mapper));
    }

    public void hold(Place place, Person by, String reason) {
        String why = given(reason, "the place is held");
        changes.run(() -> {
            mapper.lockPlace(place.id());
            mapper.liftHold(place.id(), by.id(), changes.now());
            mapper.addHold(place.id(), why, by.id(), changes.now());
            mapper.wakePlace(place.id(), changes.now());
            told(AuditTrail.Entry.of(by.name(), "held", place.component()).in(place.environment()).because(why),
                    RestraintStates.HOLD, place.id());
            changes.publish("whereabouts", place.component());
        });
    }

    public void liftHold(Place place, Person by, String reason) {
        changes.run(() -> {
            mapper.lockPlace(place.id());
            if (mapper.liftHold(place.id(), by.id(), changes.now()) == 0) {
                throw Refusal.conflict(place.component() + " is not held in " + place.environment());
            }
            mapper.wakePlace(place.id(), changes.now());
            told(AuditTrail.Entry.of(by.name(), "hold lifted", place.component()).in(place.environment())
                    .because(reason.strip()), RestraintStates.HOLD, place.id());
            changes.publish("whereabouts", place.component());
        });
    }

    public void close(Environments.Environment environment, Person by, String reason, Optional<Instant> until) {
        String why = given(reason, environment.name() + " is closed");
        until.filter(end -> !end.isAfter(changes.now())).ifPresent(past -> {
            throw Refusal.invalid("/until", "should be later than now, " + changes.now() + "; got " + past);
        });
        changes.run(() -> {
            mapper.lockEnvironment(environment.id());
            mapper.liftClosure(environment.id(), by.id(), changes.now());
            mapper.addClosure(environment.id(), why, by.id(), changes.now(), until.orElse(null));
            mapper.wake(environment.id(), changes.now());
            told(AuditTrail.Entry.of(by.name(), "closed", environment.name()).in(environment.name()).because(why)
                    .with("until", until.map(Instant::toString).orElse("")), RestraintStates.CLOSURE, environment.id());
            changes.publish("environment", environment.name());
        });
    }

    public void open(Environments.Environment environment, Person by, String reason) {
        changes.run(() -> {
            mapper.lockEnvironment(environment.id());
            if (restraints.closure(environment.id()).isEmpty()) {
                throw Refusal.conflict(restraints.period(environment.id())
                        .map(period -> environment.name() + " is closed by its calendar until " + period.until() + ": “"
                                + period.summary() + "”. Nobody closed it by hand, so nobody opens it; its rules do")
                        .orElse(environment.name() + " is not closed"));
            }
            mapper.liftClosure(environment.id(), by.id(), changes.now());
            mapper.wake(environment.id(), changes.now());
            told(AuditTrail.Entry.of(by.name(), "opened", environment.name()).in(environment.name())
                    .because(reason.strip()), RestraintStates.CLOSURE, environment.id());
            changes.publish("environment", environment.name());
        });
    }

    /** Nobody deploys it any more; what waits of it is withdrawn. */
    public void block(Versions.Version version, Person by, String reason) {
        String why = given(reason, version.number() + " is blocked");
        changes.run(() -> {
            if (mapper.block(version.id(), why, by.id(), changes.now()) == 0) {
                throw Refusal.conflict(version.component() + " " + version.number() + " is blocked already");
            }
            mapper.wakeOf(version.id(), changes.now());
            told(AuditTrail.Entry.of(by.name(), "blocked", version.component() + " " + version.number()).because(why),
                    RestraintStates.BLOCK, version.id());
            changes.publish("version", version.component() + " " + version.number());
        });
    }

    public void liftBlock(Versions.Version version, Person by, String reason) {
        String why = given(reason, "the block is lifted");
        changes.run(() -> {
            if (mapper.unblock(version.id()) == 0) {
                throw Refusal.conflict(version.component() + " " + version.number() + " is not blocked");
            }
            told(AuditTrail.Entry.of(by.name(), "block lifted", version.component() + " " + version.number())
                    .because(why), RestraintStates.BLOCK, version.id());
            changes.publish("version", version.component() + " " + version.number());
        });
    }

    /** Why, and by whom it was blocked. */
    public Optional<String> blocked(long version) {
        return mapper.blocked(version).map(row -> "blocked by " + row.by() + ": \"" + row.reason() + "\"");
    }
}
