package dev.paseo.core.trigger;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Which triggers an event sets off, and, of each that it does not, why not. */
public final class Matching {

    private Matching() {}

    /**
     * A trigger that is in force.
     *
     * @param position   its place among the triggers of its file, from 0
     * @param mainBranch on which its component's runs start where the event names no branch of it
     */
    public record InForce(String component, int position, Trigger trigger, BranchRules rules, String mainBranch,
            Optional<String> repository) {

        /** All triggers of a component's file, in its order. */
        public static List<InForce> of(String component, List<Trigger> triggers, BranchRules rules, String mainBranch,
                Optional<String> repository) {
            return IntStream.range(0, triggers.size()).mapToObj(
                    at -> new InForce(component, at, triggers.get(at), rules, mainBranch, repository)).toList();
        }
    }

    /** What came of one trigger. */
    public record Considered(InForce of, Finding finding) {}

    /** What follows. */
    public sealed interface Finding {

        record Starts(String branch, boolean trusted) implements Finding {}

        /** It starts if its upstream components have what it wants of them. */
        record Weighs(String branch, boolean trusted) implements Finding {}

        record StartsNothing(String reason) implements Finding {}
    }

    /**
     * Considers every trigger that the event could concern: those of its own component where something happened to its
     * source or a version arrived, and those of other components that name it.
     */
    public static List<Considered> match(Event event, List<InForce> triggers) {
        return triggers.stream().filter(each -> concerns(event, each))
                .map(each -> new Considered(each, find(event, each))).toList();
    }

    private static boolean concerns(Event event, InForce each) {
        return switch (event) {
            case Event.RunEnded ended -> each.trigger() instanceof Trigger.Upstream upstream
                    && upstream.components().contains(ended.component());
            case Event.WentLive live -> each.trigger() instanceof Trigger.Live trigger
                    && trigger.component().equals(live.component());
            case Event.Pushed pushed -> each.component().equals(pushed.component());
            case Event.Tagged tagged -> each.component().equals(tagged.component());
            case Event.Arrived arrived -> each.component().equals(arrived.component());
            case Event.Fired fired -> each.component().equals(fired.component())
                    && each.trigger() instanceof Trigger.Clock clock
                    && clock.cron().equals(fired.cron()) && clock.zone().equals(fired.zone());
        };
    }

    private static Finding find(Event event, InForce each) {
        return switch (event) {
            case Event.Pushed pushed -> push(pushed, each);
            case Event.Tagged tagged -> tag(tagged, each);
            case Event.Arrived arrived -> each.trigger() instanceof Trigger.Arrival ? starts(each, each.mainBranch())
                    : other("an arrival");
            case Event.Fired fired -> fired.missed()
                    ? nothing("the service was away at that time, and it is too long ago to be made up for")
                    : starts(each, each.mainBranch());
            case Event.RunEnded ended -> upstream(ended, (Trigger.Upstream) each.trigger(), each);
            case Event.WentLive live -> ((Trigger.Live) each.trigger()).environment().equals(live.environment())
                    ? starts(each, each.mainBranch())
                    : nothing("it went live in " + live.environment());
        };
    }

    private static Finding push(Event.Pushed event, InForce each) {
        return switch (each.trigger()) {
            case Trigger.Push(var branches, var paths) -> {
                if (none(branches, event.branch())) {
                    yield nothing("the push was to " + event.branch());
                }
                if (!paths.isEmpty() && event.changed().isPresent()
                        && event.changed().get().stream().allMatch(path -> none(paths, path))) {
                    yield nothing("none of " + list(paths) + " changed since the last started commit, but "
                            + few(event.changed().get()));
                }
                yield starts(each, event.branch());
            }
            case Trigger.Preview(var branches) -> none(branches, event.branch())
                    ? nothing("the push was to " + event.branch()) : starts(each, event.branch());
            default -> other("a push");
        };
    }

    private static Finding tag(Event.Tagged event, InForce each) {
        if (!(each.trigger() instanceof Trigger.Tag(BranchPattern pattern))) {
            return other("a tag");
        }
        if (!pattern.matches(event.tag())) {
            return nothing("the tag is " + event.tag());
        }
        if (event.sealed().isPresent()) {
            return nothing("its commit is sealed already: " + event.tag() + " is a second name of " + event.component()
                    + " " + event.sealed().get());
        }
        return event.branch().map(branch -> starts(each, branch))
                .orElseGet(() -> nothing("its commit is on no branch that may start runs"));
    }

    private static Finding upstream(Event.RunEnded event, Trigger.Upstream trigger, InForce each) {
        if (trigger.branches().isEmpty() ? !event.main() : none(trigger.branches(), event.branch())) {
            return nothing("the run was on " + event.branch()
                    + (trigger.branches().isEmpty() ? ", not on its main branch" : ""));
        }
        if (!wanted(event.end(), trigger)) {
            return nothing("the run ended " + event.end().word());
        }
        if (trigger.sameCommit() && !(event.repository().isPresent() && event.repository().equals(each.repository()))) {
            return nothing("it wants the same commit, but " + event.component() + " and " + each.component()
                    + " are not of one repository");
        }
        // With the same commit it is a run of that commit's branch, and as trusted as that is.
        Finding found = starts(each, trigger.sameCommit() ? event.branch() : each.mainBranch());
        boolean sealed = event.end() == Trigger.RunEnd.PASSED || event.end() == Trigger.RunEnd.WARNED;
        return sealed && found instanceof Finding.Starts(String branch, boolean trusted)
                ? new Finding.Weighs(branch, trusted) : found;
    }

    /** Passed includes warned. */
    private static boolean wanted(Trigger.RunEnd end, Trigger.Upstream trigger) {
        return trigger.outcomes().contains(end)
                || end == Trigger.RunEnd.WARNED && trigger.outcomes().contains(Trigger.RunEnd.PASSED);
    }

    private static Finding starts(InForce each, String branch) {
        return each.rules().refusal(branch).<Finding>map(Finding.StartsNothing::new)
                .orElseGet(() -> new Finding.Starts(branch, each.rules().trusts(branch)));
    }

    private static Finding other(String happened) {
        return nothing("this was " + happened);
    }

    private static Finding nothing(String reason) {
        return new Finding.StartsNothing(reason);
    }

    private static boolean none(List<BranchPattern> patterns, String name) {
        return patterns.stream().noneMatch(pattern -> pattern.matches(name));
    }

    private static String list(List<BranchPattern> patterns) {
        return patterns.stream().map(BranchPattern::toString).collect(Collectors.joining(", "));
    }

    private static String few(List<String> paths) {
        return paths.isEmpty() ? "nothing did" : String.join(", ", paths.subList(0, Math.min(3, paths.size())))
                + (paths.size() > 3 ? " and " + (paths.size() - 3) + " more" : "");
    }
}
