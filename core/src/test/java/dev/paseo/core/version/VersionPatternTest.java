package dev.paseo.core.version;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class VersionPatternTest {

    @ParameterizedTest
    @CsvSource({
            "1.4.{serial},           1.4.{serial},           1.4.7",
            "{date}.{serial},        2026.11.23.{serial},    2026.11.23.7",
            "1.0-{branch}.{serial},  1.0-season-spring.{serial}, 1.0-season-spring.7",
            "0-{commit},             0-9c41e07,              0-9c41e07"})
    void theSerialCountsInTheScopeOfTheRest(String pattern, String scope, String number) {
        Map<String, String> values = Map.of("commit", "9c41e07", "branch", "season/Spring", "date", "2026.11.23");
        assertEquals(scope, new VersionPattern(pattern).scope(values));
        assertEquals(number, VersionPattern.number(scope, 7));
    }

    @Test
    void aBranchThatIsNotTrustedCountsBesideTheNextTrustedNumber() {
        assertEquals("1.4.8-feature-night.{serial}", VersionPattern.beside("1.4.8", "feature/night"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"1.{serail}", "{serial}/1", "", "v 1"})
    void badPatternsAreRefused(String pattern) {
        assertThrows(IllegalArgumentException.class, () -> new VersionPattern(pattern));
    }

    @ParameterizedTest
    @CsvSource({"main, main", "feature/Nacht modus, feature-nacht-modus", "'--x..', x", "'../..', x"})
    void slugsAreSafeInNumbers(String branch, String slug) {
        assertEquals(slug, VersionPattern.slug(branch));
    }
}
