package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.language.NearestName;
import dev.paseo.core.run.OnFailures;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Stage;
import dev.paseo.language.file.Recipe.Failure;
import dev.paseo.language.file.Recipe.Strategy;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Reads the {@code deployment} part of a pipeline file. */
final class RecipeReader {

    private static final List<String> KEYS = List.of("artifacts", "bring", "installed", "requires", "strategy",
            "once-before", "on-each-host", "once-after",
            "traffic", "secrets", "checks", "tests", "on-failure", "no-way-back-before", "removal");
    private static final Set<String> OF_INSTALLED = new TreeSet<>(
            Set.of("host", "host.folder", "component", "environment", "side"));
    private static final Duration LONGEST_WATCH = Duration.ofHours(24);
    /** One or more bounds of versions, such as {@code >=2.8} or {@code >=2.8 <3}. */
    private static final Pattern RANGE = Pattern
            .compile("(>=|<=|>|<|=)?[0-9][0-9A-Za-z.+-]*( +(>=|<=|>|<|=)[0-9][0-9A-Za-z.+-]*)*");

    private final Set<String> kept;
    private final boolean fromElsewhere;

    /**
     * @param arrives whether the file says that versions arrive from elsewhere; without stages they can do nothing else
     */
    RecipeReader(List<Stage> stages, boolean arrives) {
        this.fromElsewhere = arrives || stages.isEmpty();
        this.kept = stages.stream().flatMap(RecipeReader::kept).collect(Collectors.toCollection(TreeSet::new));
    }

    private static Stream<String> kept(Stage stage) {
        return stage.variants().stream()
                .flatMap(variant -> stage.keep().keySet().stream().map(name -> Variants.fill(name, variant, true)));
    }

    Recipe read(Value value) {
        Map<String, Value> entries = value.entries(KEYS);
        List<String> artifacts = optional(entries, "artifacts").map(this::artifacts).orElse(List.copyOf(kept));
        Strategy strategy = optional(entries, "strategy").map(StrategyReader::read).orElse(Strategy.TOGETHER);
        Recipe.Parts parts = new Recipe.Parts(commands(entries, "once-before"), commands(entries, "on-each-host"),
                commands(entries, "once-after"),
                commands(entries, "traffic"), commands(entries, "removal"));
        if (parts.onEachHost().isEmpty()) {
            value.problem("needs on-each-host: what brings a version to a host");
        }
        boolean sided = strategy.kind() == Strategy.Kind.BLUE_GREEN || strategy.kind() == Strategy.Kind.CANARY;
        if (sided && parts.traffic().isEmpty()) {
            value.problem("needs traffic: what moves the traffic from one side to the other");
        }
        if (strategy.oldSideStays().isPositive() && parts.removal().isEmpty()) {
            value.problem("needs removal: what takes the version off the old side when its time is over");
        }
        Map<String, Value> checks = optional(entries, "checks")
                .map(each -> each.entries(List.of("each-host", "whole", "keep-checking"))).orElse(Map.of());
        return new Recipe(artifacts, optional(entries, "bring").map(Names::patterns).orElse(List.of()),
                installed(entries, artifacts),
                optional(entries, "requires").map(RecipeReader::requires).orElse(Map.of()), strategy, parts,
                optional(entries, "secrets").map(Names::secretNames).orElse(List.of()),
                optional(checks, "each-host").map(ChecksReader::read).orElse(List.of()),
                optional(checks, "whole").map(ChecksReader::read).orElse(List.of()),
                new Recipe.Afterwards(optional(checks, "keep-checking").flatMap(each -> each.duration(LONGEST_WATCH)),
                        tests(entries)),
                optional(entries, "on-failure")
                        .flatMap(failure -> failure.choice(Map.of("undo", Failure.UNDO, "stop", Failure.STOP)))
                        .orElse(Failure.UNDO),
                optional(entries, "no-way-back-before").flatMap(Value::text));
    }

    private static List<Recipe.Command> commands(Map<String, Value> entries, String key) {
        return optional(entries, key).map(Value::items).orElse(List.of()).stream()
                .flatMap(item -> command(item).stream()).toList();
    }

    private static Optional<Recipe.Command> command(Value item) {
        if (!item.isMap()) {
            return item.text().map(Recipe.Command::valueOf);
        }
        Map<String, Value> entries = item.entries(List.of("name", "command", "timeout"));
        Optional<Recipe.Command> plain = require(item, entries, "command", "command: what is run").flatMap(Value::text)
                .map(Recipe.Command::valueOf);
        Optional<String> name = optional(entries, "name").flatMap(Value::text);
        Duration timeout = optional(entries, "timeout").flatMap(given -> given.duration(StagesReader.LONGEST))
                .orElse(Recipe.Command.TIMEOUT);
        return plain.map(each -> new Recipe.Command(name.orElse(each.name()), each.command(), timeout));
    }

    /** What arrives from elsewhere has names that only the arrival tells. */
    private List<String> artifacts(Value value) {
        List<Value> items = value.items();
        for (Value item : items) {
            item.text().filter(name -> !fromElsewhere && !kept.contains(name)).ifPresent(
                    name -> item.problem("no stage keeps an artifact named " + name + NearestName.hint(name, kept)));
        }
        return items.stream().flatMap(item -> item.text(Names.NAME, "an artifact's name: " + Names.NAME_WORDS).stream())
                .toList();
    }

    private Map<String, String> installed(Map<String, Value> entries, List<String> artifacts) {
        Map<String, String> installed = new LinkedHashMap<>();
        optional(entries, "installed").map(Value::entries).orElse(Map.of()).forEach((name, path) -> {
            if (!artifacts.contains(name) && !(fromElsewhere && artifacts.isEmpty())) {
                path.problemWithName("is no artifact of the recipe" + NearestName.hint(name, artifacts));
            }
            path.text().ifPresent(text -> {
                Names.onlyPlaceholders(path, text.replaceAll("\\{variables\\.[^{}]*}", ""), OF_INSTALLED);
                if (List.of(text.split("/")).contains("..")) {
                    path.problem("should be a path on the host without ..");
                }
                installed.put(name, text);
            });
        });
        return installed;
    }

    private static Map<String, String> requires(Value value) {
        Map<String, String> requires = new LinkedHashMap<>();
        value.entries().forEach((component, range) -> {
            if (!Names.NAME.matcher(component).matches()) {
                range.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            range.text(RANGE, "versions such as \">=2.8\" or \">=2.8 <3\"")
                    .ifPresent(text -> requires.put(component, text));
        });
        return requires;
    }

    private static Map<String, Recipe.Test> tests(Map<String, Value> entries) {
        Map<String, Recipe.Test> tests = new LinkedHashMap<>();
        optional(entries, "tests").map(Value::entries).orElse(Map.of()).forEach((name, body) -> {
            if (!Names.NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + Names.NAME_WORDS);
            }
            Map<String, Value> inner = body.entries(List.of("steps", "reports"));
            List<Recipe.Command> steps = commands(inner, "steps");
            if (steps.isEmpty()) {
                body.problem("needs steps: what the test runs");
            }
            tests.put(name,
                    new Recipe.Test(steps, optional(inner, "reports").map(StagesReader::reports).orElse(Map.of()),
                            StagesReader.onFailures(inner, OnFailures.FAIL)));
        });
        return tests;
    }
}
