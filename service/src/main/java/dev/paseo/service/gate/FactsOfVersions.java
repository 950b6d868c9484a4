package dev.paseo.service.gate;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Needs.What;
import dev.paseo.core.gate.Needs;
import dev.paseo.language.condition.Condition;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.version.Versions;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** What is known of a version that stands at a gate: where it has been, for how long, and what its runs reported. */
@Component
class FactsOfVersions {

    private static final int MOST_KNOWN = 100;

    private final Environments environments;
    private final Versions versions;
    private final Evidence evidence;
    private final Stretches stretches;
    private final ServiceClock clock;
    /** By the conditions that are asked together. */
    private final Map<Set<String>, Condition> known = new ConcurrentHashMap<>();

    FactsOfVersions(Environments environments, Versions versions, Evidence evidence, Stretches stretches,
            ServiceClock clock) {
        this.environments = environments;
        this.versions = versions;
        this.evidence = evidence;
        this.stretches = stretches;
        this.clock = clock;
    }

    GateFacts.OfVersion of(Gates.AtGate at, Needs needs) {
        Versions.Version version = at.version();
        return new GateFacts.OfVersion(needs.has(What.PASSED) ? environments.passed(version.id()) : Set.of(),
                version.branch(), version.trusted(),
                needs.has(What.TAGS) ? versions.names(version.id()) : List.of(), version.commit().isEmpty(),
                needs.has(What.STRETCH) ? stretch(at) : GateFacts.Stretch.NOT_AT_ALL,
                needs.conditions().isEmpty() ? Map.of() : conditions(at, needs.conditions()));
    }

    /** Here at the gate onward; at the gate before in what is followed. */
    private GateFacts.Stretch stretch(Gates.AtGate at) {
        if (at.standing().leaves()) {
            return stretches.of(at.place(), at.version().id());
        }
        Optional<Criterion.Follows> follows = at.environment().rules().follows();
        return GateFacts.Stretch.counting(
                stretches.in(follows.map(Criterion.Follows::environments).orElse(List.of()), at.version().id()),
                follows.filter(Criterion.Follows::any).isPresent(),
                clock.now());
    }

    private Map<String, GateFacts.Held> conditions(Gates.AtGate at, Set<String> conditions) {
        Versions.Version version = at.version();
        Map<String, Object> facts = evidence.factsOfVersion(version.id(), version.run());
        facts.putAll(Map.of("component", version.component(), "version", version.number(), "branch", version.branch(),
                "commit", version.commit().orElse(""),
                "trusted", version.trusted(), "live", at.live().map(Versions.Version::number).orElse("")));
        Condition over = over(conditions);
        Map<String, GateFacts.Held> held = new LinkedHashMap<>();
        conditions.forEach(
                text -> held.put(text, new GateFacts.Held(over.holds(text, facts), Condition.seen(text, facts))));
        return held;
    }

    /** Making one takes longer than asking; an environment that is no more has no facts. */
    private Condition over(Set<String> conditions) {
        if (known.size() > MOST_KNOWN) {
            known.clear();
        }
        return known.computeIfAbsent(conditions, Condition::overGatesOf);
    }
}
