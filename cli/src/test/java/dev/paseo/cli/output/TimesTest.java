package dev.paseo.cli.output;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Year;
import java.time.ZonedDateTime;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TimesTest {

    @ParameterizedTest
    @CsvSource({"2026-03-01T09:05:07Z, 1 Mar 09:05:07", "2025-12-31T23:59:59Z, 31 Dec 2025 23:59:59",
            "2027-01-01T00:00:00Z, 1 Jan 2027 00:00:00"})
    void aYearIsToldWhereItIsAnother(ZonedDateTime time, String text) {
        assertEquals(text, Times.exact(time, Year.of(2026)));
    }
}
