package dev.paseo.language;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NearestNameTest {

    private static final List<String> KNOWN = List.of("production", "staging", "test");

    /** What was written → which name is offered; nothing where none is near. */
    @ParameterizedTest
    @CsvSource({"stagign, staging", "Staging, staging", "tset, test", "produktion, production", "valley,", "'',"})
    void aNameThatIsNearIsOffered(String wrong, String near) {
        assertEquals(Optional.ofNullable(near), NearestName.of(wrong, KNOWN));
    }

    @Test
    void whereNoneIsNearWhatIsKnownIsSaid() {
        assertEquals("; did you mean staging?", NearestName.hint("stagin", KNOWN));
        assertEquals("; known: production, staging, test", NearestName.hint("valley", KNOWN));
        assertEquals("", NearestName.hint("valley", List.of()));
    }

    /** Comparing a megabyte with every name would take the machine's memory and time. */
    @Test
    void whatIsNoNameIsComparedWithNone() {
        assertTimeoutPreemptively(Duration.ofSeconds(5), () -> {
            assertEquals(Optional.empty(),
                    NearestName.of("x".repeat(1 << 20), Collections.nCopies(1000, "x".repeat(150))));
            assertEquals(Optional.empty(),
                    NearestName.of("x".repeat(150), Collections.nCopies(1000, "x".repeat(1 << 20))));
        });
    }
}
