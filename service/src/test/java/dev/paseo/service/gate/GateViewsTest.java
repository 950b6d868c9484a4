package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.gate.Tick;
import dev.paseo.service.problem.Refused;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class GateViewsTest {

    private static Tick tick(String outcome, String note) {
        return GateViews.tick("looked at the map", "anna", Optional.of(outcome), Optional.of(note), Instant.EPOCH);
    }

    @Test
    void anItemIsDoneFailedOrCleared() {
        assertEquals(Tick.Outcome.DONE, GateViews
                .tick("looked at the map", "anna", Optional.empty(), Optional.empty(), Instant.EPOCH).outcome());
        assertEquals("should be done, failed or cleared; got skipped",
                Refused.field("/outcome", () -> tick("skipped", "")));
        assertEquals("Say what failed", Refused.field("/note", () -> tick("failed", "  ")));
        assertEquals("the map is white", tick("failed", " the map is white ").note());
    }
}
