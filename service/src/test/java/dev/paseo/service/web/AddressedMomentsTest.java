package dev.paseo.service.web;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.time.DateTimeException;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class AddressedMomentsTest {

    @Test
    void aMomentOfTheDatabasesYearsIsTaken() {
        assertEquals(Instant.parse("2026-06-01T06:00:00Z"), AddressedMoments.of(" 2026-06-01T08:00:00+02:00"));
        assertEquals(Instant.parse("9999-12-31T23:59:59Z"), AddressedMoments.of("9999-12-31T23:59:59Z"));
    }

    @Test
    void nothingIsNone() {
        assertNull(AddressedMoments.of(" "));
    }

    /** The database refuses them, which was answered as a failure of ours. */
    @ParameterizedTest
    @ValueSource(strings = {"+1000000000-12-31T23:59:59Z", "-1000000000-01-01T00:00:00Z", "0999-12-31T23:59:59Z",
            "+10000-01-01T00:00:00Z", "yesterday", "2026-13-45T99:99:99Z"})
    void nothingElseIs(String text) {
        assertThrows(DateTimeException.class, () -> AddressedMoments.of(text));
    }
}
