package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StandingTest {

    /** Installing one host, live, a test, going on. */
    private static final List<Movement> PLAN = Plan.of(
            new Plan.Recipe(new Strategy.Together(), false, false, false, Optional.<Duration>empty(),
                    List.of("acceptance")),
            List.of(new Plan.Host("north-hut", Optional.empty(), false)), Optional.empty());

    private static String standings(DeploymentStatus status, int at, Optional<Integer> unsettled) {
        Course course = new Course(PLAN, at, Optional.empty(), Optional.empty(), 0, Course.Sides.NONE, 0, false,
                unsettled);
        DeploymentState state = new DeploymentState(2, "1.4.2", 1, 2, Kind.PROMOTION, true, status,
                List.of(HostState.ahead("north-hut")),
                DeploymentState.OnFailure.UNDO, DeploymentState.WayBack.PREVIOUS, Optional.empty(), course, null);
        return IntStream.range(0, PLAN.size()).mapToObj(part -> Standing.of(state, part).name())
                .collect(Collectors.joining(" "));
    }

    /**
     * State × how far it is → what is said of install, live, test, going on. Once it has ended nothing is now or ahead.
     */
    @ParameterizedTest
    @CsvSource({
            "WAITING, 0, AHEAD AHEAD AHEAD AHEAD", "QUEUED, 0, AHEAD AHEAD AHEAD AHEAD",
            "DEPLOYING, 0, NOW AHEAD AHEAD AHEAD",
            "LIVE, 2, DONE DONE NOW AHEAD", "LIVE, 4, DONE DONE DONE DONE", "UNDOING, 0, BROKEN LEFT LEFT LEFT",
            "UNDONE, 2, DONE DONE BROKEN LEFT",
            "STOPPED, 0, BROKEN LEFT LEFT LEFT", "FAILED, 0, BROKEN LEFT LEFT LEFT", "REPLACED, 2, DONE DONE LEFT LEFT",
            "REMOVED, 2, DONE DONE LEFT LEFT",
            "WITHDRAWN, 0, LEFT LEFT LEFT LEFT", "REJECTED, 0, LEFT LEFT LEFT LEFT", "EXPIRED, 0, LEFT LEFT LEFT LEFT",
            "OVERTAKEN, 0, LEFT LEFT LEFT LEFT"})
    void whatIsSaidOfEachPart(DeploymentStatus status, int at, String said) {
        assertEquals(said, standings(status, at, Optional.empty()));
    }

    @ParameterizedTest
    @CsvSource({"LIVE", "REPLACED"})
    void aTestThatFailedIsBrokenAndTheWalkDoesNotGoOn(DeploymentStatus status) {
        assertEquals("DONE DONE BROKEN LEFT", standings(status, 4, Optional.of(2)));
    }
}
