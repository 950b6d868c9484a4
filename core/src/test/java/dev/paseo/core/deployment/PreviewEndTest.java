package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.fail;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.api.Test;

class PreviewEndTest {

    private static final Instant NOON = Instant.parse("2026-11-28T12:00:00Z");

    private static PreviewEnd preview(boolean retired, boolean gone, boolean ever) {
        return new PreviewEnd("daylight-api", retired, "feature/fog", gone, NOON.minus(Duration.ofHours(48)),
                ever ? Optional.empty() : Optional.of(Duration.ofHours(48)), Optional.of("production"));
    }

    @ParameterizedTest
    @CsvSource(nullValues = "-", value = {
            "false, false, 0, false, -",
            "false, false, 1, false, nothing was pushed to feature/fog for 2 d",
            "false, false, 0, true, the work of feature/fog is live in production",
            "false, true, 0, false, the branch feature/fog is gone",
            "true, true, 1, true, daylight-api is retired"})
    void itEnds(boolean retired, boolean gone, int secondsLater, boolean promoted, String why) {
        assertEquals(Optional.ofNullable(why),
                preview(retired, gone, false).why(NOON.plusSeconds(secondsLater), () -> promoted));
    }

    @Test
    void withoutATimeItStaysForEverAndGitIsAskedLast() {
        assertEquals(Optional.empty(), preview(false, false, true).why(NOON.plus(Duration.ofDays(1000)), () -> false));
        preview(false, true, false).why(NOON, () -> fail("git was asked for nothing"));
    }
}
