package dev.paseo.core.gate;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * What is looked at after it has gone live: an emergency, and what went live under what was loosened shortly before; by
 * somebody who had no part in it.
 */
public final class Review {

    /** What was loosened counts for what goes live within this time. */
    private static final Duration COUNTS = Duration.ofDays(1);
    /** How soon it is looked at. */
    private static final Duration WITHIN = Duration.ofDays(3);

    private Review() {}

    /** From when on a loosening counts for what goes live now. */
    public static Instant since(Instant now) {
        return now.minus(COUNTS);
    }

    /** Until when what goes live now is looked at. */
    public static Instant due(Instant now) {
        return now.plus(WITHIN);
    }

    /**
     * Why this person does not review it; empty where they may.
     *
     * @param requester  who asked for the deployment; empty for the walk
     * @param loosenedBy who loosened what it went live under, if that is why it is reviewed
     */
    public static Optional<String> refusal(long deployment, String person, Optional<String> requester,
            Optional<String> loosenedBy) {
        if (requester.equals(Optional.of(person))) {
            return Optional.of(person + " asked for deployment " + deployment + ", and somebody else reviews it");
        }
        return loosenedBy.filter(person::equals).map(by -> by + " loosened what deployment " + deployment
                + " went live under, and somebody else reviews it");
    }
}
