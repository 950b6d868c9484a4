package dev.paseo.language.file;

import dev.paseo.language.Document;
import dev.paseo.language.Reading;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Entry;
import dev.paseo.language.file.PipelineFile.Recipe;
import dev.paseo.language.file.PipelineFile.Stage;
import dev.paseo.language.file.PipelineFile.Step;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Reads pipeline files, format version 1. */
public final class PipelineFileReader {

    /** Names of components, stages, artifacts, environments and hosts. */
    public static final Pattern NAME = Pattern.compile("[a-z0-9][a-z0-9-]{0,62}");
    public static final String NAME_WORDS = "small letters, digits and dashes, at most 63, beginning with a letter or digit";
    /** Names of variables and secrets. */
    public static final Pattern VARIABLE = Pattern.compile("(?!PASEO_)[A-Z][A-Z0-9_]{0,62}");
    public static final String VARIABLE_WORDS = "capital letters, digits and _ (and not begin with PASEO_)";

    /** Used for a step without a timeout of its own. */
    public static final Duration STEP_TIMEOUT = Duration.ofHours(1);
    private static final Duration LONGEST_STEP = Duration.ofHours(12);
    private static final int MOST_STAGES = 500;
    private static final int MOST_STEPS = 100;
    private static final List<String> TOP =
            List.of("paseo", "component", "summary", "versions", "starts", "stages", "deployment", "route");
    private static final Set<String> PLACEHOLDERS = Set.of("serial", "commit", "branch", "tag", "date");
    private static final Pattern PLACEHOLDER = Pattern.compile("\\{([^{}]*)}");

    private final Document document;

    private PipelineFileReader(String text) {
        this.document = new Document(text);
    }

    /** Reads a file; finds everything that can be seen in the file alone. */
    public static Reading<PipelineFile> read(String text) {
        PipelineFileReader reader = new PipelineFileReader(text);
        return reader.document.reading(reader.document.root().flatMap(reader::file));
    }

    private Optional<PipelineFile> file(Value root) {
        Map<String, Value> top = root.entries(TOP);
        require(root, top, "paseo", "paseo: 1, the format version").ifPresent(value -> value.number(1, 1));
        Optional<String> component = require(root, top, "component", "component: and its registered name")
                .flatMap(value -> value.text(NAME, NAME_WORDS));
        String summary = optional(top, "summary").flatMap(Value::text).orElse("");
        String versions = optional(top, "versions").flatMap(this::versions).orElse("0.1.{serial}");
        List<String> pushes = optional(top, "starts").map(this::pushes).orElse(List.of());
        List<Stage> stages = optional(top, "stages").map(this::stages).orElse(List.of());
        Optional<Recipe> recipe = optional(top, "deployment").map(value -> new RecipeReader(stages).read(value));
        List<Map<String, Entry>> route = optional(top, "route").map(this::route).orElse(List.of());
        if (!route.isEmpty() && recipe.isEmpty() && top.containsKey("route")) {
            top.get("route").problem("leads through environments, but the file has no deployment to bring a version there");
        }
        return component.map(name -> new PipelineFile(name, summary, versions, pushes, stages, recipe, route));
    }

    static Optional<Value> optional(Map<String, Value> entries, String key) {
        return Optional.ofNullable(entries.get(key));
    }

    private static Optional<Value> require(Value owner, Map<String, Value> entries, String key, String words) {
        if (!entries.containsKey(key)) {
            owner.problem("is missing " + words);
        }
        return optional(entries, key);
    }

    private Optional<String> versions(Value value) {
        Optional<String> text = value.text();
        Matcher matcher = PLACEHOLDER.matcher(text.orElse(""));
        boolean serial = false;
        while (matcher.find()) {
            serial |= matcher.group(1).equals("serial");
            if (!PLACEHOLDERS.contains(matcher.group(1))) {
                value.problem("has the unknown placeholder {" + matcher.group(1) + "}"
                        + dev.paseo.language.NearestName.hint(matcher.group(1), new TreeSet<>(PLACEHOLDERS)));
            }
        }
        String plain = text.map(pattern -> PLACEHOLDER.matcher(pattern).replaceAll("1")).orElse("1");
        if (!plain.matches("[0-9A-Za-z][0-9A-Za-z.+_-]{0,79}")) {
            value.problem("should give numbers of letters, digits and . + _ -, at most 80 signs");
        }
        if (!serial && !text.orElse("").contains("{commit}")) {
            value.problem("gives the same number twice: use {serial} or {commit} in it");
        }
        return text;
    }

    private List<String> pushes(Value value) {
        List<String> branches = new ArrayList<>();
        for (Value start : value.items()) {
            Map<String, Value> entries = start.entries(List.of("push"));
            optional(entries, "push").ifPresent(push -> branches.addAll(push.texts()));
        }
        return branches;
    }

    private List<Stage> stages(Value value) {
        List<Stage> stages = new ArrayList<>();
        Map<String, String> keptBy = new LinkedHashMap<>();
        Map<String, Value> entries = value.entries();
        if (entries.size() > MOST_STAGES) {
            value.problem("has " + entries.size() + " stages; at most " + MOST_STAGES + " are allowed");
            return stages;
        }
        entries.forEach((name, body) -> {
            if (!NAME.matcher(name).matches()) {
                body.problemWithName("its name should be " + NAME_WORDS);
            }
            stages.add(stage(name, body, keptBy));
        });
        return stages;
    }

    private Stage stage(String name, Value body, Map<String, String> keptBy) {
        Map<String, Value> entries = body.entries(List.of("steps", "keep", "secrets"));
        List<Step> steps = require(body, entries, "steps", "steps: a list of commands").map(this::steps).orElse(List.of());
        Map<String, String> keep = optional(entries, "keep").map(value -> {
            Map<String, Value> kept = value.entries();
            kept.forEach((artifact, path) -> keepOnce(artifact, path, name, keptBy));
            return value.textsByName(NAME, NAME_WORDS);
        }).orElse(Map.of());
        return new Stage(name, steps, keep, optional(entries, "secrets").map(PipelineFileReader::secretNames).orElse(List.of()));
    }

    private static void keepOnce(String artifact, Value path, String stage, Map<String, String> keptBy) {
        String other = keptBy.putIfAbsent(artifact, stage);
        if (other != null) {
            path.problem("is kept by stage " + other + " as well; an artifact has one origin");
        }
        if (path.isText()) {
            insideOnly(path, path.text().orElse(""));
        }
    }

    /** A path or pattern that stays within its folder. */
    static void insideOnly(Value value, String path) {
        if (path.startsWith("/") || List.of(path.split("/")).contains("..") || path.contains("\\")) {
            value.problem("should be a path below the workspace, without .. and not beginning with /");
        }
    }

    static List<String> secretNames(Value value) {
        return value.items().stream().flatMap(item -> item.text(VARIABLE, VARIABLE_WORDS).stream()).toList();
    }

    private List<Step> steps(Value value) {
        List<Value> items = value.items();
        if (items.size() > MOST_STEPS) {
            value.problem("has " + items.size() + " steps; at most " + MOST_STEPS + " are allowed");
        }
        if (items.isEmpty() && value.isList()) {
            value.problem("is empty; a stage has at least one step");
        }
        return items.stream().limit(MOST_STEPS).flatMap(item -> step(item).stream()).toList();
    }

    private Optional<Step> step(Value item) {
        if (!item.isMap()) {
            return item.text().map(command -> new Step(command.lines().findFirst().orElse(command), command, STEP_TIMEOUT));
        }
        Map<String, Value> entries = item.entries(List.of("name", "command", "timeout"));
        Optional<String> command = require(item, entries, "command", "command: what the step runs").flatMap(Value::text);
        Duration timeout = optional(entries, "timeout").flatMap(given -> given.duration(LONGEST_STEP)).orElse(STEP_TIMEOUT);
        Optional<String> name = optional(entries, "name").flatMap(Value::text);
        return command.map(text -> new Step(name.orElseGet(() -> text.lines().findFirst().orElse(text)), text, timeout));
    }

    private List<Map<String, Entry>> route(Value value) {
        List<Map<String, Entry>> steps = new ArrayList<>();
        Set<String> seen = new TreeSet<>();
        Map<String, Entry> choices = new LinkedHashMap<>();
        choices.put("automatic", Entry.AUTOMATIC);
        choices.put("on-request", Entry.ON_REQUEST);
        for (Value item : value.items()) {
            Map<String, Entry> step = new LinkedHashMap<>();
            item.entries().forEach((environment, mode) -> {
                if (!seen.add(environment)) {
                    mode.problemWithName("is on the route twice");
                }
                mode.choice(choices).ifPresent(entry -> step.put(environment, entry));
            });
            steps.add(step);
        }
        return steps;
    }
}
