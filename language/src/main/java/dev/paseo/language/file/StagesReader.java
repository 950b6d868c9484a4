package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.core.run.OnFailures;
import dev.paseo.language.Value;
import dev.paseo.language.condition.Condition;
import dev.paseo.language.file.PipelineFile.Order;
import dev.paseo.language.file.PipelineFile.Report;
import dev.paseo.language.file.PipelineFile.Stage;
import dev.paseo.language.file.PipelineFile.Step;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads the stages of a pipeline file. */
final class StagesReader {

    /** Used for a step without a timeout of its own. */
    static final Duration STEP_TIMEOUT = Duration.ofHours(1);
    /** Used for a stage without a timeout of its own. */
    static final Duration STAGE_TIMEOUT = Duration.ofHours(12);
    static final Duration LONGEST = Duration.ofHours(12);
    private static final int MOST_STAGES = 2000;
    private static final int MOST_STEPS = 100;
    private static final int MOST_VARIANTS = 100;
    private static final int MOST_RETRIES = 10;
    private static final List<String> KEYS = List.of("after", "after-any", "if-failed", "wants", "take", "reuse",
            "each", "steps", "files", "keep",
            "reports", "warn-if", "wanted-if", "may-fail", "secrets", "timeout");
    private static final Map<String, OnFailures> ON_FAILURES = Map.of("fail", OnFailures.FAIL, "warn", OnFailures.WARN,
            "pass", OnFailures.PASS);

    private final Set<String> asks;
    private final Map<String, String> keptBy = new LinkedHashMap<>();

    /** @param asks what conditions may refer to */
    StagesReader(Set<String> asks) {
        this.asks = asks;
    }

    List<Stage> read(Value value) {
        Map<String, Value> entries = value.entries();
        if (entries.size() > MOST_STAGES) {
            value.problem("has " + entries.size() + " stages; at most " + MOST_STAGES + " are allowed");
            return List.of();
        }
        Map<String, Map<String, Value>> bodies = new LinkedHashMap<>();
        entries.forEach((name, body) -> {
            if (!Names.NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + Names.NAME_WORDS);
            } else if (name.equals("like")) {
                body.problemWithName("stands for a piece, and is no name of a stage");
            }
            bodies.put(name, body.entries(KEYS));
        });
        Map<String, Order> orders = new OrderReader(entries, bodies).read();
        return bodies.entrySet().stream()
                .map(entry -> stage(entry.getKey(), entries.get(entry.getKey()), entry.getValue(), orders)).toList();
    }

    private Stage stage(String name, Value body, Map<String, Value> entries, Map<String, Order> orders) {
        Map<String, List<String>> each = optional(entries, "each").map(StagesReader::each).orElse(Map.of());
        List<Step> steps = require(body, entries, "steps", "steps: a list of commands").map(StagesReader::steps)
                .orElse(List.of());
        return new Stage(name, orders.get(name),
                optional(entries, "wants").map(value -> Names.names(value, "a tag")).orElse(List.of()),
                optional(entries, "take").map(TakeReader::read).orElse(List.of()),
                optional(entries, "reuse").flatMap(StagesReader::reuse), steps,
                optional(entries, "files").map(Names::patterns).orElse(List.of()),
                optional(entries, "keep").map(value -> keep(value, name, each)).orElse(Map.of()), each,
                optional(entries, "reports").map(StagesReader::reports).orElse(Map.of()), conditions(entries, each),
                optional(entries, "secrets").map(Names::secretNames).orElse(List.of()),
                optional(entries, "timeout").flatMap(value -> value.duration(LONGEST)).orElse(STAGE_TIMEOUT));
    }

    private PipelineFile.Conditions conditions(Map<String, Value> entries, Map<String, List<String>> each) {
        return new PipelineFile.Conditions(
                optional(entries, "wanted-if")
                        .flatMap(value -> Names.condition(value, Condition.overRuns(asks, each.keySet()))),
                optional(entries, "warn-if").flatMap(value -> Names.condition(value, Condition.overReports())),
                optional(entries, "may-fail").flatMap(Value::flag).orElse(false), onFailures(entries, OnFailures.WARN));
    }

    private static Map<String, List<String>> each(Value value) {
        Map<String, List<String>> each = new LinkedHashMap<>();
        int[] variants = {1};
        value.entries().forEach((name, values) -> {
            if (!Names.NAME.matcher(name).matches()) {
                values.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            List<String> texts = values.texts();
            if (texts.isEmpty() && values.isList()) {
                values.problem("is empty; it has at least one value");
            }
            if (texts.stream().distinct().count() < texts.size()) {
                values.problem("has a value twice");
            }
            texts.stream().filter(text -> text.length() > 60 || text.indexOf(',') >= 0).findFirst()
                    .ifPresent(text -> values
                            .problem("has a value that is longer than 60 characters or has a comma in it"));
            variants[0] = Math.min(MOST_VARIANTS + 1, variants[0] * Math.max(1, texts.size()));
            each.put(name, texts);
        });
        if (variants[0] > MOST_VARIANTS) {
            value.problem("makes more than " + MOST_VARIANTS + " variants, which is the most that is allowed");
            return Map.of();
        }
        return each;
    }

    private Map<String, String> keep(Value value, String stage, Map<String, List<String>> each) {
        Map<String, String> keep = new LinkedHashMap<>();
        value.entries().forEach((artifact, path) -> {
            if (!Names.NAME.matcher(Names.withoutPlaceholders(artifact, "1")).matches()) {
                path.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            String other = keptBy.putIfAbsent(artifact, stage);
            if (other != null) {
                path.problem("is kept by stage " + other + " as well; an artifact has one origin");
            }
            Names.onlyPlaceholders(path, artifact, each.keySet());
            List<String> used = Names.placeholders(artifact);
            each.keySet().stream().filter(name -> each.get(name).size() > 1 && !used.contains(name)).findFirst()
                    .ifPresent(name -> path
                            .problemWithName("is kept by several variants under one name; put {" + name + "} in it"));
            Names.inside(path).ifPresent(text -> {
                Names.onlyPlaceholders(path, text, each.keySet());
                keep.put(artifact, text);
            });
        });
        return keep;
    }

    static Map<Report, List<String>> reports(Value value) {
        Map<Report, List<String>> reports = new LinkedHashMap<>();
        Map<String, Report> kinds = Report.byWord();
        value.entries(kinds.keySet().stream().sorted().toList())
                .forEach((name, paths) -> Optional.ofNullable(kinds.get(name)).ifPresent(kind -> reports.put(kind,
                        kind == Report.TESTS && paths.isMap() ? testFiles(paths) : Names.patterns(paths))));
        return reports;
    }

    private static List<String> testFiles(Value report) {
        Map<String, Value> entries = report.entries(List.of("files", "on-failures"));
        return require(report, entries, "files", "files: where the reports lie").map(Names::patterns).orElse(List.of());
    }

    /** What is said of failures in the test report of a stage, or of a test of what is live; else what holds there. */
    static OnFailures onFailures(Map<String, Value> entries, OnFailures standard) {
        return optional(entries, "reports").filter(Value::isMap).flatMap(value -> optional(value.entries(), "tests"))
                .filter(Value::isMap)
                .flatMap(report -> optional(report.entries(), "on-failures"))
                .flatMap(value -> value.choice(ON_FAILURES)).orElse(standard);
    }

    private static Optional<PipelineFile.Reuse> reuse(Value value) {
        Map<String, Value> entries = value.entries(List.of("key", "folders"));
        List<String> key = optional(entries, "key").map(Names::patterns).orElse(List.of());
        List<String> folders = require(value, entries, "folders", "folders: what is kept from run to run")
                .map(Names::patterns).orElse(List.of());
        return folders.isEmpty() ? Optional.empty() : Optional.of(new PipelineFile.Reuse(key, folders));
    }

    private static List<Step> steps(Value value) {
        List<Value> items = value.items();
        if (items.size() > MOST_STEPS) {
            value.problem("has " + items.size() + " steps; at most " + MOST_STEPS + " are allowed");
        }
        if (items.isEmpty() && value.isList()) {
            value.problem("is empty; a stage has at least one step");
        }
        return items.stream().limit(MOST_STEPS).flatMap(item -> step(item).stream()).toList();
    }

    private static Optional<Step> step(Value item) {
        if (!item.isMap()) {
            return item.text()
                    .map(command -> new Step(command.lines().findFirst().orElse(command), command, STEP_TIMEOUT, 0));
        }
        Map<String, Value> entries = item.entries(List.of("name", "command", "timeout", "retries"));
        Optional<String> command = require(item, entries, "command", "command: what the step runs")
                .flatMap(Value::text);
        Duration timeout = optional(entries, "timeout").flatMap(given -> given.duration(LONGEST)).orElse(STEP_TIMEOUT);
        int retries = optional(entries, "retries").flatMap(given -> given.number(0, MOST_RETRIES)).orElse(0);
        Optional<String> name = optional(entries, "name").flatMap(Value::text);
        return command.map(
                text -> new Step(name.orElseGet(() -> text.lines().findFirst().orElse(text)), text, timeout, retries));
    }
}
