package dev.paseo.service.gate;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.language.condition.Condition;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What is known of a version that stands at a gate: where it has been, for how long, and what its runs reported. */
@Component
class FactsOfVersions {

    private final Environments environments;
    private final Versions versions;
    private final Evidence evidence;
    private final Stretches stretches;
    private final ServiceClock clock;
    private Optional<Over> over = Optional.empty();

    private record Over(List<String> environments, Condition condition) {}

    FactsOfVersions(Environments environments, Versions versions, Evidence evidence, Stretches stretches,
            ServiceClock clock) {
        this.environments = environments;
        this.versions = versions;
        this.evidence = evidence;
        this.stretches = stretches;
        this.clock = clock;
    }

    GateFacts.OfVersion of(Gates.AtGate at, List<Criterion> criteria) {
        Versions.Version version = at.version();
        boolean counts = criteria.stream().anyMatch(Criterion.LiveFor.class::isInstance);
        List<String> conditions = criteria.stream().filter(Criterion.Fact.class::isInstance)
                .map(criterion -> ((Criterion.Fact) criterion).condition()).toList();
        return new GateFacts.OfVersion(environments.passed(version.id()), version.branch(), version.trusted(),
                versions.names(version.id()),
                version.commit().isEmpty(), counts ? stretch(at) : GateFacts.Stretch.NOT_AT_ALL,
                conditions.isEmpty() ? Map.of() : conditions(at, conditions));
    }

    /** Here at the gate onward; at the gate before in what is followed. */
    private GateFacts.Stretch stretch(Gates.AtGate at) {
        if (at.standing().leaves()) {
            return stretches.of(at.place(), at.version().id());
        }
        Optional<Criterion.Follows> follows = environments.byId(at.place().environmentId()).rules().follows();
        List<GateFacts.Stretch> all = follows.map(Criterion.Follows::environments).orElse(List.of()).stream()
                .map(name -> environments.find(at.place().component(), name)
                        .map(place -> stretches.of(place, at.version().id()))
                        .orElse(new GateFacts.Stretch(name, Duration.ZERO, Optional.empty())))
                .toList();
        return GateFacts.Stretch.counting(all, follows.filter(Criterion.Follows::any).isPresent(),
                clock.now());
    }

    private Map<String, GateFacts.Held> conditions(Gates.AtGate at, List<String> conditions) {
        Versions.Version version = at.version();
        Map<String, Object> facts = evidence.factsOfVersion(version.id(), version.run());
        facts.putAll(Map.of("component", version.component(), "version", version.number(), "branch", version.branch(),
                "commit", version.commit().orElse(""),
                "trusted", version.trusted(), "live", at.live().map(Versions.Version::number).orElse("")));
        Condition over = over(environments.all().stream().map(Environments.Environment::name).toList());
        Map<String, GateFacts.Held> held = new LinkedHashMap<>();
        conditions.forEach(
                text -> held.put(text, new GateFacts.Held(over.holds(text, facts), Condition.seen(text, facts))));
        return held;
    }

    /** Conditions over the environments that there are; another only when these change. */
    private synchronized Condition over(List<String> names) {
        if (over.isEmpty() || !over.get().environments().equals(names)) {
            over = Optional.of(new Over(names, Condition.overGates(names)));
        }
        return over.get().condition();
    }
}
