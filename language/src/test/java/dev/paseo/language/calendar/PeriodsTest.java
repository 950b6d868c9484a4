package dev.paseo.language.calendar;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PeriodsTest {

    private static final ZoneId MADRID = ZoneId.of("Europe/Madrid");

    private static String calendar(String... events) {
        return "BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//park//EN\n" + String.join("\n", events) + "\nEND:VCALENDAR\n";
    }

    private static String event(String uid, String lines) {
        return "BEGIN:VEVENT\nUID:" + uid + "\nDTSTAMP:20260101T000000Z\n" + lines + "\nSUMMARY:" + uid
                + "\nEND:VEVENT";
    }

    private static String covered(String text, String from, String until) throws Periods.NoCalendar {
        return Periods.of(text).between(Instant.parse(from), Instant.parse(until), MADRID).stream()
                .map(each -> each.from() + " " + each.until() + " " + each.summary())
                .collect(Collectors.joining(", "));
    }

    /** Whole days and times without a zone are those of the environment. */
    @ParameterizedTest
    @CsvSource({
            "'DTSTART;VALUE=DATE:20261224|DTEND;VALUE=DATE:20270102', 2026-12-23T23:00:00Z 2027-01-01T23:00:00Z",
            "'DTSTART:20261225T120000|DTEND:20261225T140000', 2026-12-25T11:00:00Z 2026-12-25T13:00:00Z",
            "'DTSTART:20261225T120000Z|DURATION:PT2H', 2026-12-25T12:00:00Z 2026-12-25T14:00:00Z",
            "'DTSTART;TZID=America/New_York:20261225T120000|DTEND;TZID=America/New_York:20261225T130000', "
                    + "2026-12-25T17:00:00Z 2026-12-25T18:00:00Z",
            "'DTSTART;VALUE=DATE:20260901|DTEND;VALUE=DATE:20270301', 2026-08-31T22:00:00Z 2027-02-28T23:00:00Z"})
    void oneEvent(String lines, String covered) throws Periods.NoCalendar {
        assertEquals(covered + " x", covered(calendar(event("x", lines.replace('|', '\n'))), "2026-12-25T00:00:00Z",
                "2026-12-26T00:00:00Z"));
    }

    @Test
    void recurrencesWithExceptionsAndAMovedOne() throws Periods.NoCalendar {
        String weekly = event("weekly",
                "DTSTART;TZID=Europe/Madrid:20260105T090000\nDTEND;"
                        + "TZID=Europe/Madrid:20260105T110000\nRRULE:FREQ=WEEKLY;BYDAY=MO\n"
                        + "EXDATE;TZID=Europe/Madrid:20261130T090000");
        String moved = event("weekly",
                "RECURRENCE-ID;TZID=Europe/Madrid:20261207T090000\nDTSTART;TZID=Europe/Madrid:20261207T150000\n"
                        + "DTEND;TZID=Europe/Madrid:20261207T160000");
        assertEquals(
                "2026-11-23T08:00:00Z 2026-11-23T10:00:00Z weekly, 2026-12-07T14:00:00Z 2026-12-07T15:00:00Z "
                        + "weekly, 2026-12-14T08:00:00Z 2026-12-14T10:00:00Z weekly",
                covered(calendar(weekly, moved), "2026-11-23T00:00:00Z", "2026-12-15T00:00:00Z"));
    }

    @Test
    void thousandsOfRecurringEvents() throws Periods.NoCalendar {
        String text = calendar(IntStream.range(0, 3000)
                .mapToObj(at -> event("e" + at,
                        "DTSTART;TZID=Europe/Madrid:20200106T090000\nDTEND;TZID=Europe/Madrid:20200106T091000\n"
                                + "RRULE:FREQ=DAILY;INTERVAL=7\nEXDATE;TZID=Europe/Madrid:20261130T090000"))
                .toArray(String[]::new));
        List<Periods.Period> found = Periods.of(text).between(Instant.parse("2026-11-22T00:00:00Z"),
                Instant.parse("2026-12-13T00:00:00Z"), MADRID);
        assertEquals(2 * 3000, found.size(), "two Mondays, one excepted");
    }

    @Test
    void aCalendarWithoutEndIsNotRead() {
        assertTrue(assertThrows(Periods.NoCalendar.class, () -> Periods.of("x".repeat(Periods.MOST_SIGNS + 1)))
                .getMessage().contains("at most 2000000 are allowed"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "park", "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID:x\nEND:VCALENDAR",
            "BEGIN:VCALENDAR\nVERSION:2.0\nBEGIN:VEVENT\nUID:x\nDTSTART:tomorrow\nEND:VEVENT\nEND:VCALENDAR"})
    void whatIsNoCalendar(String text) {
        assertTrue(assertThrows(Periods.NoCalendar.class, () -> Periods.of(text)).getMessage().contains("calendar"));
    }
}
