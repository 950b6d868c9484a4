package dev.paseo.core.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.pace.StageFigures.Attempt;
import dev.paseo.core.run.StageStatus;
import java.util.List;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

class StageFiguresTest {

    private static Attempt attempt(long run, int attempt, StageStatus status, long millis) {
        return new Attempt(run, "", attempt, status, millis);
    }

    @Test
    void nothingComesToNothing() {
        assertEquals(new StageFigures(0, OptionalLong.empty(), OptionalLong.empty(), 0, 0, 0, 0),
                StageFigures.of(List.of()));
        assertEquals(0, StageFigures.of(List.of(attempt(1, 1, StageStatus.CANCELLED, 5),
                attempt(2, 1, StageStatus.SKIPPED, 5))).runs());
    }

    @Test
    void whatFailsAndPassesInOneRunIsFlaky() {
        StageFigures figures = StageFigures.of(List.of(attempt(2, 2, StageStatus.PASSED, 30),
                attempt(1, 1, StageStatus.PASSED, 10), attempt(2, 1, StageStatus.FAILED, 5),
                attempt(3, 1, StageStatus.FAILED, 7), attempt(3, 2, StageStatus.FAILED, 9),
                attempt(4, 1, StageStatus.WARNED, 20), attempt(5, 1, StageStatus.PASSED, 40),
                attempt(5, 2, StageStatus.CANCELLED, 1000)));
        assertEquals(new StageFigures(5, OptionalLong.of(20), OptionalLong.of(40), 121, 1, 1, 2), figures);
    }

    @Test
    void eachVariantIsByItself() {
        StageFigures figures = StageFigures.of(List.of(new Attempt(1, "jdk=21", 1, StageStatus.FAILED, 5),
                new Attempt(1, "jdk=25", 1, StageStatus.PASSED, 5)));
        assertEquals(2, figures.runs());
        assertEquals(0, figures.flaky());
        assertEquals(1, figures.failed());
    }
}
