package dev.paseo.core.trigger;

import java.util.List;

/** Whether a push starts a run: the file at the pushed commit and the service's branch rules must both agree. */
public final class PushTrigger {

    private PushTrigger() {}

    /**
     * What the service says about a component's branches.
     *
     * @param allowed patterns of branches whose pushes may start runs
     * @param trusted patterns of branches whose versions may walk and whose runs may have secrets
     */
    public record BranchRules(List<String> allowed, List<String> trusted) {
        public BranchRules {
            allowed = List.copyOf(allowed);
            trusted = List.copyOf(trusted);
        }

        public boolean trusts(String branch) {
            return matchesAny(trusted, branch);
        }
    }

    /** What a push leads to. */
    public sealed interface Outcome {
        record Starts(boolean trusted) implements Outcome {}

        record StartsNothing(String reason) implements Outcome {}
    }

    /** Decides about a push to {@code branch}; {@code named} are the branch patterns of the file's push triggers. */
    public static Outcome decide(String branch, List<String> named, BranchRules rules) {
        if (named.isEmpty()) {
            return new Outcome.StartsNothing("the pipeline file starts nothing on a push");
        }
        if (!matchesAny(named, branch)) {
            return new Outcome.StartsNothing("the pipeline file names " + String.join(", ", named) + "; the push was to " + branch);
        }
        boolean trusted = rules.trusts(branch);
        if (!trusted && !matchesAny(rules.allowed(), branch)) {
            return new Outcome.StartsNothing("the service allows pushes to "
                    + (rules.allowed().isEmpty() ? String.join(", ", rules.trusted()) : String.join(", ", rules.allowed()))
                    + "; the push was to " + branch);
        }
        return new Outcome.Starts(trusted);
    }

    private static boolean matchesAny(List<String> patterns, String branch) {
        return patterns.stream().anyMatch(pattern -> new BranchPattern(pattern).matches(branch));
    }
}
