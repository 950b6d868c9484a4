package dev.paseo.service.environment;

import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.service.database.Json;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;

/** Rules as they are kept, also those of earlier releases. */
@Component
public class StoredRules {

    /** What was kept before there were exit gates. */
    private record Plain(Optional<String> follows, List<String> branches, Optional<PlainApprovals> approvals, Optional<PlainApprovals> rollback, Optional<Boolean> takesOver) {}

    private record PlainApprovals(String from, int count, List<Criterion.Exclusion> notBy, boolean commentRequired, Optional<Duration> within) {}

    private final Json json;

    public StoredRules(Json json) {
        this.json = json;
    }

    public String write(Rules rules) {
        return json.write(rules);
    }

    public Rules read(String text) {
        JsonNode kept = json.read(text, JsonNode.class);
        if (kept.isEmpty()) {
            return Rules.NONE;
        }
        if (kept.path("format").asInt() == Rules.FORMAT) {
            return json.read(text, Rules.class);
        }
        Plain plain = json.read(text, Plain.class);
        return new Rules(Rules.FORMAT, plain.follows().map(other -> new Criterion.Follows(List.of(other), false)), new Criterion.Origin(plain.branches(), List.of(), false),
                new Rules.Gates(gate(plain.approvals()), GateRules.NONE), gate(plain.rollback()), plain.takesOver().orElse(false), false, Map.of(), Optional.empty());
    }

    private static GateRules gate(Optional<PlainApprovals> approvals) {
        return approvals.map(rule -> new GateRules(List.of(new Criterion.Approvals(List.of(rule.from()), rule.count(), rule.notBy(), rule.commentRequired(), rule.within(), Optional.empty())),
                List.of(), Optional.empty(), Optional.empty(), List.of(), List.of())).orElse(GateRules.NONE);
    }
}
