package dev.paseo.service.problem;

import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Where a page of a list begins, and in which order it is.
 *
 * @param before the newest first, those with a smaller number than this
 * @param after  the oldest first, those with a larger number than this; null: the newest first
 */
public record Cursor(long before, @Nullable Long after) {

    /** @throws Refusal where both are asked, since a list has one order */
    public static Cursor of(Optional<Long> before, Optional<Long> after) {
        if (before.isPresent() && after.isPresent()) {
            throw Refusal.invalid("/after", "should not stand beside “before”: that is for the newest first, this for "
                    + "the oldest first");
        }
        return new Cursor(before.orElse(Long.MAX_VALUE), after.orElse(null));
    }
}
