package dev.paseo.core.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.decision.Decision;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RunDeciderTest {

    private static final StageKey COMPILE = StageKey.of("compile");
    private static final StageKey TESTS = StageKey.of("unit-tests");

    private static RunState twoStages() {
        return RunState.planned(List.of(StageState.waiting(COMPILE, List.of(), List.of("app")),
                StageState.waiting(TESTS, List.of(COMPILE), List.of())), List.of("app"));
    }

    private final List<RunEffect> effects = new ArrayList<>();

    private RunState after(RunState state, RunEvent... events) {
        RunState now = state;
        for (RunEvent event : events) {
            Decision<RunState, RunEffect> decision = RunDecider.decide(now, event);
            assertInstanceOf(Decision.Moved.class, decision, () -> event + " was refused: " + decision);
            Decision.Moved<RunState, RunEffect> moved = (Decision.Moved<RunState, RunEffect>) decision;
            now = moved.state();
            effects.addAll(moved.effects());
        }
        return now;
    }

    private static RunEvent taken(StageKey key) {
        return new RunEvent.StageTaken(key, 1);
    }

    private static RunEvent ended(StageKey key, StageOutcome outcome) {
        return new RunEvent.StageEnded(key, 1, outcome);
    }

    @Test
    void stagesRunInTheWrittenOrderAndTheVersionIsSealedAtTheEnd() {
        RunState done = after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), ended(COMPILE, new StageOutcome.Passed()),
                taken(TESTS), ended(TESTS, new StageOutcome.Passed()));
        assertEquals(RunStatus.PASSED, done.status());
        assertEquals(List.of(new RunEffect.OfferStage(COMPILE, 1), new RunEffect.OfferStage(TESTS, 1), new RunEffect.SealVersion()), effects);
    }

    @Test
    void aFailedStageMakesTheNextUnattainableAndSealsNothing() {
        RunState done = after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), ended(COMPILE, new StageOutcome.Failed("exit status 1")));
        assertEquals(RunStatus.FAILED, done.status());
        assertEquals(Optional.of("compile failed: exit status 1"), done.reason());
        assertEquals(StageStatus.SKIPPED, done.stage(TESTS).orElseThrow().status());
        assertEquals(Optional.of("unattainable: compile failed"), done.stage(TESTS).orElseThrow().reason());
        assertTrue(effects.stream().noneMatch(RunEffect.SealVersion.class::isInstance));
    }

    @Test
    void aLostStageIsFailedBecauseLost() {
        RunState done = after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), ended(COMPILE, new StageOutcome.Lost("gone")));
        assertEquals(Optional.of("lost: gone"), done.stage(COMPILE).orElseThrow().reason());
        assertEquals(RunStatus.FAILED, done.status());
    }

    @Test
    void aRunThatDoesNotDeliverWhatItsRecipeDeploysFailsWithThatSentence() {
        RunState run = RunState.planned(List.of(StageState.waiting(COMPILE, List.of(), List.of())), List.of("app"));
        RunState done = after(run, new RunEvent.Prepared(), taken(COMPILE), ended(COMPILE, new StageOutcome.Passed()));
        assertEquals(RunStatus.FAILED, done.status());
        assertEquals(Optional.of("the recipe deploys app, which no stage kept"), done.reason());
    }

    @Test
    void aRunThatCannotBePreparedFailsBeforeAnyStage() {
        RunState done = after(twoStages(), new RunEvent.PreparationFailed("no such commit"));
        assertEquals(RunStatus.FAILED, done.status());
        assertEquals(List.of(), effects);
    }

    /** State × cancel → state, and what is told to the stage that was under way. */
    @ParameterizedTest
    @CsvSource({
        "waiting,    CANCELLED,  0",
        "offered,    CANCELLED,  1",
        "running,    CANCELLING, 1",
        "cancelling, CANCELLING, 1",
        "passed,     PASSED,     0",
        "failed,     FAILED,     0",
        "cancelled,  CANCELLED,  0"})
    void cancelInEachState(String state, RunStatus expected, int stops) {
        RunState before = switch (state) {
            case "waiting" -> twoStages();
            case "offered" -> after(twoStages(), new RunEvent.Prepared());
            case "running" -> after(twoStages(), new RunEvent.Prepared(), taken(COMPILE));
            case "cancelling" -> after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), new RunEvent.CancelAsked("developer"));
            case "passed" -> after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), ended(COMPILE, new StageOutcome.Passed()),
                    taken(TESTS), ended(TESTS, new StageOutcome.Passed()));
            case "failed" -> after(twoStages(), new RunEvent.PreparationFailed("no"));
            default -> after(twoStages(), new RunEvent.CancelAsked("developer"));
        };
        Decision<RunState, RunEffect> decision = RunDecider.decide(before, new RunEvent.CancelAsked("developer"));
        if (before.status().ended()) {
            assertInstanceOf(Decision.Refused.class, decision);
            assertEquals(expected, before.status());
        } else {
            Decision.Moved<RunState, RunEffect> moved = (Decision.Moved<RunState, RunEffect>) decision;
            assertEquals(expected, moved.state().status());
            assertEquals(stops, moved.effects().stream().filter(RunEffect.StopStage.class::isInstance).count());
        }
    }

    @Test
    void aSecondCancelEndsTheStepsAtOnce() {
        after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), new RunEvent.CancelAsked("developer"), new RunEvent.CancelAsked("developer"));
        assertEquals(List.of(new RunEffect.StopStage(COMPILE, 1, false), new RunEffect.StopStage(COMPILE, 1, true)),
                effects.stream().filter(RunEffect.StopStage.class::isInstance).toList());
    }

    @Test
    void aCancelledRunIsCancelledWhenItsStageHasStopped() {
        RunState done = after(twoStages(), new RunEvent.Prepared(), taken(COMPILE), new RunEvent.CancelAsked("developer"),
                ended(COMPILE, new StageOutcome.Stopped()));
        assertEquals(RunStatus.CANCELLED, done.status());
        assertEquals(Optional.of("cancelled by developer"), done.reason());
    }

    @Test
    void resultsOfAnAttemptThatIsNotRunningAreRefused() {
        RunState running = after(twoStages(), new RunEvent.Prepared(), taken(COMPILE));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, taken(COMPILE)));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, ended(TESTS, new StageOutcome.Passed())));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, new RunEvent.StageEnded(COMPILE, 2, new StageOutcome.Passed())));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, new RunEvent.Prepared()));
    }
}
