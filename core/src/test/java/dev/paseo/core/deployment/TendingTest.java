package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TendingTest {

    private static final HostContent LIVE = new HostContent("1.4.2", Map.of("LOG_LEVEL", "warn"), Map.of());
    private static final HostContent OLD = new HostContent("1.4.1", Map.of("LOG_LEVEL", "warn"), Map.of());

    private static Tending.Host host(String name, String side, boolean away, Optional<HostState> state,
            Optional<HostContent> has, boolean amiss) {
        return new Tending.Host(name, Optional.ofNullable(side), away, state, LIVE, has, amiss);
    }

    @ParameterizedTest(name = "{0}, touched {1}, the same {2}: {3}")
    @CsvSource({"AWAY, false, false, true", "AWAY, false, true, false", "FAILED, false, false, true",
            "FAILED, true, false, false", "GOOD, true, false, false", "CHECKING, true, false, false"})
    void aHostThatCameLateCatchesUpAndOneWhoseRecipeFailedWaits(HostState.Phase phase, boolean touched, boolean same,
            boolean catchesUp) {
        HostState state = new HostState("north-hut", phase, touched, Optional.empty());
        assertEquals(catchesUp, Tending
                .catchesUp(host("north-hut", null, false, Optional.of(state), Optional.of(same ? LIVE : OLD), false)));
    }

    @Test
    void aHostThatIsNewCatchesUpUnlessItHasItAlready() {
        assertEquals(true, Tending.catchesUp(host("new-hut", null, false, Optional.empty(), Optional.empty(), false)));
        assertEquals(false,
                Tending.catchesUp(host("new-hut", null, false, Optional.empty(), Optional.of(LIVE), false)));
    }

    @Test
    void aRepairIsForWhatDiffersOnTheLiveSideAndIsThere() {
        List<Tending.Host> hosts = List.of(
                host("as it should be", "blue", false, Optional.empty(), Optional.of(LIVE), false),
                host("older", "blue", false, Optional.empty(), Optional.of(OLD), false),
                host("nothing known", "blue", false, Optional.empty(), Optional.empty(), false),
                host("unhealthy", "blue", false, Optional.empty(), Optional.of(LIVE), true),
                host("in maintenance", "blue", true, Optional.empty(), Optional.of(OLD), true),
                host("on the other side", "green", false, Optional.empty(), Optional.of(OLD), true));
        assertEquals(List.of("older", "nothing known", "unhealthy"), Tending.differing(hosts, Optional.of("blue")));
        assertEquals(List.of("older", "nothing known", "unhealthy", "on the other side"),
                Tending.differing(hosts, Optional.empty()), "a place without sides");
    }
}
