package dev.paseo.core.run;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RunTimesTest {

    private static final Instant NOW = Instant.parse("2026-11-28T12:00:00Z");
    private static final Duration LIMIT = Duration.ofHours(2);

    @ParameterizedTest
    @EnumSource(RunStatus.class)
    void onlyWhatIsUnderWayIsLookedAtAgain(RunStatus status) {
        boolean underWay = status == RunStatus.RUNNING || status == RunStatus.CANCELLING;
        assertEquals(underWay, RunTimes.wake(status, Optional.of(NOW), LIMIT, NOW).isPresent());
    }

    @Test
    void theLimitCountsFromTheBeginningAndTheSecondCancelFromNow() {
        Instant began = NOW.minusSeconds(60);
        assertEquals(Optional.of(began.plus(LIMIT)), RunTimes.wake(RunStatus.RUNNING, Optional.of(began), LIMIT, NOW));
        assertEquals(Optional.of(NOW.plus(LIMIT)), RunTimes.wake(RunStatus.RUNNING, Optional.empty(), LIMIT, NOW),
                "it begins now");
        assertEquals(Optional.of(NOW.plus(Duration.ofMinutes(10))),
                RunTimes.wake(RunStatus.CANCELLING, Optional.of(began), LIMIT, NOW));
    }
}
