package dev.paseo.core.deployment;

import dev.paseo.core.text.Length;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/**
 * When a preview is taken away.
 *
 * @param retired   its component is retired
 * @param branch    that it shows
 * @param gone      that branch is not there any more
 * @param pushedAt  when it was pushed to last
 * @param after     how long without a push; empty: for ever
 * @param promotion the environment where its work, once live, ends it; empty: none
 */
public record PreviewEnd(String component, boolean retired, String branch, boolean gone, Instant pushedAt,
        Optional<Duration> after, Optional<String> promotion) {

    /**
     * Why it is taken away now; empty where it stays.
     *
     * @param promoted whether what is live in {@link #promotion} has its commit; asked only where all else lets it stay
     */
    public Optional<String> why(Instant now, BooleanSupplier promoted) {
        if (retired) {
            return Optional.of(component + " is retired");
        }
        if (gone) {
            return Optional.of("the branch " + branch + " is gone");
        }
        Optional<Duration> over = after.filter(length -> pushedAt.plus(length).isBefore(now));
        if (over.isPresent()) {
            return Optional.of("nothing was pushed to " + branch + " for " + Length.of(over.get()));
        }
        return promotion.filter(environment -> promoted.getAsBoolean())
                .map(environment -> "the work of " + branch + " is live in " + environment);
    }
}
