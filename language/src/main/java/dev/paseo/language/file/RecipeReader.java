package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;

import dev.paseo.language.NearestName;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Failure;
import dev.paseo.language.file.PipelineFile.HttpCheck;
import dev.paseo.language.file.PipelineFile.Recipe;
import dev.paseo.language.file.PipelineFile.Stage;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Reads the {@code deployment} part of a pipeline file. */
final class RecipeReader {

    private static final List<String> KEYS = List.of(
            "artifacts", "bring", "strategy", "on-each-host", "secrets", "checks", "on-failure", "removal");
    /** The placeholders of checks. */
    static final Set<String> PLACEHOLDERS =
            new TreeSet<>(Set.of("version", "commit", "component", "environment", "url", "host", "host.url", "host.folder"));
    private static final Duration LONGEST_CHECK = Duration.ofMinutes(30);

    private final Set<String> kept;
    private final boolean fromElsewhere;

    /** @param arrives whether the file says that versions arrive from elsewhere; without stages they can do nothing else */
    RecipeReader(List<Stage> stages, boolean arrives) {
        this.fromElsewhere = arrives || stages.isEmpty();
        this.kept = stages.stream().flatMap(RecipeReader::kept).collect(Collectors.toCollection(TreeSet::new));
    }

    private static Stream<String> kept(Stage stage) {
        return stage.variants().stream().flatMap(variant -> stage.keep().keySet().stream().map(name -> Variants.fill(name, variant, true)));
    }

    Recipe read(Value value) {
        Map<String, Value> entries = value.entries(KEYS);
        List<String> artifacts = optional(entries, "artifacts").map(this::artifacts).orElse(List.copyOf(kept));
        List<String> bring = optional(entries, "bring").map(Names::patterns).orElse(List.of());
        optional(entries, "strategy").ifPresent(strategy -> strategy.choice(Map.of("together", true)));
        List<String> install = optional(entries, "on-each-host").map(Value::texts).orElse(List.of());
        if (install.isEmpty()) {
            value.problem("is missing on-each-host: what brings a version to a host");
        }
        return new Recipe(artifacts, bring, install,
                optional(entries, "secrets").map(Names::secretNames).orElse(List.of()),
                optional(entries, "checks").map(this::checks).orElse(List.of()),
                optional(entries, "on-failure").flatMap(failure ->
                        failure.choice(Map.of("undo", Failure.UNDO, "stop", Failure.STOP))).orElse(Failure.UNDO),
                optional(entries, "removal").map(Value::texts).orElse(List.of()));
    }

    /** What arrives from elsewhere has names that only the arrival tells. */
    private List<String> artifacts(Value value) {
        List<Value> items = value.items();
        for (Value item : items) {
            item.text().filter(name -> !fromElsewhere && !kept.contains(name)).ifPresent(name ->
                    item.problem("no stage keeps an artifact named " + name + NearestName.hint(name, kept)));
        }
        return items.stream().flatMap(item -> item.text(Names.NAME, "an artifact's name: " + Names.NAME_WORDS).stream()).toList();
    }

    private List<HttpCheck> checks(Value value) {
        Map<String, Value> entries = value.entries(List.of("each-host"));
        return optional(entries, "each-host").map(Value::items).orElse(List.of()).stream()
                .flatMap(item -> check(item).stream()).toList();
    }

    private Optional<HttpCheck> check(Value item) {
        Map<String, Value> entries = item.entries(List.of("http", "status", "contains", "within"));
        if (!entries.containsKey("http")) {
            item.problem("is missing http: the address that is asked");
        }
        Optional<String> address = optional(entries, "http").flatMap(value -> placeholders(value));
        Optional<String> contains = optional(entries, "contains").flatMap(value -> placeholders(value));
        int status = optional(entries, "status").flatMap(value -> value.number(100, 599)).orElse(200);
        Duration within = optional(entries, "within").flatMap(value -> value.duration(LONGEST_CHECK)).orElse(Duration.ofSeconds(30));
        return address.map(http -> new HttpCheck(http, status, contains, within));
    }

    private static Optional<String> placeholders(Value value) {
        Optional<String> text = value.text();
        Names.onlyPlaceholders(value, text.orElse("").replaceAll("\\{variables\\.[^{}]*}", ""), PLACEHOLDERS);
        return text;
    }
}
