package dev.paseo.core.gate;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The criteria that an environment, or one component there, sets for a gate; any number together.
 *
 * @param facts     conditions
 * @param factNames condition to what people are shown instead of it; absent where none has a name
 */
public record GateRules(List<Criterion.Approvals> approvals, List<Criterion.Checklist> checklists,
        Optional<Duration> liveFor, Optional<Hours> open,
        List<String> facts, List<Criterion.Outside> outside, Optional<Map<String, String>> factNames) {

    public static final GateRules NONE = new GateRules(List.of(), List.of(), Optional.empty(), Optional.empty(),
            List.of(), List.of());

    public GateRules {
        approvals = List.copyOf(approvals);
        checklists = List.copyOf(checklists);
        facts = List.copyOf(facts);
        outside = List.copyOf(outside);
        factNames = factNames.filter(names -> !names.isEmpty()).map(Map::copyOf);
    }

    /** Of facts without names. */
    public GateRules(List<Criterion.Approvals> approvals, List<Criterion.Checklist> checklists,
            Optional<Duration> liveFor, Optional<Hours> open, List<String> facts, List<Criterion.Outside> outside) {
        this(approvals, checklists, liveFor, open, facts, outside, Optional.empty());
    }

    /** What people are shown instead of a condition; empty: the condition itself. */
    public Optional<String> factName(String condition) {
        return factNames.map(names -> names.get(condition));
    }

    public boolean saysNothing() {
        return equals(NONE);
    }

    /** People first, as they are what takes longest. */
    public List<Criterion> criteria() {
        List<Criterion> criteria = new ArrayList<>(approvals);
        criteria.addAll(checklists);
        criteria.addAll(outside);
        liveFor.ifPresent(length -> criteria.add(new Criterion.LiveFor(length)));
        open.ifPresent(hours -> criteria.add(new Criterion.Open(hours)));
        facts.forEach(condition -> criteria.add(new Criterion.Fact(condition, factName(condition).orElse(""))));
        return criteria;
    }
}
