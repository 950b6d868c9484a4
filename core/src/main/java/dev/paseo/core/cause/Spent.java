package dev.paseo.core.cause;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Where the time of a run or a deployment went.
 *
 * @param waiting  until it was its turn, or its gate opened
 * @param queueing for agents, between its beginning and its end
 * @param working  at least one of its stages, or the recipe, was at work
 */
public record Spent(Duration waiting, Duration queueing, Duration working) {

    /** A stretch of work; without an end it goes on. */
    public record Stretch(Instant from, Optional<Instant> to) {}

    public static Spent of(Instant asked, Optional<Instant> began, Optional<Instant> ended, List<Stretch> work,
            Instant now) {
        Instant end = ended.orElse(now);
        Instant begin = began.filter(at -> at.isBefore(end)).orElse(end);
        Duration working = Duration.ZERO;
        Instant covered = begin;
        for (Stretch stretch : work.stream().sorted(Comparator.comparing(Stretch::from)).toList()) {
            Instant from = stretch.from().isAfter(covered) ? stretch.from() : covered;
            Instant to = stretch.to().filter(at -> at.isBefore(end)).orElse(end);
            if (to.isAfter(from)) {
                working = working.plus(Duration.between(from, to));
                covered = to;
            }
        }
        Duration between = Duration.between(begin, end).minus(working);
        return new Spent(positive(Duration.between(asked, begin)), positive(between), working);
    }

    private static Duration positive(Duration duration) {
        return duration.isNegative() ? Duration.ZERO : duration;
    }
}
