package dev.paseo.service.engine;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.engine.Absences.Absence;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AbsencesTest {

    private static Instant at(int minute) {
        return Instant.parse("2026-05-04T08:00:00Z").plus(Duration.ofMinutes(minute));
    }

    /** Away from minute 10 to 20 and from 30 to 35. */
    @ParameterizedTest
    @CsvSource({"0, 5, 0", "0, 10, 0", "0, 40, 15", "12, 15, 3", "15, 32, 7", "20, 30, 0", "34, 90, 1", "5, 5, 0"})
    void onlyWhatOverlapsCounts(int from, int to, int minutes) {
        assertEquals(Duration.ofMinutes(minutes),
                Absences.within(at(from), at(to), List.of(new Absence(at(10), at(20)), new Absence(at(30), at(35)))));
    }
}
