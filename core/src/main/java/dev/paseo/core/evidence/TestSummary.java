package dev.paseo.core.evidence;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What test reports say.
 *
 * @param seconds  how long the tests took in all, by their own account
 * @param failures the failed ones, as many as are kept with their output
 * @param slowest  the ones that took longest, the longest first
 * @param mended   of those that failed in the run before, the ones that passed now
 */
public record TestSummary(long total, long passed, long failed, long skipped, double seconds, List<Failure> failures,
        List<Timed> slowest,
        List<String> mended) {

    /**
     * A test that failed.
     *
     * @param output what it said, cut where it is long
     */
    public record Failure(String name, String message, String output, Optional<Double> seconds) {}

    public record Timed(String name, double seconds) {}

    public TestSummary {
        failures = List.copyOf(failures);
        slowest = List.copyOf(slowest);
        mended = List.copyOf(mended);
    }

    /** The names of those that failed and did not fail before. */
    public List<String> newlyFailing(Set<String> failedBefore) {
        return failures.stream().map(Failure::name).filter(name -> !failedBefore.contains(name)).toList();
    }
}
