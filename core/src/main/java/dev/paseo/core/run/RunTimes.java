package dev.paseo.core.run;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** When a run is looked at again by itself: at its time limit, and where it was cancelled and does not end. */
public final class RunTimes {

    /** A run that was cancelled and has not ended by then is cancelled once more, at once. */
    private static final Duration SECOND_CANCEL = Duration.ofMinutes(10);

    private RunTimes() {}

    /**
     * @param started when it began; empty where it begins now
     * @param limit   how long it may take
     */
    public static Optional<Instant> wake(RunStatus status, Optional<Instant> started, Duration limit, Instant now) {
        return switch (status) {
            case WAITING, PASSED, WARNED, FAILED, CANCELLED -> Optional.empty();
            case RUNNING -> Optional.of(started.orElse(now).plus(limit));
            case CANCELLING -> Optional.of(now.plus(SECOND_CANCEL));
        };
    }

    /** What happens to a run whose time has come. */
    public static RunEvent over(Duration limit) {
        long minutes = limit.toMinutes();
        return new RunEvent.CancelAsked(
                "took longer than " + (minutes % 60 == 0 && minutes > 0 ? minutes / 60 + " h" : minutes + " min"));
    }
}
