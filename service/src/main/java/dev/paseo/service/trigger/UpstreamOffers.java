package dev.paseo.service.trigger;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.core.trigger.UpstreamChoice.Candidate;
import dev.paseo.core.trigger.UpstreamChoice.Choice;
import dev.paseo.core.trigger.UpstreamChoice;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.run.RunStarts;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/** What upstream components have sealed, and which of it a line has used; read while the line is held. */
@Component
class UpstreamOffers {

    /** What follows for one trigger. */
    sealed interface Offer {

        record Takes(List<RunStarts.Upstream> versions) implements Offer {}

        record Waits(String reason) implements Offer {}
    }

    private static final int NEWEST = 200;
    private static final int WEIGHED = 10;

    private final EventMapper mapper;
    private final Components components;

    UpstreamOffers(EventMapper mapper, Components components) {
        this.mapper = mapper;
        this.components = components;
    }

    Offer choose(Trigger.Upstream trigger, Happened happened, long line) {
        if (happened.brought().isEmpty()) {
            return new Offer.Waits("the run sealed no version");
        }
        long version = happened.brought().get().version();
        Map<String, List<Candidate>> sealed = new LinkedHashMap<>();
        new TreeSet<>(trigger.components()).forEach(name -> sealed.put(name, candidates(name, trigger)));
        Candidate own = sealed.get(happened.about().name()).stream().filter(each -> each.id() == version).findFirst()
                .orElse(null);
        if (own == null) {
            return new Offer.Waits("the version was blocked, or more than " + WEIGHED + " newer ones are there");
        }
        Map<String, Long> used = new HashMap<>();
        mapper.used(line).forEach(row -> used.put(components.byId(row.componentId()).name(), row.versionId()));
        return switch (UpstreamChoice.choose(trigger.together(), own, sealed, used)) {
            case Choice.Waits(String reason) -> new Offer.Waits(reason);
            case Choice.Starts(List<Candidate> versions) -> new Offer.Takes(versions.stream()
                    .map(each -> new RunStarts.Upstream(components.named(each.component()).id(), each.id())).toList());
        };
    }

    private List<Candidate> candidates(String name, Trigger.Upstream trigger) {
        RegisteredComponent component = components.named(name);
        List<EventMapper.SealedRow> rows = mapper.sealed(component.id(), NEWEST).stream()
                .filter(row -> trigger.branches().isEmpty()
                        ? row.branch().equals(component.mainBranch()) : matches(trigger.branches(), row.branch()))
                .limit(WEIGHED).toList();
        if (rows.isEmpty()) {
            return List.of();
        }
        Map<Long, Map<String, Set<String>>> lineage = new HashMap<>();
        mapper.lineage(rows.stream().map(EventMapper.SealedRow::id).toList()).forEach(row -> lineage
                .computeIfAbsent(row.root(), id -> new HashMap<>())
                .computeIfAbsent(row.component(), id -> new TreeSet<>()).add(row.number()));
        List<Candidate> candidates = new ArrayList<>();
        rows.forEach(row -> candidates
                .add(new Candidate(row.id(), name, row.number(), lineage.getOrDefault(row.id(), Map.of()))));
        return candidates;
    }

    private static boolean matches(List<BranchPattern> patterns, String branch) {
        return patterns.stream().anyMatch(pattern -> pattern.matches(branch));
    }
}
