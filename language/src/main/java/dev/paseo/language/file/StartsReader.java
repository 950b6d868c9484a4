package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Trigger.Novelty;
import dev.paseo.core.trigger.Trigger.RunEnd;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.Value;
import dev.paseo.language.clock.ClockTimes;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Reads the triggers of a pipeline file. */
final class StartsReader {

    private static final int MOST_STARTS = 100;
    private static final Map<String, RunEnd> OUTCOMES = Map.of("passed", RunEnd.PASSED, "warned", RunEnd.WARNED,
            "failed", RunEnd.FAILED, "cancelled", RunEnd.CANCELLED);
    private static final Map<String, Novelty> NOVELTIES = Map.of("any", Novelty.ANY, "all", Novelty.ALL, "consistent",
            Novelty.CONSISTENT);
    /** What each kind of trigger may say beside its own key. */
    private static final Map<String, List<String>> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put("push", List.of("paths"));
        KINDS.put("tag", List.of());
        KINDS.put("clock", List.of("zone"));
        KINDS.put("upstream", List.of("branches", "outcomes", "same-commit", "new"));
        KINDS.put("live", List.of());
        KINDS.put("arrival", List.of());
        KINDS.put("preview", List.of());
    }

    private StartsReader() {}

    static List<Trigger> read(Value value) {
        List<Value> items = value.items();
        if (items.size() > MOST_STARTS) {
            value.problem("has " + items.size() + " triggers; at most " + MOST_STARTS + " are allowed");
        }
        return items.stream().flatMap(item -> start(item).stream()).toList();
    }

    private static Optional<Trigger> start(Value item) {
        Map<String, Value> all = item.entries();
        List<String> kinds = KINDS.keySet().stream().filter(all::containsKey).toList();
        if (kinds.size() != 1) {
            item.entries(kinds.isEmpty() ? List.copyOf(KINDS.keySet()) : List.copyOf(all.keySet()));
            item.problem("is one trigger and should have one of " + String.join(", ", KINDS.keySet()) + ", found "
                    + (kinds.isEmpty() ? "none" : String.join(" and ", kinds)));
            return Optional.empty();
        }
        String kind = kinds.getFirst();
        List<String> known = new ArrayList<>(List.of(kind));
        known.addAll(KINDS.get(kind));
        return start(kind, item.entries(known));
    }

    private static Optional<Trigger> start(String kind, Map<String, Value> entries) {
        Value own = entries.get(kind);
        return switch (kind) {
            case "push" -> Optional.of(
                    new Trigger.Push(branches(own), optional(entries, "paths").map(Names::patterns)
                            .map(StartsReader::patterns).orElse(List.of())));
            case "tag" -> own.text(Names.PATTERN, Names.PATTERN_WORDS).map(BranchPattern::new).map(Trigger.Tag::new);
            case "clock" -> clock(own, optional(entries, "zone"));
            case "upstream" -> Optional.of(upstream(own, entries));
            case "live" -> live(own);
            case "arrival" -> own.choice(Map.of("true", true)).map(yes -> new Trigger.Arrival());
            default -> Optional.of(new Trigger.Preview(branches(own)));
        };
    }

    private static List<BranchPattern> patterns(List<String> texts) {
        return texts.stream().map(BranchPattern::new).toList();
    }

    private static List<BranchPattern> branches(Value value) {
        List<String> branches = value.items().stream()
                .flatMap(item -> item.text(Names.PATTERN, Names.PATTERN_WORDS).stream()).toList();
        if (branches.isEmpty() && value.isList()) {
            value.problem("is empty; it names at least one branch");
        }
        return patterns(branches);
    }

    private static Optional<Trigger> clock(Value own, Optional<Value> zone) {
        Optional<String> cron = own.text();
        cron.ifPresent(text -> {
            try {
                ClockTimes.require(text);
                if (ClockTimes.next(text, "UTC", Instant.EPOCH).isEmpty()) {
                    own.problem("never comes: there is no such day");
                }
            } catch (IllegalArgumentException wrong) {
                own.problem(
                        "should be five fields: minute hour day-of-month month day-of-week, such as \"0 2 * * 1-5\"");
            }
        });
        String where = zone.flatMap(Value::text).orElse("UTC");
        zone.filter(value -> !ZoneId.getAvailableZoneIds().contains(where))
                .ifPresent(value -> value.problem("should be a time zone such as Europe/Madrid or UTC"));
        return cron.map(text -> new Trigger.Clock(text, where));
    }

    private static Trigger upstream(Value own, Map<String, Value> entries) {
        List<String> components = own.isText() ? own.text(Names.NAME, Names.NAME_WORDS).stream().toList()
                : Names.names(own, "a component's name");
        Set<RunEnd> outcomes = optional(entries, "outcomes").map(value -> value.items().stream()
                .flatMap(item -> item.choice(OUTCOMES).stream())
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(RunEnd.class))))
                .orElseGet(() -> EnumSet.of(RunEnd.PASSED));
        Optional<Value> novelty = optional(entries, "new");
        if (components.isEmpty() && own.isList()) {
            own.problem("is empty; it names at least one component");
        }
        return new Trigger.Upstream(components,
                optional(entries, "branches").map(StartsReader::branches).orElse(List.of()), outcomes,
                optional(entries, "same-commit").flatMap(Value::flag).orElse(false),
                novelty.flatMap(value -> value.choice(NOVELTIES)).orElse(Novelty.ANY));
    }

    private static Optional<Trigger> live(Value own) {
        Map<String, Value> entries = own.entries(List.of("component", "in"));
        Optional<String> component = require(own, entries, "component", "component: whose version goes live")
                .flatMap(value -> value.text(Names.NAME, Names.NAME_WORDS));
        Optional<String> environment = require(own, entries, "in", "in: the environment")
                .flatMap(value -> value.text(Names.NAME, Names.NAME_WORDS));
        return component.flatMap(name -> environment.map(where -> new Trigger.Live(name, where)));
    }
}
