package dev.paseo.core.pace;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * How long a version took from what began it to going live in an environment, and where that went.
 *
 * @param began     when its run was asked for; of one that arrived, when it was sealed
 * @param runBegan  when its run began
 * @param work      when agents were at work for its run
 * @param sealed    when it was sealed
 * @param requested when its deployment was asked for
 * @param decided   when the last person decided; none: nobody did
 * @param started   when its deployment began
 * @param live      when it went live
 */
public record LeadTime(Instant began, Optional<Instant> runBegan, List<Span> work, Instant sealed, Instant requested,
        Optional<Instant> decided, Instant started, Instant live) {

    /** A time with both ends. */
    public record Span(Instant from, Instant to) {}

    /**
     * Where its time went. All parts together are exactly the time from its beginning to its going live, and none is
     * negative, whatever clocks were set back meanwhile.
     */
    public Map<TimePart, Duration> parts() {
        Instant run = after(began, runBegan.orElse(began));
        Instant end = after(run, sealed);
        Instant asked = after(end, requested);
        Instant people = after(asked, decided.orElse(asked));
        Instant begun = after(people, started);
        Instant done = after(begun, live);
        Map<TimePart, Duration> parts = new EnumMap<>(TimePart.class);
        parts.put(TimePart.TURN, Duration.between(began, run));
        Duration building = covered(work, run, end);
        parts.put(TimePart.BUILDING, building);
        parts.put(TimePart.AGENTS, Duration.between(run, end).minus(building));
        parts.put(TimePart.BEFORE, Duration.between(end, asked));
        parts.put(TimePart.PEOPLE, Duration.between(asked, people));
        parts.put(TimePart.TIME, Duration.between(people, begun));
        parts.put(TimePart.DEPLOYING, Duration.between(begun, done));
        return parts;
    }

    /** A moment, but not before another, nor after it went live. */
    private Instant after(Instant earlier, Instant moment) {
        Instant bounded = moment.isAfter(live) ? live : moment;
        return bounded.isBefore(earlier) ? earlier : bounded;
    }

    /** How long at least one of the spans lasts within a time. */
    static Duration covered(Collection<Span> spans, Instant from, Instant to) {
        Duration covered = Duration.ZERO;
        Instant until = from;
        for (Span span : spans.stream().sorted(Comparator.comparing(Span::from)).toList()) {
            Instant begin = span.from().isBefore(until) ? until : span.from();
            Instant end = span.to().isAfter(to) ? to : span.to();
            if (begin.isBefore(end)) {
                covered = covered.plus(Duration.between(begin, end));
                until = end;
            }
        }
        return covered;
    }
}
