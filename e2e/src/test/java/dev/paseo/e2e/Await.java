package dev.paseo.e2e;

import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;

/** Waits for conditions, never for fixed times. */
final class Await {

    static final Duration LONGEST = Duration.ofSeconds(Integer.getInteger("paseo.patience", 120));

    private static final Duration FIRST = Duration.ofMillis(25);
    /** Asking costs what is asked of the time that it needs. */
    private static final Duration LAST = Duration.ofMillis(200);

    private Await() {}

    static void until(String what, BooleanSupplier condition) {
        until(LONGEST, () -> what, condition);
    }

    static void until(Duration longest, Supplier<String> what, BooleanSupplier condition) {
        long end = System.nanoTime() + longest.toNanos();
        long pause = FIRST.toNanos();
        while (!condition.getAsBoolean()) {
            if (System.nanoTime() > end) {
                throw new AssertionError("not within " + longest.toSeconds() + " s: " + what.get());
            }
            LockSupport.parkNanos(pause);
            pause = Math.min(pause * 5 / 4, LAST.toNanos());
        }
    }
}
