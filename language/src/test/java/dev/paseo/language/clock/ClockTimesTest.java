package dev.paseo.language.clock;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ClockTimesTest {

    @ParameterizedTest
    @CsvSource({
            "0 2 * * 1-5,   Europe/Madrid, 2026-11-20T12:00:00Z, 2026-11-23T01:00:00Z",
            "0 2 * * *,     UTC,           2026-11-20T02:00:00Z, 2026-11-21T02:00:00Z",
            "30 2 * * *,    Europe/Madrid, 2026-03-28T12:00:00Z, 2026-03-29T01:30:00Z",
            "30 2 * * *,    Europe/Madrid, 2026-03-29T01:30:00Z, 2026-03-30T00:30:00Z",
            "30 2 * * *,    Europe/Madrid, 2026-10-24T12:00:00Z, 2026-10-25T00:30:00Z",
            "30 2 * * *,    Europe/Madrid, 2026-10-25T00:30:00Z, 2026-10-26T01:30:00Z",
            "*/30 * * * *,  Europe/Madrid, 2026-10-25T00:30:00Z, 2026-10-25T01:00:00Z",
            "*/30 * * * *,  Europe/Madrid, 2026-10-25T01:00:00Z, 2026-10-25T01:30:00Z",
            "15 * * * *,    Europe/Madrid, 2026-03-29T00:15:00Z, 2026-03-29T01:15:00Z",
            "0 0 29 2 *,    UTC,           2026-03-01T00:00:00Z, 2028-02-29T00:00:00Z",
            "0 0 30 2 *,    UTC,           2026-03-01T00:00:00Z, never"})
    void nextTimes(String cron, String zone, Instant after, String next) {
        assertEquals(next, ClockTimes.next(cron, zone, after).map(Instant::toString).orElse("never"));
    }
}
