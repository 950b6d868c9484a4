package dev.paseo.language.file;

import dev.paseo.core.environment.Route;
import dev.paseo.core.run.OnFailures;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Trigger;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a pipeline file says.
 *
 * @param component  the registered name of the component
 * @param versions   the pattern of its version numbers
 * @param starts     what may start a run, besides a person
 * @param newerStart what a newer start does to the runs of its line before it
 * @param asks       what a person who starts a run is asked; other starts take the default
 * @param timeout    how long a run may take in all
 * @param tree       the folder of the commit that is the version's artifact, where no stage makes one; empty: all of it
 * @param route      the environments its versions walk through; empty: they go nowhere by themselves
 */
public record PipelineFile(
        String component, String summary, String versions, List<Trigger> starts, NewerStart newerStart,
        Map<String, Ask> asks, Duration timeout,
        List<Stage> stages, Optional<String> tree, Optional<Recipe> deployment, List<Map<String, Route.Mode>> route) {

    /** The artifact of a version of which nothing is built. */
    public static final String TREE = "tree";

    /** The branch patterns of its push triggers. */
    public List<String> pushes() {
        return starts.stream().flatMap(start -> start instanceof Trigger.Push(var branches, var paths)
                ? branches.stream() : Stream.of()).map(BranchPattern::toString).toList();
    }

    /** Whether nothing is built of a commit: its files, as they are, are what a version has. */
    public boolean isOfTree() {
        return stages.isEmpty() && !starts.contains(new Trigger.Arrival());
    }

    public Optional<Stage> stage(String name) {
        return stages.stream().filter(stage -> stage.name().equals(name)).findFirst();
    }

    /** What a newer start does to the runs of its line before it. */
    public enum NewerStart {
        WAITS, TAKES_OVER, RUNS_BESIDE
    }

    /**
     * A parameter asked of a person.
     *
     * @param of the answers that may be given, where it is one of several
     */
    public record Ask(String question, Kind kind, String standard, List<String> of) {

        /** What may be answered. */
        public enum Kind { FLAG, TEXT, NUMBER, ONE_OF }

        /** Why this is no answer; empty where it is one. */
        public Optional<String> reasonAgainst(String answer) {
            boolean right = switch (kind) {
                case FLAG -> answer.equals("true") || answer.equals("false");
                case NUMBER -> answer.matches("-?[0-9]{1,15}(\\.[0-9]{1,9})?");
                case ONE_OF -> of.contains(answer);
                case TEXT -> answer.length() <= 2000;
            };
            return right ? Optional.empty() : Optional.of("should be " + switch (kind) {
                case FLAG -> "true or false";
                case NUMBER -> "a number";
                case ONE_OF -> "one of " + String.join(", ", of);
                case TEXT -> "text of at most 2000 characters";
            } + "; got “" + (answer.length() > 40 ? answer.substring(0, 40) + "…" : answer) + "”");
        }
    }

    /**
     * A stage.
     *
     * @param wants   what its agent must offer
     * @param files   patterns of what the stages after it find in their workspaces
     * @param keep    artifact name to the path, relative to the workspace, of the file that becomes it
     * @param secrets the only secrets that its steps see
     * @param each    one variant for each combination of these values
     */
    public record Stage(String name, Order order, List<String> wants, List<Take> take, Optional<Reuse> reuse,
            List<Step> steps, List<String> files,
            Map<String, String> keep, Map<String, List<String>> each, Map<Report, List<String>> reports,
            Conditions conditions, List<String> secrets,
            Duration timeout) {

        /** Its variants, as one value for each name; one without values where it has none. */
        public List<Map<String, String>> variants() {
            return Variants.of(each);
        }
    }

    /** What a stage comes after; resolved: a stage that says nothing comes after the one above it. */
    public record Order(List<String> after, List<String> afterAny, List<String> ifFailed) {}

    /**
     * When a stage is wanted and when it is worth a look.
     *
     * @param wantedIf CEL over the facts of the run
     * @param warnIf   CEL over its reports
     * @param onFailures where its steps end well and its report tells of failed tests
     */
    public record Conditions(Optional<String> wantedIf, Optional<String> warnIf, boolean mayFail,
            OnFailures onFailures) {}

    /**
     * Artifacts of another component's version.
     *
     * @param artifact name or pattern; empty: all of them
     * @param into     a folder of the workspace
     */
    public record Take(String from, Optional<String> artifact, Which version, String into) {

        /** Which version is taken. */
        public sealed interface Which {

            /** As a file says it. */
            default String words() {
                return switch (this) {
                    case Upstream() -> "upstream";
                    case Newest() -> "newest";
                    case LiveIn(String environment) -> "live in " + environment;
                    case Matching(String pattern) -> pattern;
                };
            }

            record Upstream() implements Which {}

            record Newest() implements Which {}

            record LiveIn(String environment) implements Which {}

            record Matching(String pattern) implements Which {}
        }
    }

    /** Folders kept from run to run, as long as the files of these patterns stay as they are. */
    public record Reuse(List<String> key, List<String> folders) {}

    /** What a report file is. */
    public enum Report {
        TESTS, COVERAGE, FINDINGS, PARTS;

        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }

        static Map<String, Report> byWord() {
            return Stream.of(values()).collect(Collectors.toMap(Report::word, report -> report));
        }
    }

    /**
     * One command, run by {@code sh -e} in a shell of its own.
     *
     * @param retries how many more tries it gets when it fails
     */
    public record Step(String name, String command, Duration timeout, int retries) {}
}
