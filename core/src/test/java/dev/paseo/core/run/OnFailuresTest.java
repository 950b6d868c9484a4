package dev.paseo.core.run;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OnFailuresTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "WARN | 0 | Passed[]",
            "WARN | 1 | Warned[reason=its steps ended well, but its report tells of 1 failed test]",
            "FAIL | 0 | Passed[]",
            "FAIL | 3 | Failed[reason=its steps ended well, but its report tells of 3 failed tests]",
            "PASS | 3 | Passed[]"})
    void reportedFailuresCountAsIsSaid(OnFailures rule, long failed, String expected) {
        assertEquals(expected, rule.outcome(failed).toString());
    }
}
