package dev.paseo.core.trigger;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** What may start a run: an entry of {@code starts}. */
public sealed interface Trigger {

    /** @param paths only when one of these changed; empty: always */
    record Push(List<BranchPattern> branches, List<BranchPattern> paths) implements Trigger {}

    record Preview(List<BranchPattern> branches) implements Trigger {}

    record Tag(BranchPattern pattern) implements Trigger {}

    /** @param cron five fields */
    record Clock(String cron, String zone) implements Trigger {}

    /**
     * @param branches of the upstream component; empty: its main branch
     * @param together what has to be new of which of them
     */
    record Upstream(List<String> components, List<BranchPattern> branches, Set<RunEnd> outcomes, boolean sameCommit,
            Novelty together) implements Trigger {}

    record Live(String component, String environment) implements Trigger {}

    record Arrival() implements Trigger {}

    /** Which new versions of several upstream components start a run. */
    enum Novelty {
        /** One of them has a new one. */
        ANY,
        /** Each has one that was not used yet. */
        ALL,
        /** The same, and no two of them were built from different versions of one ancestor. */
        CONSISTENT
    }

    /** How a run ended. */
    enum RunEnd {
        PASSED, WARNED, FAILED, CANCELLED;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** In the words of the pipeline file. */
    default String words() {
        return switch (this) {
            case Push(var branches, var paths) -> "push to " + list(branches)
                    + (paths.isEmpty() ? "" : ", where " + list(paths) + " changed");
            case Preview(var branches) -> "preview of " + list(branches);
            case Tag(var pattern) -> "tag " + pattern;
            case Clock(String cron, String zone) -> "clock " + cron + ", " + zone;
            case Upstream(var components, var branches, var outcomes, boolean sameCommit, var together) -> "upstream "
                    + String.join(", ", components) + (branches.isEmpty() ? "" : " on " + list(branches)) + ", "
                    + outcomes.stream().sorted().map(RunEnd::word).collect(Collectors.joining(" or "))
                    + (sameCommit ? ", same commit" : "")
                    + (together == Novelty.ANY ? "" : ", new: " + together.name().toLowerCase(Locale.ROOT));
            case Live(String component, String environment) -> component + " live in " + environment;
            case Arrival() -> "arrival";
        };
    }

    private static String list(List<BranchPattern> patterns) {
        return patterns.stream().map(BranchPattern::toString).collect(Collectors.joining(", "));
    }
}
