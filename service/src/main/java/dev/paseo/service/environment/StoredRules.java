package dev.paseo.service.environment;

import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateRules;
import dev.paseo.service.database.Json;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Rules as they are kept, also those of earlier releases. */
@Component
public class StoredRules {

    /** The format before the gates were called to-enter and to-go-on. */
    private static final int FORMER_WORDS = 3;

    /** What was kept before there were gates onward. */
    private record Plain(Optional<String> follows, List<String> branches, Optional<PlainApprovals> approvals,
            Optional<PlainApprovals> rollback, Optional<Boolean> takesOver) {}

    private record PlainApprovals(String from, int count, List<Criterion.Exclusion> notBy, boolean commentRequired,
            Optional<Duration> within) {}

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
        if (kept.path("format").asInt() == FORMER_WORDS) {
            return json.read(json.write(inPresentWords((ObjectNode) kept)), Rules.class);
        }
        Plain plain = json.read(text, Plain.class);
        return new Rules(Rules.FORMAT, plain.follows().map(other -> new Criterion.Follows(List.of(other), false)),
                new Criterion.Origin(plain.branches(), List.of(), false),
                new Rules.Gates(gate(plain.approvals()), GateRules.NONE), gate(plain.rollback()),
                plain.takesOver().orElse(false), false, Map.of(), Optional.empty(), Optional.empty());
    }

    private static ObjectNode inPresentWords(ObjectNode kept) {
        kept.put("format", Rules.FORMAT);
        Stream.concat(Stream.of(kept.path("gates")), kept.path("components").valueStream()).forEach(gates -> {
            criteria(gates.path("entry"));
            criteria(gates.path("exit"));
            rename(gates, "entry", "toEnter");
            rename(gates, "exit", "toGoOn");
        });
        criteria(kept.path("rollback"));
        return kept;
    }

    private static void criteria(JsonNode gate) {
        rename(gate, "soak", "liveFor");
    }

    private static void rename(JsonNode node, String former, String present) {
        if (node instanceof ObjectNode object && object.has(former)) {
            object.set(present, object.remove(former));
        }
    }

    private static GateRules gate(Optional<PlainApprovals> approvals) {
        return approvals.map(rule -> new GateRules(
                List.of(new Criterion.Approvals(List.of(rule.from()), rule.count(), rule.notBy(),
                        rule.commentRequired(), rule.within(), Optional.empty())),
                List.of(), Optional.empty(), Optional.empty(), List.of(), List.of())).orElse(GateRules.NONE);
    }
}
