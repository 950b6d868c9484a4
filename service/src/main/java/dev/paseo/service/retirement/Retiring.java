package dev.paseo.service.retirement;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.retirement.Retirable;
import dev.paseo.core.retirement.Retirement;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.Removals;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Takes something out of use where nothing hinders it, and brings it back. */
@Component
class Retiring {

    /** @param environment of a place */
    record Subject(Retirable what, String name, Optional<String> environment) {

        String words() {
            return name + environment.map(in -> " in " + in).orElse("");
        }
    }

    private final RetirementMapper mapper;
    private final RetirementFacts facts;
    private final Components components;
    private final Removals removals;
    private final Changes changes;

    Retiring(RetirementMapper mapper, RetirementFacts facts, Components components, Removals removals,
            Changes changes) {
        this.mapper = mapper;
        this.facts = facts;
        this.components = components;
        this.removals = removals;
        this.changes = changes;
    }

    List<RetirementMapper.RetiredRow> retired() {
        return mapper.retired();
    }

    /**
     * What follows from it is what {@link RetirementFacts} said: where that has changed meanwhile, and hinders it now,
     * nothing is done.
     */
    void retire(Subject subject, String reason, boolean remove, Person by) {
        changes.run(() -> {
            Retirement.Facts now = facts.of(subject);
            List<String> hinders = Retirement.hinders(now, remove);
            if (!hinders.isEmpty()) {
                throw Refusal.conflict(subject.words() + " is not retired: " + String.join("; ", hinders));
            }
            if (remove) {
                facts.live(subject).forEach(row -> {
                    Permission.require(by, Action.ROLL_BACK, "remove " + row.component() + " from " + row.environment(),
                            Optional.of(row.component()), Optional.of(row.environment()));
                    removals.begin(row.placeId(), subject.words() + " is retired");
                });
            }
            mark(subject, Optional.of(changes.now()));
            changes.record(AuditTrail.Entry.of(by.name(), words(subject.what()) + " retired", subject.name())
                    .in(subject.environment().orElse("")).because(reason)
                    .with("follows", String.join("; ", Retirement.follows(now, remove))));
            changes.publish("environment", "all");
        });
    }

    void bringBack(Subject subject, Person by) {
        if (subject.what() == Retirable.AGENT) {
            throw Refusal.conflict("An agent's token does not come back: enrol it again under the same name");
        }
        changes.run(() -> {
            mark(subject, Optional.empty());
            changes.record(AuditTrail.Entry.of(by.name(), words(subject.what()) + " brought back", subject.name())
                    .in(subject.environment().orElse("")));
            changes.publish("environment", "all");
        });
        if (subject.what() == Retirable.COMPONENT) {
            components.refreshTriggers();
        }
    }

    private void mark(Subject subject, Optional<Instant> at) {
        Instant when = at.orElse(null);
        long id = facts.id(subject);
        switch (subject.what()) {
            case COMPONENT -> {
                mapper.componentRetired(id, when);
                mapper.dropTriggers(id);
            }
            case PLACE -> mapper.placeRetired(id, when);
            case HOST -> mapper.hostRetired(id, when);
            case AGENT -> mapper.agentRetired(id, when);
            case ENVIRONMENT, PREVIEW_TEMPLATE -> mapper.environmentRetired(id, when);
        }
    }

    static String words(Retirable what) {
        return what.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
    }
}
