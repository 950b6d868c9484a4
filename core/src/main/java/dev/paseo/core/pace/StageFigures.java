package dev.paseo.core.pace;

import dev.paseo.core.run.StageStatus;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/**
 * What the runs of one stage come to. Times are in milliseconds, of the attempts that passed.
 *
 * @param runs    how many times it was to be done: in how many runs, each of its variants by itself
 * @param median  of those that passed; none: none did
 * @param ninety  as long as at most 90 % of them took
 * @param spent   what all attempts took together, those that failed too
 * @param failed  how often its last attempt failed
 * @param flaky   how often an attempt failed and a later one of the same run passed: with the same commit and inputs
 * @param retried how many attempts there were beyond the first
 */
public record StageFigures(int runs, OptionalLong median, OptionalLong ninety, long spent, int failed, int flaky,
        int retried) {

    /** What comes first. */
    public enum Order {
        /** Where most time goes, of all attempts together. */
        SPENT(Comparator.comparing(StageFigures::spent)),
        /** What takes longest by its median. */
        SLOWEST(Comparator.comparing(figures -> figures.median().orElse(-1))),
        /** What fails and then passes in the greatest share of its runs. */
        FLAKIEST(Comparator.comparing(figures -> figures.share(figures.flaky()))),
        /** What is tried again most often. */
        RETRIED(Comparator.comparing(StageFigures::retried)),
        /** What fails in the end in the greatest share of its runs. */
        FAILING(Comparator.comparing(figures -> figures.share(figures.failed())));

        private final Comparator<StageFigures> least;

        Order(Comparator<StageFigures> least) {
            this.least = least;
        }

        /** The greatest first. */
        public Comparator<StageFigures> first() {
            return least.reversed();
        }
    }

    private double share(int of) {
        return runs == 0 ? 0 : (double) of / runs;
    }

    /** An attempt that is over; those that were skipped or cancelled say nothing. */
    public record Attempt(long run, String variant, int attempt, StageStatus status, long millis) {

        private boolean passed() {
            return status == StageStatus.PASSED || status == StageStatus.WARNED;
        }

        private boolean counts() {
            return passed() || status == StageStatus.FAILED;
        }
    }

    private record Turn(long run, String variant) {}

    /** Of these; the order does not matter. */
    public static StageFigures of(Collection<Attempt> attempts) {
        Map<Turn, List<Attempt>> turns = attempts.stream().filter(Attempt::counts)
                .sorted(Comparator.comparing(Attempt::attempt))
                .collect(Collectors.groupingBy(each -> new Turn(each.run(), each.variant())));
        long[] times = attempts.stream().filter(Attempt::passed).mapToLong(Attempt::millis).sorted().toArray();
        return new StageFigures(turns.size(), Summary.percentile(times, 50), Summary.percentile(times, 90),
                attempts.stream().filter(Attempt::counts).mapToLong(Attempt::millis).sum(),
                count(turns, all -> !all.getLast().passed()),
                count(turns, all -> all.getLast().passed() && !all.getFirst().passed()),
                turns.values().stream().mapToInt(all -> all.size() - 1).sum());
    }

    private static int count(Map<Turn, List<Attempt>> turns, Predicate<List<Attempt>> which) {
        return (int) turns.values().stream().filter(which).count();
    }
}
