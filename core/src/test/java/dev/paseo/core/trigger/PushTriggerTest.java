package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.trigger.PushTrigger.BranchRules;
import dev.paseo.core.trigger.PushTrigger.Outcome;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PushTriggerTest {

    private static final BranchRules RULES = new BranchRules(List.of("feature/*"), List.of("main"));

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "main          | trusted",
        "feature/night | not trusted",
        "season/spring | the service allows pushes to feature/*; the push was to season/spring",
        "try/metres    | the pipeline file names main, feature/*, season/*; the push was to try/metres"})
    void fileAndServiceMustAgree(String branch, String expected) {
        String found = switch (PushTrigger.decide(branch, List.of("main", "feature/*", "season/*"), RULES)) {
            case Outcome.Starts(boolean trusted) -> trusted ? "trusted" : "not trusted";
            case Outcome.StartsNothing(String reason) -> reason;
        };
        assertEquals(expected, found);
    }

    @ParameterizedTest
    @CsvSource({"main, main, true", "season/*, season/spring, true", "season/*, season/a/b, false", "season/**, season/a/b, true",
        "v?, v1, true", "v?, v12, false", "a.c, abc, false", "*, a/b, false", "'[a]', a, false"})
    void patterns(String pattern, String branch, boolean matches) {
        assertEquals(matches, new BranchPattern(pattern).matches(branch));
    }
}
