package dev.paseo.core.retirement;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.retirement.Retirement.Facts;
import dev.paseo.core.retirement.Retirement.Live;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What hinders a retirement, and what follows from one. */
class RetirementTest {

    private static final Live REMOVABLE = new Live("hut-planner", "test", "2.1", List.of("north-hut", "ridge-hut"),
            true);
    private static final Live STUCK = new Live("hut-planner", "production", "2.0", List.of("valley-house"), false);

    @Test
    void whatIsUnderWayHindersAndWhatNeedsIt() {
        Facts facts = new Facts(List.of("hut-planner#7 is running"), List.of("daylight-api has it in production"),
                List.of(), List.of());
        assertEquals(
                List.of("hut-planner#7 is running: wait for it, or cancel it", "daylight-api has it in production"),
                Retirement.hinders(facts, false));
    }

    @Test
    void whatIsLiveKeepsRunningUnlessItIsRemoved() {
        Facts facts = new Facts(List.of(), List.of(), List.of(REMOVABLE, STUCK),
                List.of("path-board no longer starts upon it"));
        assertEquals(List.of(), Retirement.hinders(facts, false));
        assertEquals(List.of("hut-planner 2.1 keeps running on north-hut, ridge-hut in test; it can be removed with it",
                "hut-planner 2.0 keeps running on valley-house in production; its recipe has no removal",
                "path-board no longer starts upon it"), Retirement.follows(facts, false));
        assertEquals(List.of(
                "the recipe of hut-planner 2.0 has no removal: it stays on valley-house in production until "
                        + "somebody takes it away by hand; retire it without removing"),
                Retirement.hinders(facts, true));
        assertEquals(List.of("hut-planner 2.1 is removed from north-hut, ridge-hut in test"),
                Retirement.follows(new Facts(List.of(), List.of(), List.of(REMOVABLE), List.of()), true));
    }
}
