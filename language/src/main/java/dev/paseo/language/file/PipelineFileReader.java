package dev.paseo.language.file;

import static dev.paseo.language.file.Names.optional;
import static dev.paseo.language.file.Names.require;

import dev.paseo.core.environment.Route;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.Document;
import dev.paseo.language.Reading;
import dev.paseo.language.Value;
import dev.paseo.language.file.PipelineFile.Ask;
import dev.paseo.language.file.PipelineFile.NewerStart;
import dev.paseo.language.file.PipelineFile.Stage;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Reads pipeline files, format version 1. */
public final class PipelineFileReader {

    /** For a run without a limit of its own. */
    public static final Duration RUN_TIMEOUT = Duration.ofHours(24);
    private static final Duration LONGEST_RUN = Duration.ofDays(7);
    private static final int MOST_ENVIRONMENTS = 50;
    private static final List<String> TOP = List.of(
            "paseo", "component", "summary", "versions", "starts", "newer-start", "asks", "timeout", "stages",
            "tree", "deployment", "route", "pieces");
    private static final Set<String> PLACEHOLDERS = Set.of("serial", "commit", "branch", "tag", "date");
    private static final Map<String, NewerStart> NEWER = Map.of("waits", NewerStart.WAITS, "takes-over",
            NewerStart.TAKES_OVER, "runs-beside", NewerStart.RUNS_BESIDE);
    private static final Map<String, Route.Mode> ENTRIES = Map.of("automatic", Route.Mode.AUTOMATIC, "on-request",
            Route.Mode.ON_REQUEST);

    private PipelineFileReader() {}

    /** Reads a file that uses no pieces; finds everything that can be seen in the file alone. */
    public static Reading<PipelineFile> read(String text) {
        return read(new Document(text));
    }

    /** Reads a file in which every piece stands where it is used. */
    public static Reading<PipelineFile> read(Document document) {
        return document.reading(document.root().flatMap(PipelineFileReader::file));
    }

    private static Optional<PipelineFile> file(Value root) {
        Map<String, Value> top = root.entries(TOP);
        require(root, top, "paseo", "paseo: 1 (the format version)").ifPresent(value -> value.number(1, 1));
        Optional<String> component = require(root, top, "component", "component: its registered name")
                .flatMap(value -> value.text(Names.NAME, Names.NAME_WORDS));
        String summary = optional(top, "summary").flatMap(Value::text).orElse("");
        String versions = optional(top, "versions").flatMap(PipelineFileReader::versions).orElse("0.1.{serial}");
        List<Trigger> starts = optional(top, "starts").map(StartsReader::read).orElse(List.of());
        NewerStart newer = optional(top, "newer-start").flatMap(value -> value.choice(NEWER)).orElse(NewerStart.WAITS);
        Map<String, Ask> asks = optional(top, "asks").map(AsksReader::read).orElse(Map.of());
        Duration timeout = optional(top, "timeout").flatMap(value -> value.duration(LONGEST_RUN)).orElse(RUN_TIMEOUT);
        List<Stage> stages = optional(top, "stages").map(value -> new StagesReader(asks.keySet()).read(value))
                .orElse(List.of());
        boolean arrives = starts.contains(new Trigger.Arrival());
        Optional<String> tree = optional(top, "tree").flatMap(value -> tree(value, !stages.isEmpty(), arrives));
        Optional<Recipe> recipe = optional(top, "deployment")
                .map(value -> new RecipeReader(stages, arrives).read(value));
        List<Map<String, Route.Mode>> route = optional(top, "route").map(PipelineFileReader::route).orElse(List.of());
        if (!route.isEmpty() && recipe.isEmpty() && top.containsKey("route")) {
            top.get("route")
                    .problem("leads through environments, but the file has no deployment to bring a version there");
        }
        return component.map(
                name -> new PipelineFile(name, summary, versions, starts, newer, asks, timeout, stages, tree, recipe,
                        route));
    }

    private static Optional<String> tree(Value value, boolean built, boolean arrives) {
        if (built) {
            value.problem("names what is an artifact without stages; here the stages say it with keep");
        } else if (arrives) {
            value.problem("names what is an artifact of a push, but versions of this file arrive from elsewhere");
        }
        Optional<String> folder = Names.inside(value).map(path -> path.replaceFirst("/$", ""));
        folder.filter(
                path -> List.of(path.split("/", -1)).stream().anyMatch(part -> part.isEmpty() || part.equals(".")))
                .ifPresent(
                        path -> value.problem("should be a folder of the commit, such as site; leave it out for all"));
        return folder;
    }

    private static Optional<String> versions(Value value) {
        Optional<String> text = value.text();
        String pattern = text.orElse("{serial}");
        Names.onlyPlaceholders(value, pattern, PLACEHOLDERS);
        if (!Names.withoutPlaceholders(pattern, "1").matches("[0-9A-Za-z][0-9A-Za-z.+_-]{0,79}")) {
            value.problem("should give numbers of letters, digits and . + _ -, at most 80 characters");
        }
        if (!pattern.contains("{serial}") && !pattern.contains("{commit}") && !pattern.contains("{tag}")) {
            value.problem("gives the same number twice: use {serial}, {commit} or {tag} in it");
        }
        return text;
    }

    private static List<Map<String, Route.Mode>> route(Value value) {
        List<Map<String, Route.Mode>> steps = new ArrayList<>();
        Set<String> seen = new TreeSet<>();
        for (Value item : value.items()) {
            Map<String, Route.Mode> step = new LinkedHashMap<>();
            item.entries().forEach((environment, mode) -> {
                if (!Names.NAME.matcher(environment).matches()) {
                    mode.problemWithName("an environment's name has " + Names.NAME_WORDS);
                }
                if (!seen.add(environment)) {
                    mode.problemWithName("is on the route twice");
                }
                mode.choice(ENTRIES).ifPresent(entry -> step.put(environment, entry));
            });
            steps.add(step);
        }
        if (seen.size() > MOST_ENVIRONMENTS) {
            value.problem(
                    "leads through " + seen.size() + " environments; at most " + MOST_ENVIRONMENTS + " are allowed");
        }
        return steps;
    }
}
