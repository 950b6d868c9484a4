package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class BranchRulesTest {

    private static final BranchRules RULES = BranchRules.of(List.of("feature/*"), List.of("main", "release/*"));

    @Test
    void aTagCountsAsOfTheMainBranchThenOfATrustedOneThenOfTheFirst() {
        assertEquals(Optional.of("main"), RULES.ofTag("main", List.of("feature/map", "release/2", "main")));
        assertEquals(Optional.of("release/2"), RULES.ofTag("main", List.of("feature/map", "release/2", "release/3")));
        assertEquals(Optional.of("feature/map"), RULES.ofTag("main", List.of("feature/map", "fog")));
        assertEquals(Optional.empty(), RULES.ofTag("main", List.of()));
    }

    @Test
    void nothingStartsWhereTheServiceDoesNotAllowIt() {
        assertEquals(Optional.empty(), RULES.refusal("feature/map"));
        assertEquals(Optional.empty(), RULES.refusal("main"));
        assertEquals(Optional.of("the service allows runs on main, release/*, feature/*; this is fog"),
                RULES.refusal("fog"));
        assertEquals(Optional.of("the service allows runs on no branch; this is fog"),
                BranchRules.of(List.of(), List.of()).refusal("fog"));
    }
}
