package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class HoursTest {

    private static final ZoneId MADRID = ZoneId.of("Europe/Madrid");
    private static final EnumSet<DayOfWeek> WORKDAYS = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.THURSDAY);
    private static final Hours HOURS = new Hours(MADRID, List.of(new Hours.Window(WORKDAYS, span("09:00", "16:00"))),
            Map.of(LocalDate.parse("2026-12-24"), List.of(), LocalDate.parse("2026-12-31"),
                    List.of(span("09:00", "12:00"))));

    private static Hours.Span span(String from, String to) {
        return new Hours.Span(LocalTime.parse(from), LocalTime.parse(to));
    }

    @ParameterizedTest
    @CsvSource({"00:00, 24:00", "16:00, 16:00"})
    void midnightIsTheEndOfTheDay(String to, String written) {
        assertEquals(written, span("09:00", to).end());
    }

    /** Madrid is one hour ahead of UTC in winter, two in summer. */
    @ParameterizedTest
    @CsvSource({
            "2026-11-23T08:00:00Z, 2026-11-23T08:00:00Z, 2026-11-23T15:00:00Z",
            "2026-11-23T07:59:59Z, 2026-11-23T08:00:00Z, 2026-11-23T15:00:00Z",
            "2026-11-23T15:00:00Z, 2026-11-24T08:00:00Z, 2026-11-24T15:00:00Z",
            "2026-11-26T16:00:00Z, 2026-11-30T08:00:00Z, 2026-11-30T15:00:00Z",
            "2026-12-23T16:00:00Z, 2026-12-28T08:00:00Z, 2026-12-28T15:00:00Z",
            "2026-12-31T10:59:00Z, 2026-12-31T08:00:00Z, 2026-12-31T11:00:00Z",
            "2026-12-31T11:00:00Z, 2027-01-04T08:00:00Z, 2027-01-04T15:00:00Z",
            "2026-07-01T07:30:00Z, 2026-07-01T07:00:00Z, 2026-07-01T14:00:00Z"})
    void theOpeningUnderWayOrTheNext(Instant now, Instant from, Instant until) {
        assertEquals(Optional.of(new Hours.Opening(from, until)), HOURS.at(now));
    }

    @ParameterizedTest
    @CsvSource({"2026-11-27T22:30:00Z, true", "2026-11-28T00:30:00Z, true", "2026-11-28T01:00:00Z, false"})
    void aWindowMayEndTheNextDay(Instant now, boolean open) {
        Hours night = new Hours(MADRID, List.of(new Hours.Window(EnumSet.of(DayOfWeek.FRIDAY), span("22:00", "02:00"))),
                Map.of());
        assertEquals(open, !night.at(now).orElseThrow().from().isAfter(now));
    }

    @ParameterizedTest
    @CsvSource({"2026-03-29, 2026-03-29T01:30:00Z, 2026-03-29T02:00:00Z",
            "2026-10-25, 2026-10-25T00:30:00Z, 2026-10-25T03:00:00Z"})
    void onTheDaysOnWhichClocksChange(LocalDate day, Instant from, Instant until) {
        Hours early = new Hours(MADRID, List.of(new Hours.Window(EnumSet.of(DayOfWeek.SUNDAY), span("02:30", "04:00"))),
                Map.of());
        assertEquals(List.of(new Hours.Opening(from, until)), early.on(day));
    }

    @org.junit.jupiter.api.Test
    void hoursThatNeverComeAreFound() {
        Hours never = new Hours(MADRID, List.of(),
                Map.of(LocalDate.parse("2020-01-01"), List.of(span("09:00", "10:00"))));
        assertEquals(Optional.empty(), never.at(Instant.parse("2026-11-23T08:00:00Z")));
        Judgement judgement = TimeCriteria.open(never, Instant.parse("2026-11-23T08:00:00Z"));
        assertEquals(Judgement.State.NOT_MET, judgement.state());
        assertTrue(judgement.sentence().contains("never come"));
    }

    /** What it says of an instant agrees with asking every window of the days around. */
    @Property(tries = 300)
    void anOpeningHoldsTheInstantOrNothingOpensBefore(@ForAll @LongRange(min = 0, max = 200L * 86_400) long second,
            @ForAll @IntRange(min = 0, max = 23) int from, @ForAll @IntRange(min = 0, max = 23) int to,
            @ForAll DayOfWeek day) {
        Hours hours = new Hours(MADRID,
                List.of(new Hours.Window(EnumSet.of(day), new Hours.Span(LocalTime.of(from, 0), LocalTime.of(to, 30)))),
                Map.of());
        Instant now = Instant.parse("2026-01-01T00:00:00Z").plusSeconds(second);
        Hours.Opening found = hours.at(now).orElseThrow();
        assertTrue(found.until().isAfter(now));
        LocalDate today = now.atZone(MADRID).toLocalDate();
        for (int ahead = -1; ahead < 8; ahead++) {
            for (Hours.Opening other : hours.on(today.plusDays(ahead))) {
                assertTrue(!other.until().isAfter(now) || !other.from().isBefore(found.from()),
                        () -> other + " is earlier than " + found);
            }
        }
    }

    @Test
    void whatLiesBetweenOpeningsIsClosed() {
        Hours hours = new Hours(ZoneId.of("UTC"), List.of(new Hours.Window(EnumSet.allOf(DayOfWeek.class),
                new Hours.Span(LocalTime.of(9, 0), LocalTime.of(17, 0)))), Map.of());
        Instant morning = Instant.parse("2026-05-04T08:00:00Z");
        assertEquals(List.of(new Hours.Opening(morning, Instant.parse("2026-05-04T09:00:00Z")),
                new Hours.Opening(Instant.parse("2026-05-04T17:00:00Z"), Instant.parse("2026-05-05T09:00:00Z"))),
                hours.closed(morning, Instant.parse("2026-05-05T12:00:00Z")));
        assertEquals(List.of(),
                hours.closed(Instant.parse("2026-05-04T10:00:00Z"), Instant.parse("2026-05-04T11:00:00Z")));
        Hours never = new Hours(ZoneId.of("UTC"), List.of(), Map.of());
        assertEquals(List.of(new Hours.Opening(morning, morning.plusSeconds(60))),
                never.closed(morning, morning.plusSeconds(60)));
    }
}
