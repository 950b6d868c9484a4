package dev.paseo.core.access;

import java.time.Duration;
import java.time.Instant;

/**
 * How long whoever has failed again and again has to wait before the next try: after {@code free} failures one second,
 * then twice as long each time, up to a limit. What is older than an hour is forgotten.
 *
 * @param failures since the last success, or since an hour without any
 * @param last     when the last one was
 */
public record BackOff(int failures, Instant last) {

    private static final Duration FORGOTTEN = Duration.ofHours(1);
    private static final int LONGEST_SHIFT = 20;

    public static BackOff none() {
        return new BackOff(0, Instant.EPOCH);
    }

    public BackOff failed(Instant now) {
        return new BackOff(isForgotten(now) ? 1 : failures + 1, now);
    }

    private boolean isForgotten(Instant now) {
        return last.plus(FORGOTTEN).isBefore(now);
    }

    /** How long from now; zero where the next try is taken. */
    public Duration left(Instant now, int free, Duration most) {
        if (failures < free || isForgotten(now)) {
            return Duration.ZERO;
        }
        Duration wait = Duration.ofSeconds(1L << Math.min(failures - free, LONGEST_SHIFT));
        Duration left = Duration.between(now, last.plus(wait.compareTo(most) > 0 ? most : wait));
        return left.isNegative() ? Duration.ZERO : left;
    }
}
