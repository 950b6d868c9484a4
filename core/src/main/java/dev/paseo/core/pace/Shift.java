package dev.paseo.core.pace;

import java.util.List;

/**
 * Where a figure moved, and stayed moved.
 *
 * @param at          the first point after it, counted from 0
 * @param before      the median in milliseconds, or of failures the percentage, from the shift before on, or all
 * @param after       the same, up to the next shift or the end
 * @param differences what was otherwise before; the clearest first
 */
public record Shift(Kind kind, int at, long before, long after, List<Difference> differences) {

    /** What moved, and which way. */
    public enum Kind {
        SLOWER, FASTER, FAILS_MORE, FAILS_LESS
    }

    /**
     * A fact that had other values before than after.
     *
     * @param before its values, the most frequent first; at most three
     * @param after  likewise
     */
    public record Difference(String fact, List<Value> before, List<Value> after) {}

    /** A value, in so many of so many points that have the fact. */
    public record Value(String value, int count, int of) {}
}
