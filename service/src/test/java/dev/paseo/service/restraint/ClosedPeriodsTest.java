package dev.paseo.service.restraint;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.environment.Rules;
import dev.paseo.service.environment.Environments.Environment;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ClosedPeriodsTest {

    private static final String CALENDAR = """
            BEGIN:VCALENDAR
            VERSION:2.0
            PRODID:-//huts//EN
            BEGIN:VEVENT
            UID:rest@huts.example
            DTSTART;VALUE=DATE:20261224
            DTEND;VALUE=DATE:20261227
            SUMMARY:Winter rest
            END:VEVENT
            END:VCALENDAR
            """.replace("\n", "\r\n");
    private static final Rules RULES = new Rules(Rules.FORMAT, Optional.empty(), Rules.NONE.origin(),
            Rules.Gates.NONE, Rules.NONE.rollback(), false, false, Map.of(), Optional.of(CALENDAR), Optional.empty());
    private static final Instant LATE = Instant.parse("2026-12-23T23:30:00Z");

    private final ClosedPeriods periods = new ClosedPeriods();

    private Optional<Instant> closedUntil(String zone) {
        return periods.at(new Environment(3, "production", zone, RULES, 1), LATE).map(period -> period.until());
    }

    /** Another time zone is no other revision of the rules, and days are other days in it all the same. */
    @Test
    void daysAreThoseOfTheZoneThatTheEnvironmentHasNow() {
        assertEquals(Optional.empty(), closedUntil("UTC"));
        assertEquals(Optional.of(Instant.parse("2026-12-26T23:00:00Z")), closedUntil("Europe/Rome"));
        assertEquals(Optional.empty(), closedUntil("UTC"));
    }
}
