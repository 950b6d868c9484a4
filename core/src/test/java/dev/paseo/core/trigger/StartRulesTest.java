package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.cause.Cause;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class StartRulesTest {

    private static final List<Cause> DOWN_THE_CHAIN = List.of(new Cause.Run("daylight-api", 4),
            new Cause.Run("sun-model", 3), new Cause.Push("sun-model", "main", "a".repeat(40), "developer"));

    @Test
    void oneEventStartsAComponentOnce() {
        assertEquals(Optional.of("the trigger before it started path-board#7 already"),
                StartRules.refusal("path-board", Optional.of(7L), List.of()));
    }

    @Test
    void whatARunLedToDoesNotStartItsComponentAgain() {
        assertEquals(Optional.empty(), StartRules.refusal("path-board", Optional.empty(), DOWN_THE_CHAIN));
        assertEquals(Optional.of("a run of sun-model led to this: it would make a cycle"),
                StartRules.refusal("sun-model", Optional.empty(), DOWN_THE_CHAIN), "at any remove");
        assertEquals(Optional.empty(), StartRules.refusal("sun-model", Optional.empty(), DOWN_THE_CHAIN.subList(2, 3)),
                "a push of it is no run of it");
    }
}
