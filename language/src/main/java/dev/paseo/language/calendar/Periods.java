package dev.paseo.language.calendar;

import java.util.regex.Pattern;
import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.Temporal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.data.ParserException;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.RecurrenceId;
import net.fortuna.ical4j.model.property.Summary;
import net.fortuna.ical4j.model.property.Uid;

/** The periods that a calendar's events cover, with their recurrences, exceptions and moved occurrences. */
public final class Periods {

    /** More than this is refused, in characters. */
    public static final int MOST_SIGNS = 2_000_000;
    private static final Pattern EVENT = Pattern.compile("BEGIN:VEVENT.*?END:VEVENT", Pattern.DOTALL);

    /** From an instant until another, which is not included. */
    public record Period(Instant from, Instant until, String summary) {}

    static {
        // Zones are known from the file and from the JDK; nothing is asked of the network.
        System.setProperty("net.fortuna.ical4j.timezone.update.enabled", "false");
    }

    private final List<List<VEvent>> events;

    private Periods(List<List<VEvent>> events) {
        this.events = events;
    }

    /** Reads a calendar. */
    public static Periods of(String text) throws NoCalendar {
        if (text.length() > MOST_SIGNS) {
            throw new NoCalendar(
                    "is a calendar of " + text.length() + " characters; at most " + MOST_SIGNS + " are allowed");
        }
        try {
            Calendar calendar = new CalendarBuilder()
                    .build(new StringReader(text.strip().replaceAll("\r?\n", "\r\n") + "\r\n"));
            Map<String, List<VEvent>> events = new LinkedHashMap<>();
            for (Object component : calendar.getComponents("VEVENT")) {
                VEvent event = (VEvent) component;
                if (event.getDateTimeStart() == null) {
                    throw new NoCalendar("has an event without DTSTART");
                }
                events.computeIfAbsent(event.getUid().map(Uid::getValue).orElse("event " + events.size()),
                        key -> new ArrayList<>()).add(event);
            }
            return new Periods(List.copyOf(events.values()));
        } catch (IOException | ParserException | RuntimeException wrong) {
            throw new NoCalendar("is no calendar of RFC 5545: " + Optional.ofNullable(wrong.getMessage())
                    .map(why -> why.replaceAll("\\s+", " ").strip()).orElse("it cannot be read"));
        }
    }

    /** Text that is no calendar. */
    public static final class NoCalendar extends Exception {
        NoCalendar(String message) {
            super(message);
        }
    }

    /**
     * What lies, also in part, between two instants, in order. Times without a zone, and whole days, are those of
     * {@code zone}.
     */
    /** Whether every event of one calendar stands, as it is, in another; no calendar has none. */
    public static boolean keeps(Optional<String> before, Optional<String> after) {
        return events(after).containsAll(events(before));
    }

    private static Set<String> events(Optional<String> calendar) {
        return calendar.map(text -> EVENT.matcher(text).results().map(event -> event.group().lines().map(String::strip)
                .filter(line -> !line.isEmpty() && !line.startsWith("DTSTAMP")).collect(Collectors.joining("\n")))
                .collect(Collectors.toSet())).orElse(Set.of());
    }

    public List<Period> between(Instant from, Instant until, ZoneId zone) {
        List<Period> periods = new ArrayList<>();
        for (List<VEvent> same : events) {
            Set<Instant> moved = same.stream().flatMap(event -> movedFrom(event, zone).stream())
                    .collect(Collectors.toSet());
            for (VEvent event : same) {
                boolean override = movedFrom(event, zone).isPresent();
                for (net.fortuna.ical4j.model.Period<?> found : occurrences(event, from.atZone(zone),
                        until.atZone(zone))) {
                    Period period = new Period(instant(found.getStart(), zone), instant(found.getEnd(), zone),
                            summary(event));
                    if (period.from().isBefore(until) && period.until().isAfter(from)
                            && (override || !moved.contains(period.from()))) {
                        periods.add(period);
                    }
                }
            }
        }
        periods.sort(Comparator.comparing(Period::from));
        return periods;
    }

    /** When an occurrence would have been that this event stands for. */
    private static Optional<Instant> movedFrom(VEvent event, ZoneId zone) {
        return event.getProperty(net.fortuna.ical4j.model.Property.RECURRENCE_ID)
                .map(each -> instant(((RecurrenceId<?>) each).getDate(), zone));
    }

    private static String summary(VEvent event) {
        return event.getProperty(net.fortuna.ical4j.model.Property.SUMMARY).map(each -> ((Summary) each).getValue())
                .orElse("closed");
    }

    private static Collection<net.fortuna.ical4j.model.Period<Temporal>> occurrences(VEvent event, ZonedDateTime from,
            ZonedDateTime until) {
        return event.calculateRecurrenceSet(switch (event.getDateTimeStart().getDate()) {
            case LocalDate day -> new net.fortuna.ical4j.model.Period<>(from.toLocalDate(),
                    until.toLocalDate().plusDays(1));
            case LocalDateTime floating -> new net.fortuna.ical4j.model.Period<>(from.toLocalDateTime(),
                    until.toLocalDateTime());
            case OffsetDateTime fixed -> new net.fortuna.ical4j.model.Period<>(from.toOffsetDateTime(),
                    until.toOffsetDateTime());
            default -> new net.fortuna.ical4j.model.Period<>(from, until);
        });
    }

    private static Instant instant(Temporal time, ZoneId zone) {
        return switch (time) {
            case LocalDate day -> day.atStartOfDay(zone).toInstant();
            case LocalDateTime floating -> floating.atZone(zone).toInstant();
            default -> Instant.from(time);
        };
    }
}
