package dev.paseo.core.gate;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * The hours within which something may begin, on the clocks of a zone.
 *
 * @param windows    of ordinary days
 * @param exceptions days on which other windows hold; none at all: closed the whole day
 */
public record Hours(ZoneId zone, List<Window> windows, Map<LocalDate, List<Span>> exceptions) {

    private static final int FARTHEST_DAYS = 800;

    /** On these days of the week. */
    public record Window(Set<DayOfWeek> days, Span span) {
        public Window {
            days = Collections.unmodifiableSet(new TreeSet<>(days));
        }
    }

    /** From a time of day to another, which is not included; one that ends before it begins ends the next day. */
    public record Span(LocalTime from, LocalTime to) {

        /** Its end as people write it: midnight is the end of the day, 24:00. */
        public String end() {
            return to.equals(LocalTime.MIDNIGHT) ? "24:00" : to.toString();
        }
    }

    /** From an instant until another. */
    public record Opening(Instant from, Instant until) {}

    public Hours {
        windows = List.copyOf(windows);
        exceptions = Collections.unmodifiableMap(new TreeMap<>(exceptions));
    }

    /** The opening that is under way now, or else the next one; empty where it never opens in the next two years. */
    public Optional<Opening> at(Instant now) {
        LocalDate today = now.atZone(zone).toLocalDate();
        for (int ahead = -1; ahead <= FARTHEST_DAYS; ahead++) {
            Optional<Opening> found = on(today.plusDays(ahead)).stream().filter(opening -> opening.until().isAfter(now))
                    .min((one, other) -> one.from().compareTo(other.from()));
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** When it is not open, from a moment until another. */
    public List<Opening> closed(Instant from, Instant until) {
        List<Opening> closed = new ArrayList<>();
        Instant at = from;
        while (at.isBefore(until)) {
            Optional<Opening> next = at(at);
            Instant opens = next.map(Opening::from).filter(begin -> begin.isBefore(until)).orElse(until);
            if (at.isBefore(opens)) {
                closed.add(new Opening(at, opens));
            }
            at = next.map(Opening::until).orElse(until);
        }
        return closed;
    }

    /** The openings that begin on a day; on a day whose clocks change, those that are left of them. */
    public List<Opening> on(LocalDate day) {
        List<Span> spans = exceptions.containsKey(day) ? exceptions.get(day)
                : windows.stream().filter(window -> window.days().contains(day.getDayOfWeek())).map(Window::span)
                        .toList();
        return spans.stream().map(span -> {
            LocalDate end = span.to().isAfter(span.from()) ? day : day.plusDays(1);
            return new Opening(ZonedDateTime.of(day, span.from(), zone).toInstant(),
                    ZonedDateTime.of(end, span.to(), zone).toInstant());
        }).filter(opening -> Duration.between(opening.from(), opening.until()).isPositive()).toList();
    }
}
