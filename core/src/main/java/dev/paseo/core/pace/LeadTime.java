package dev.paseo.core.pace;

import dev.paseo.core.gate.Criterion.Approvals;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * How long a version took from its commit to going live in an environment, and where that went.
 *
 * @param committed when it was committed, by the committer's own clock; empty: it is not known
 * @param asked     when its run was asked for; of one that arrived, when it was sealed
 * @param runBegan  when its run began
 * @param work      when agents were at work for its run
 * @param sealed    when it was sealed
 * @param requested when its deployment was asked for
 * @param decided   when the last person decided; none: nobody did
 * @param obstacles what stood in the way
 * @param started   when its deployment began
 * @param live      when it went live
 */
public record LeadTime(Optional<Instant> committed, Instant asked, Optional<Instant> runBegan, List<Span> work,
        Instant sealed, Instant requested, Optional<Instant> decided, Obstacles obstacles, Instant started,
        Instant live) {

    /**
     * What stands in the way of a deployment that people have decided on.
     *
     * @param closed when the environment was closed, or outside of its hours
     * @param held   when the component was held there
     * @param others when other deployments of the component were under way there
     */
    public record Obstacles(List<Span> closed, List<Span> held, List<Span> others) {
        public static final Obstacles NONE = new Obstacles(List.of(), List.of(), List.of());
    }

    /** Somebody said yes: under their name and those of their groups. */
    public record Yes(String by, Set<String> as, Instant at) {}

    /** When its time begins: with the commit, unless that is dated later than its run. */
    private Instant began() {
        return committed.filter(moment -> moment.isBefore(asked)).orElse(asked);
    }

    /**
     * Where its time went. All parts together are exactly the time from its beginning to its going live, and none is
     * negative, whatever clocks were set back meanwhile.
     */
    public Map<TimePart, Duration> parts() {
        Instant began = bounded(began(), began());
        Instant request = bounded(began, asked);
        Instant run = bounded(request, runBegan.orElse(request));
        Instant end = bounded(run, sealed);
        Instant there = bounded(end, requested);
        Instant people = bounded(there, decided.orElse(there));
        Instant begun = bounded(people, started);
        Map<TimePart, Duration> parts = new EnumMap<>(TimePart.class);
        parts.put(TimePart.COMMITTED, Duration.between(began, request));
        parts.put(TimePart.TURN, Duration.between(request, run));
        List<Span> idle = Span.without(List.of(new Span(run, end)), work);
        parts.put(TimePart.AGENTS, Span.together(idle));
        parts.put(TimePart.BUILDING, Duration.between(run, end).minus(Span.together(idle)));
        parts.put(TimePart.BEFORE, Duration.between(end, there));
        parts.put(TimePart.PEOPLE, Duration.between(there, people));
        List<Span> left = List.of(new Span(people, begun));
        left = take(parts, TimePart.CLOSED, left, obstacles.closed());
        left = take(parts, TimePart.HELD, left, obstacles.held());
        left = take(parts, TimePart.QUEUE, left, obstacles.others());
        parts.put(TimePart.TIME, Span.together(left));
        parts.put(TimePart.DEPLOYING, Duration.between(begun, live.isBefore(begun) ? begun : live));
        return parts;
    }

    private static List<Span> take(Map<TimePart, Duration> parts, TimePart part, List<Span> of, List<Span> taken) {
        List<Span> left = Span.without(of, taken);
        parts.put(part, Span.together(of).minus(Span.together(left)));
        return left;
    }

    /** A moment, but not before another, nor after it went live. */
    private Instant bounded(Instant earlier, Instant moment) {
        Instant late = moment.isAfter(live) ? live : moment;
        return late.isBefore(earlier) ? earlier : late;
    }

    /**
     * How long each that was asked was waited for, from the request until as many had said yes as were wanted; whoever
     * never did, or had before, is left out. They wait at the same time, so these are not parts of a whole. Groups are
     * named, persons are not: how long somebody takes is nobody's figure.
     *
     * @param groups the names of groups; all others are of persons
     */
    public Map<String, Duration> waitedFor(List<Approvals> wanted, List<Yes> said, Set<String> groups) {
        Map<String, Duration> waited = new TreeMap<>();
        for (Approvals each : wanted) {
            List<String> counted = new ArrayList<>();
            said.stream().filter(yes -> each.from().stream().anyMatch(yes.as()::contains))
                    .sorted(Comparator.comparing(Yes::at))
                    .filter(yes -> !counted.contains(yes.by()) && counted.add(yes.by())
                            && counted.size() == each.count())
                    .map(yes -> Duration.between(requested, yes.at())).filter(Duration::isPositive).findFirst()
                    .ifPresent(length -> waited.merge(each.from().stream()
                            .map(name -> groups.contains(name) ? name : "a person").distinct()
                            .collect(Collectors.joining(" or ")), length,
                            (one, other) -> one.compareTo(other) > 0 ? one : other));
        }
        return waited;
    }
}
