package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;

import dev.paseo.language.Value;
import dev.paseo.language.file.Recipe.Check;
import dev.paseo.language.file.Recipe.Metric;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;

/** Reads the checks of a recipe. */
final class ChecksReader {

    /** The placeholders of checks. */
    static final Set<String> PLACEHOLDERS = new TreeSet<>(
            Set.of("version", "commit", "component", "environment", "url", "host", "host.url", "host.folder", "side"));
    private static final List<String> KINDS = List.of("http", "command", "port", "metric");
    private static final List<String> OF_HTTP = List.of("status", "contains", "header", "json", "redirects");
    private static final List<String> OF_METRIC = List.of("name", "at-least", "at-most");
    private static final List<String> KEYS = List.of(
            "http", "command", "port", "metric", "within", "status", "contains", "header", "json", "redirects", "name",
            "at-least", "at-most");
    private static final Duration LONGEST = Duration.ofMinutes(30);
    private static final Pattern NUMBER = Pattern.compile("-?[0-9]{1,15}(\\.[0-9]{1,9})?");
    private static final Pattern ANY = Pattern.compile("(?s).{1,200}");

    private ChecksReader() {}

    static List<Check> read(Value value) {
        return value.items().stream().flatMap(item -> check(item).stream()).toList();
    }

    private static Optional<Check> check(Value item) {
        Map<String, Value> entries = item.entries(KEYS);
        List<String> kinds = KINDS.stream().filter(entries::containsKey).toList();
        if (kinds.size() != 1) {
            item.problem(kinds.isEmpty() ? "needs what is checked: http, command, port or metric"
                    : "checks two things, " + String.join(" and ", kinds) + ": write two checks");
            return Optional.empty();
        }
        String kind = kinds.getFirst();
        onlyWith(entries, OF_HTTP, kind.equals("http"), "http");
        onlyWith(entries, OF_METRIC, kind.equals("metric"), "metric");
        int status = optional(entries, "status").flatMap(value -> value.number(100, 599)).orElse(200);
        Optional<Integer> redirects = optional(entries, "redirects").flatMap(value -> value.number(0, 10));
        Duration within = optional(entries, "within").flatMap(value -> value.duration(LONGEST))
                .orElse(Duration.ofSeconds(30));
        // A command finds everything in its environment; braces in it are the shell's.
        Optional<String> target = kind.equals("command") ? entries.get(kind).text() : placeholders(entries.get(kind));
        Optional<Metric> metric = kind.equals("metric") ? target.flatMap(address -> metric(item, entries, address))
                : Optional.empty();
        return Optional
                .of(new Check(target.filter(any -> kind.equals("http")), target.filter(any -> kind.equals("command")),
                        target.filter(any -> kind.equals("port")), metric, status,
                        optional(entries, "contains").flatMap(ChecksReader::placeholders),
                        texts(entries, "header"), texts(entries, "json"), redirects, within));
    }

    private static void onlyWith(Map<String, Value> entries, List<String> keys, boolean allowed, String kind) {
        keys.stream().filter(key -> !allowed && entries.containsKey(key))
                .forEach(key -> entries.get(key).problemWithName("belongs to a check by " + kind));
    }

    private static Optional<Metric> metric(Value item, Map<String, Value> entries, String address) {
        Optional<Double> least = optional(entries, "at-least").flatMap(ChecksReader::number);
        Optional<Double> most = optional(entries, "at-most").flatMap(ChecksReader::number);
        if (!entries.containsKey("at-least") && !entries.containsKey("at-most")) {
            item.problem("needs at-least or at-most: what the number is held against");
        }
        return Names.require(item, entries, "name", "name: which number of the endpoint, with its labels")
                .flatMap(Value::text)
                .map(name -> new Metric(address, name, least, most));
    }

    private static Optional<Double> number(Value value) {
        return value.text(NUMBER, "a number").map(Double::parseDouble);
    }

    private static Map<String, String> texts(Map<String, Value> entries, String key) {
        Map<String, String> texts = new LinkedHashMap<>();
        optional(entries, key).map(value -> value.textsByName(ANY, "a name")).orElse(Map.of()).forEach(texts::put);
        optional(entries, key).map(Value::entries).orElse(Map.of()).values().stream().filter(Value::isText)
                .forEach(ChecksReader::placeholders);
        return texts;
    }

    static Optional<String> placeholders(Value value) {
        Optional<String> text = value.text();
        Names.onlyPlaceholders(value, text.orElse("").replaceAll("\\{variables\\.[^{}]*}", ""), PLACEHOLDERS);
        return text;
    }
}
