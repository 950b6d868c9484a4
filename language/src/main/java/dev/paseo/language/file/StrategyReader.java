package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;

import dev.paseo.language.Value;
import dev.paseo.language.condition.Condition;
import dev.paseo.language.file.Recipe.Share;
import dev.paseo.language.file.Recipe.Strategy;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Reads the strategy of a recipe: a word, or a word with its settings. */
final class StrategyReader {

    private static final Map<String, Strategy.Kind> KINDS = Map.of("together", Strategy.Kind.TOGETHER, "rolling",
            Strategy.Kind.ROLLING,
            "blue-green", Strategy.Kind.BLUE_GREEN, "canary", Strategy.Kind.CANARY);
    /** Of the version; a recipe does not know which environments there are. */
    private static final Condition FACTS = Condition.overGates(List.of());
    private static final Duration LONGEST_PAUSE = Duration.ofHours(24);
    private static final Duration LONGEST_STAY = Duration.ofDays(30);

    private StrategyReader() {}

    static Strategy read(Value value) {
        if (value.isText()) {
            Strategy.Kind kind = value.choice(KINDS).orElse(Strategy.Kind.TOGETHER);
            if (kind == Strategy.Kind.CANARY) {
                value.problem("should say which shares: canary: {shares: [{percent: 10, stay: 5m}]}");
            }
            return new Strategy(kind, 1, Duration.ZERO, false, 0, List.of(), Duration.ZERO);
        }
        Map<String, Value> entries = value.entries(List.copyOf(KINDS.keySet()));
        if (entries.size() != 1) {
            value.problem("should be one strategy: together, rolling, blue-green or canary");
            return Strategy.TOGETHER;
        }
        Map.Entry<String, Value> only = entries.entrySet().iterator().next();
        return switch (only.getKey()) {
            case "rolling" -> rolling(only.getValue());
            case "blue-green" -> sided(Strategy.Kind.BLUE_GREEN, only.getValue(), List.of("old-side-stays"));
            case "canary" -> sided(Strategy.Kind.CANARY, only.getValue(), List.of("shares", "old-side-stays"));
            case "together" -> {
                only.getValue().entries(List.of());
                yield Strategy.TOGETHER;
            }
            default -> Strategy.TOGETHER;
        };
    }

    private static Strategy rolling(Value value) {
        Map<String, Value> entries = value.entries(List.of("batch", "pause", "order", "may-fail"));
        return new Strategy(Strategy.Kind.ROLLING,
                optional(entries, "batch").flatMap(each -> each.number(1, 1000)).orElse(1),
                optional(entries, "pause").flatMap(each -> each.duration(LONGEST_PAUSE)).orElse(Duration.ZERO),
                optional(entries, "order").flatMap(each -> each.choice(Map.of("as-written", false, "reversed", true)))
                        .orElse(false),
                optional(entries, "may-fail").flatMap(each -> each.number(0, 1000)).orElse(0), List.of(),
                Duration.ZERO);
    }

    private static Strategy sided(Strategy.Kind kind, Value value, List<String> keys) {
        Map<String, Value> entries = value.entries(keys);
        List<Share> shares = optional(entries, "shares").map(StrategyReader::shares).orElse(List.of());
        if (kind == Strategy.Kind.CANARY && !entries.containsKey("shares")) {
            value.problem("needs shares: how much of the traffic it gets, and for how long");
        }
        return new Strategy(kind, 1, Duration.ZERO, false, 0, shares,
                optional(entries, "old-side-stays").flatMap(each -> each.duration(LONGEST_STAY)).orElse(Duration.ZERO));
    }

    private static List<Share> shares(Value value) {
        List<Share> shares = new ArrayList<>();
        for (Value item : value.items()) {
            Map<String, Value> entries = item.entries(List.of("percent", "stay", "facts", "ask"));
            Optional<Integer> percent = Names.require(item, entries, "percent", "percent: how much of the traffic")
                    .flatMap(each -> each.number(1, 99));
            percent.filter(share -> !shares.isEmpty() && share <= shares.getLast().percent()).ifPresent(share -> item
                    .problem("should be more than the share before it, " + shares.getLast().percent() + " percent"));
            Duration stay = optional(entries, "stay").flatMap(each -> each.duration(LONGEST_PAUSE))
                    .orElse(Duration.ZERO);
            Optional<String> facts = optional(entries, "facts").flatMap(each -> Names.condition(each, FACTS));
            boolean asked = optional(entries, "ask").flatMap(Value::flag).orElse(false);
            percent.ifPresent(share -> shares.add(new Share(share, stay, facts, asked)));
        }
        if (shares.isEmpty()) {
            value.problem("should have at least one share");
        }
        return shares;
    }
}
