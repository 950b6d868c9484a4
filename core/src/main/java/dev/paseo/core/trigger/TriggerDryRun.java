package dev.paseo.core.trigger;

import java.time.Instant;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** Holds other triggers of a component against what happened: what would start a run, and what no longer would. */
public final class TriggerDryRun {

    private TriggerDryRun() {}

    /**
     * Something that happened.
     *
     * @param pathsKnown whether it is known what a push changed; without it, a trigger of paths cannot be judged
     */
    public record Past(Event event, String sentence, Instant at, boolean pathsKnown) {}

    /** What triggers make of it. */
    public enum Answer {
        STARTS, STARTS_NOTHING,
        /** It depends on what is not known any more: what changed, or what other components had at that time. */
        UNKNOWN
    }

    /**
     * What came of one that differs.
     *
     * @param why each trigger that is considered of those that are tried, with what it says
     */
    public record Differing(Past past, Answer now, Answer then, List<String> why) {}

    /**
     * What came of all.
     *
     * @param now  how many start a run by the triggers in force now
     * @param then how many would by those that are tried
     */
    public record Result(int events, int now, int then, int unknown, List<Differing> differing) {}

    /** Judges all of it, in the order given. */
    public static Result of(List<Past> events, List<Matching.InForce> now, List<Matching.InForce> tried) {
        List<Differing> all = events.stream().map(past -> new Differing(past, answer(past, now), answer(past, tried),
                Matching.match(past.event(), tried).stream().map(TriggerDryRun::words).toList())).toList();
        return new Result(all.size(), count(all, each -> each.now() == Answer.STARTS),
                count(all, each -> each.then() == Answer.STARTS), count(all, each -> each.then() == Answer.UNKNOWN),
                all.stream().filter(each -> each.now() != each.then()).toList());
    }

    private static int count(List<Differing> all, Predicate<Differing> which) {
        return (int) all.stream().filter(which).count();
    }

    private static Answer answer(Past past, List<Matching.InForce> triggers) {
        List<Answer> answers = Matching.match(past.event(), triggers).stream().map(each -> answer(past, each)).toList();
        return answers.contains(Answer.STARTS) ? Answer.STARTS
                : answers.contains(Answer.UNKNOWN) ? Answer.UNKNOWN : Answer.STARTS_NOTHING;
    }

    private static Answer answer(Past past, Matching.Considered each) {
        return switch (each.finding()) {
            case Matching.Finding.StartsNothing nothing -> Answer.STARTS_NOTHING;
            case Matching.Finding.Starts starts -> !past.pathsKnown()
                    && each.of().trigger() instanceof Trigger.Push push
                    && !push.paths().isEmpty() ? Answer.UNKNOWN : Answer.STARTS;
            case Matching.Finding.Weighs weighs -> each.of().trigger() instanceof Trigger.Upstream upstream
                    && upstream.together() == Trigger.Novelty.ANY ? Answer.STARTS : Answer.UNKNOWN;
        };
    }

    private static String words(Matching.Considered each) {
        return each.of().trigger().words() + switch (each.finding()) {
            case Matching.Finding.StartsNothing(String reason) -> ": " + reason;
            case Matching.Finding.Starts(String branch, boolean trusted) -> ": starts a run on " + branch;
            case Matching.Finding.Weighs(String branch, boolean trusted) -> ": starts a run on " + branch
                    + ", if its upstream components have what it wants";
        };
    }

    /** The clocks of both, each once. */
    public static List<Trigger.Clock> clocks(List<Matching.InForce> now, List<Matching.InForce> tried) {
        return Stream.concat(now.stream(), tried.stream()).map(Matching.InForce::trigger)
                .filter(Trigger.Clock.class::isInstance).map(Trigger.Clock.class::cast).distinct().toList();
    }
}
