package dev.paseo.language.file;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a pipeline file says.
 *
 * @param component the registered name of the component
 * @param versions  the pattern of its version numbers
 * @param pushes    the branch patterns of its push triggers
 * @param route     the environments its versions walk through; empty: they go nowhere by themselves
 */
public record PipelineFile(
        String component, String summary, String versions, List<String> pushes, List<Stage> stages,
        Optional<Recipe> deployment, List<Map<String, Entry>> route) {

    /**
     * A stage.
     *
     * @param keep    artifact name to the path, relative to the workspace, of the file that becomes it
     * @param secrets the only secrets that its steps see
     */
    public record Stage(String name, List<Step> steps, Map<String, String> keep, List<String> secrets) {}

    /** One command, run by {@code sh -e} in a shell of its own. */
    public record Step(String name, String command, Duration timeout) {}

    /**
     * How a version is deployed, the same in every environment.
     *
     * @param artifacts what it deploys
     * @param bring     patterns of the commit's files that are sealed with the version
     */
    public record Recipe(
            List<String> artifacts, List<String> bring, List<String> onEachHost, List<String> secrets,
            List<HttpCheck> eachHost, Failure onFailure, List<String> removal) {}

    /** A request to the host and what its answer must be, within a time. */
    public record HttpCheck(String http, int status, Optional<String> contains, Duration within) {}

    /** What a failed deployment leads to. */
    public enum Failure { UNDO, STOP }

    /** Whether the walk enters an environment by itself. */
    public enum Entry { AUTOMATIC, ON_REQUEST }
}
