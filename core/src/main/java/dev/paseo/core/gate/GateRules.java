package dev.paseo.core.gate;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The criteria that an environment, or one component there, sets for a gate; any number together. */
public record GateRules(List<Criterion.Approvals> approvals, List<Criterion.Checklist> checklists,
        Optional<Duration> liveFor, Optional<Hours> open,
        List<String> facts, List<Criterion.Outside> outside) {

    public static final GateRules NONE = new GateRules(List.of(), List.of(), Optional.empty(), Optional.empty(),
            List.of(), List.of());

    public GateRules {
        approvals = List.copyOf(approvals);
        checklists = List.copyOf(checklists);
        facts = List.copyOf(facts);
        outside = List.copyOf(outside);
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
        facts.forEach(condition -> criteria.add(new Criterion.Fact(condition)));
        return criteria;
    }
}
