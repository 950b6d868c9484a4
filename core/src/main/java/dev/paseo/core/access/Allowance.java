package dev.paseo.core.access;

import java.time.Duration;

/**
 * So many requests a minute, of which some may come at once: a bucket that fills evenly, and from which each request
 * takes one.
 *
 * @param left  what is in it, at most {@code most}
 * @param nanos when that was, by a clock that only goes forward
 */
public record Allowance(double left, long nanos) {

    private static final double NANOS_A_MINUTE = 60e9;

    public static Allowance full(double most, long nanos) {
        return new Allowance(most, nanos);
    }

    private double at(long now, double perMinute, double most) {
        return Math.min(most, left + (now - nanos) * perMinute / NANOS_A_MINUTE);
    }

    /** After one more request; below zero where it is one too many. */
    public Allowance take(long now, double perMinute, double most) {
        return new Allowance(at(now, perMinute, most) - 1, now);
    }

    public boolean exceeded() {
        return left < 0;
    }

    /** The same without the request that was one too many. */
    public Allowance givenBack() {
        return new Allowance(left + 1, nanos);
    }

    /** How long until one more may come, in whole seconds, at least one. */
    public Duration pause(double perMinute) {
        return Duration.ofSeconds(Math.max(1, (long) Math.ceil(-left * 60 / perMinute)));
    }
}
