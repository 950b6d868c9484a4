package dev.paseo.language.condition;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConditionTest {

    private static final Map<String, Object> REPORTS = Map.of("tests", Map.of("total", 240L, "passed", 230L, "failed", 0L, "skipped", 10L, "seconds", 4.5),
            "coverage", Map.of("lines", 0.8125));

    /** A dash: the fact is not there. */
    @ParameterizedTest
    @CsvSource({
        "tests.skipped > 5, true",
        "tests.failed > 0, false",
        "coverage.lines < 0.75, false",
        "coverage.lines < 1, true",
        "tests.seconds > 4, true",
        "findings.errors > 0, -",
        "has(findings.errors) && findings.errors > 0, false",
        "has(coverage.branches), false",
        "tests.skipped > 5 || findings.errors > 0, true"})
    void overReports(String text, String expected) {
        assertEquals(Optional.empty(), Condition.overReports().doubt(text));
        assertEquals(expected, Condition.overReports().holds(text, REPORTS).map(String::valueOf).orElse("-"));
    }

    @Test
    void overRuns() {
        Condition condition = Condition.overRuns(List.of("log-level"), List.of("zone"));
        Map<String, Object> facts = Map.of("branch", "main", "trusted", true, "asks", Map.of("log_level", "loud"), "each", Map.of("zone", "UTC"));
        assertEquals(Optional.of(true), condition.holds("trusted && asks.log_level == 'loud' && each.zone == 'UTC'", facts));
        assertEquals(Optional.of(false), condition.holds("branch.startsWith('season/')", facts));
    }
}
