package dev.paseo.core.pace;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;

/** A time with both ends; none at all where the second is not after the first. */
public record Span(Instant from, Instant to) {

    /** What is left of some when others are taken away. */
    static List<Span> without(List<Span> spans, Collection<Span> taken) {
        List<Span> left = spans;
        for (Span each : taken) {
            left = left.stream().flatMap(span -> span.without(each)).toList();
        }
        return left;
    }

    private Stream<Span> without(Span taken) {
        if (!taken.from.isBefore(to) || !taken.to.isAfter(from) || !taken.to.isAfter(taken.from)) {
            return Stream.of(this);
        }
        return Stream.of(new Span(from, taken.from), new Span(taken.to, to)).filter(span -> span.to.isAfter(span.from));
    }

    /** How long all of them last together; they do not overlap. */
    static Duration together(List<Span> spans) {
        return spans.stream().map(span -> Duration.between(span.from, span.to)).filter(Duration::isPositive)
                .reduce(Duration.ZERO, Duration::plus);
    }
}
