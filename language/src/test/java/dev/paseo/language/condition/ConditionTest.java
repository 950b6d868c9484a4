package dev.paseo.language.condition;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ConditionTest {

    private static final Map<String, Object> REPORTS = Map.of("tests",
            Map.of("total", 240L, "passed", 230L, "failed", 0L, "skipped", 10L, "seconds", 4.5),
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
        assertEquals(Optional.empty(), Condition.overReports().reasonAgainst(text));
        assertEquals(expected, Condition.overReports().holds(text, REPORTS).map(String::valueOf).orElse("-"));
    }

    @Test
    void aConditionWithoutEndIsRefused() {
        assertTrue(Condition.overReports().reasonAgainst("tests.failed == 0 && ".repeat(200) + "true").orElseThrow()
                .contains("at most 2000 are allowed"));
    }

    @Test
    void overRuns() {
        Condition condition = Condition.overRuns(List.of("log-level"), List.of("zone"));
        Map<String, Object> facts = Map.of("branch", "main", "trusted", true, "asks", Map.of("log_level", "loud"),
                "each", Map.of("zone", "UTC"));
        assertEquals(Optional.of(true),
                condition.holds("trusted && asks.log_level == 'loud' && each.zone == 'UTC'", facts));
        assertEquals(Optional.of(false), condition.holds("branch.startsWith('season/')", facts));
    }

    /** Conditions of a gate name environments, and say afterwards what they saw. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "tests.failed == 0                                    | true  | tests.failed is 0",
            "at.staging.tests.failed == 0 && tests.total > 10     | false | at.staging.tests.failed is 0, "
                    + "tests.total is 7",
            "at.north_hut.coverage.lines > 0.5                   |       | at.north_hut.coverage.lines was never "
                    + "reported",
            "has(coverage.lines) && coverage.lines >= 0.75        | false | coverage.lines was never reported",
            "component == 'daylight-api' && live != version           | true  | component is daylight-api, live is "
                    + "1.4.1, version is 1.4.2"})
    void overGates(String text, Boolean holds, String seen) {
        Map<String, Object> facts = Map.of("component", "daylight-api", "version", "1.4.2", "branch", "main", "commit",
                "c0ffee", "live", "1.4.1", "trusted", true,
                "tests", Map.of("failed", 0L, "total", 7L), "at",
                Map.of("staging", Map.of("tests", Map.of("failed", 0L))));
        Condition conditions = Condition.overGates(List.of("staging", "north-hut"));
        assertEquals(Optional.empty(), conditions.reasonAgainst(text));
        assertEquals(Optional.ofNullable(holds), conditions.holds(text, facts));
        assertEquals(seen, Condition.seen(text, facts));
    }

    /** A condition is judged also after an environment that it names has gone: its facts are not there. */
    @Test
    void anEnvironmentThatIsNoMoreHasNoFacts() {
        String gone = "branch == 'it\\'s at.home' || at.old_hut.tests.failed == 0 || branch == 'at.west'";
        assertTrue(Condition.overGates(List.of("staging")).reasonAgainst(gone).orElseThrow()
                .contains("there is no field old_hut"));
        Condition conditions = Condition.overGatesOf(List.of("trusted", gone));
        Map<String, Object> facts = Map.of("branch", "main", "trusted", true, "at", Map.of());
        assertEquals(Optional.empty(), conditions.holds(gone, facts));
        assertEquals(Optional.of(true), conditions.holds("trusted", facts));
        assertEquals(Optional.of(true), conditions.holds(gone, Map.of("branch", "it's at.home", "at", Map.of())));
        assertEquals(Optional.of(true), conditions.holds(gone, Map.of("branch", "main", "at",
                Map.of("old_hut", Map.of("tests", Map.of("failed", 0L))))));
    }
}
