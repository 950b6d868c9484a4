package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.HostHealth.Change;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class HostHealthTest {

    private static final Instant NOON = Instant.parse("2026-11-28T12:00:00Z");

    private static HostHealth looked(HostHealth health, int times, boolean failing, int from) {
        HostHealth now = health;
        for (int at = 0; at < times; at++) {
            now = now.seen(failing, Optional.empty(), NOON.plusSeconds(from + at));
        }
        return now;
    }

    @Test
    void threeLooksInARowMakeItUnhealthyAndOneGoodOneMendsIt() {
        HostHealth two = looked(HostHealth.UNSEEN, 2, true, 0);
        assertEquals(Optional.empty(), two.unhealthySince());
        HostHealth three = two.seen(true, Optional.empty(), NOON.plusSeconds(2));
        assertEquals(Optional.of(NOON.plusSeconds(2)), three.unhealthySince());
        assertEquals(List.of(Change.UNHEALTHY), three.since(two));
        HostHealth five = looked(three, 2, true, 3);
        assertEquals(three.unhealthySince(), five.unhealthySince(), "since the third, not since the last");
        assertEquals(List.of(), five.since(three));
        HostHealth good = five.seen(false, Optional.empty(), NOON.plusSeconds(9));
        assertEquals(HostHealth.UNSEEN, good);
        assertEquals(List.of(Change.HEALTHY_AGAIN), good.since(five));
        assertEquals(Optional.empty(),
                looked(looked(HostHealth.UNSEEN, 2, true, 0).seen(false, Optional.empty(), NOON), 2, true, 5)
                        .unhealthySince(),
                "not in a row");
    }

    @Test
    void driftCountsAtOnceAndSinceItBegan() {
        HostHealth one = HostHealth.UNSEEN.seen(false, Optional.of("app has other bytes"), NOON);
        assertEquals(List.of(Change.DRIFT), one.since(HostHealth.UNSEEN));
        HostHealth other = one.seen(false, Optional.of("lib is not there"), NOON.plusSeconds(5));
        assertEquals(Optional.of(NOON), other.driftedSince());
        assertEquals(List.of(), other.since(one), "it is told once");
        assertEquals(List.of(Change.DRIFT_ENDED),
                other.seen(false, Optional.empty(), NOON.plusSeconds(9)).since(other));
    }

    /** Whatever is seen: it is unhealthy exactly when the last three looks, or more, found something failing. */
    @Test
    void itIsUnhealthyExactlyAfterThreeFailuresInARow() {
        Random random = new Random(28);
        List<Boolean> seen = new ArrayList<>();
        HostHealth health = HostHealth.UNSEEN;
        for (int at = 0; at < 5_000; at++) {
            boolean failing = random.nextInt(3) > 0;
            seen.add(failing);
            health = health.seen(failing, Optional.empty(), NOON.plusSeconds(at));
            boolean three = seen.size() >= 3
                    && seen.subList(seen.size() - 3, seen.size()).stream().allMatch(each -> each);
            assertEquals(three, health.unhealthySince().isPresent());
        }
    }

    /** Which hosts catch up by themselves: those that never took what they were to do. */
    @ParameterizedTest
    @EnumSource(HostState.Phase.class)
    void whoeverWasAwayCatchesUp(HostState.Phase phase) {
        assertEquals(phase == HostState.Phase.AWAY || phase == HostState.Phase.FAILED,
                new HostState("north-hut", phase, false, Optional.empty()).late());
        assertEquals(phase == HostState.Phase.AWAY, new HostState("north-hut", phase, true, Optional.empty()).late(),
                "one whose recipe failed waits for a person");
    }
}
