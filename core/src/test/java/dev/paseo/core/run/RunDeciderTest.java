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
        return RunState.planned(List.of(StageState.waiting(COMPILE, StageDependencies.on(), List.of("app")),
                StageState.waiting(TESTS, StageDependencies.on(COMPILE), List.of())), List.of("app"));
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
        RunState done = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                ended(COMPILE, new StageOutcome.Passed()),
                taken(TESTS), ended(TESTS, new StageOutcome.Passed()));
        assertEquals(RunStatus.PASSED, done.status());
        assertEquals(List.of(new RunEffect.OfferStage(COMPILE, 1), new RunEffect.OfferStage(TESTS, 1),
                new RunEffect.SealVersion()), effects);
    }

    @Test
    void aFailedStageMakesTheNextUnattainableAndSealsNothing() {
        RunState done = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                ended(COMPILE, new StageOutcome.Failed("exit status 1")));
        assertEquals(RunStatus.FAILED, done.status());
        assertEquals(Optional.of("compile failed: exit status 1"), done.reason());
        assertEquals(StageStatus.SKIPPED, done.stage(TESTS).orElseThrow().status());
        assertEquals(Optional.of("unattainable: compile failed"), done.stage(TESTS).orElseThrow().reason());
        assertTrue(effects.stream().noneMatch(RunEffect.SealVersion.class::isInstance));
    }

    @Test
    void aLostStageIsFailedBecauseLost() {
        RunState done = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                ended(COMPILE, new StageOutcome.Lost("gone")));
        assertEquals(Optional.of("lost: gone"), done.stage(COMPILE).orElseThrow().reason());
        assertEquals(RunStatus.FAILED, done.status());
    }

    @Test
    void aRunThatDoesNotDeliverWhatItsRecipeDeploysFailsWithThatSentence() {
        RunState run = RunState.planned(List.of(StageState.waiting(COMPILE, StageDependencies.on(), List.of())),
                List.of("app"));
        RunState done = after(run, new RunEvent.Prepared(true), taken(COMPILE),
                ended(COMPILE, new StageOutcome.Passed()));
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
            case "offered" -> after(twoStages(), new RunEvent.Prepared(true));
            case "running" -> after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE));
            case "cancelling" -> after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                    new RunEvent.CancelAsked("cancelled by developer"));
            case "passed" -> after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                    ended(COMPILE, new StageOutcome.Passed()),
                    taken(TESTS), ended(TESTS, new StageOutcome.Passed()));
            case "failed" -> after(twoStages(), new RunEvent.PreparationFailed("no"));
            default -> after(twoStages(), new RunEvent.CancelAsked("cancelled by developer"));
        };
        Decision<RunState, RunEffect> decision = RunDecider.decide(before,
                new RunEvent.CancelAsked("cancelled by developer"));
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
        after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                new RunEvent.CancelAsked("cancelled by developer"), new RunEvent.CancelAsked("cancelled by developer"));
        assertEquals(List.of(new RunEffect.StopStage(COMPILE, 1, false), new RunEffect.StopStage(COMPILE, 1, true)),
                effects.stream().filter(RunEffect.StopStage.class::isInstance).toList());
    }

    @Test
    void aCancelledRunIsCancelledWhenItsStageHasStopped() {
        RunState done = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE),
                new RunEvent.CancelAsked("cancelled by developer"),
                ended(COMPILE, new StageOutcome.Stopped()));
        assertEquals(RunStatus.CANCELLED, done.status());
        assertEquals(Optional.of("cancelled by developer"), done.reason());
    }

    @Test
    void resultsOfAnAttemptThatIsNotRunningAreRefused() {
        RunState running = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, taken(COMPILE)));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, ended(TESTS, new StageOutcome.Passed())));
        assertInstanceOf(Decision.Refused.class,
                RunDecider.decide(running, new RunEvent.StageEnded(COMPILE, 2, new StageOutcome.Passed())));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(running, new RunEvent.Prepared(true)));
    }

    private static final StageKey TIDY = StageKey.of("tidy");
    private static final StageKey RING = StageKey.of("ring");

    /** compile, unit-tests after it, tidy after whatever came of both, ring if unit-tests failed. */
    private static RunState fourStages() {
        return RunState.planned(List.of(StageState.waiting(COMPILE, StageDependencies.on(), List.of()),
                StageState.waiting(TESTS, StageDependencies.on(COMPILE), List.of()),
                StageState.waiting(TIDY, new StageDependencies(List.of(), List.of(COMPILE, TESTS), List.of()),
                        List.of()),
                StageState.waiting(RING, new StageDependencies(List.of(), List.of(), List.of(TESTS)), List.of())),
                List.of());
    }

    private static String states(RunState run) {
        return run.status() + ": " + String.join(", ", run.stages().stream()
                .map(stage -> stage.key() + " " + stage.status() + (stage.attempt() > 1 ? "/" + stage.attempt() : ""))
                .toList());
    }

    private static RunEvent passed(StageKey key) {
        return ended(key, new StageOutcome.Passed());
    }

    private static RunEvent failed(StageKey key) {
        return ended(key, new StageOutcome.Failed("exit status 1"));
    }

    private RunState failedTests() {
        return after(fourStages(), new RunEvent.Prepared(true), taken(COMPILE), passed(COMPILE), taken(TESTS),
                failed(TESTS));
    }

    @Test
    void whatRunsRegardlessAndWhatRunsOnFailureBothRunAfterAFailure() {
        assertEquals("RUNNING: compile PASSED, unit-tests FAILED, tidy READY, ring READY", states(failedTests()));
        RunState done = after(failedTests(), taken(TIDY), passed(TIDY), taken(RING), passed(RING));
        assertEquals("FAILED: compile PASSED, unit-tests FAILED, tidy PASSED, ring PASSED", states(done));
    }

    @Test
    void whatRunsOnFailureIsSkippedOnAGoodRunWhichStaysGood() {
        RunState done = after(fourStages(), new RunEvent.Prepared(true), taken(COMPILE), passed(COMPILE), taken(TESTS),
                passed(TESTS), taken(TIDY), passed(TIDY));
        assertEquals("PASSED: compile PASSED, unit-tests PASSED, tidy PASSED, ring SKIPPED", states(done));
        assertEquals(Optional.of("unattainable: unit-tests did not fail"), done.stage(RING).orElseThrow().reason());
    }

    @Test
    void aStageThatMayFailWarnsAndThoseAfterItGoOn() {
        RunState run = RunState
                .planned(List.of(StageState.waiting(COMPILE, StageDependencies.on(), List.of()).tolerated(),
                        StageState.waiting(TESTS, StageDependencies.on(COMPILE), List.of())), List.of());
        RunState done = after(run, new RunEvent.Prepared(true), taken(COMPILE), failed(COMPILE), taken(TESTS),
                passed(TESTS));
        assertEquals("WARNED: compile WARNED, unit-tests PASSED", states(done));
    }

    @Test
    void whatIsNotWantedIsSkippedAtOnceAndThoseAfterItGoOn() {
        RunState run = RunState
                .planned(List.of(
                        StageState.waiting(COMPILE, StageDependencies.on(), List.of())
                                .notWanted("branch is try/metres"),
                        StageState.waiting(TESTS, StageDependencies.on(COMPILE), List.of())), List.of());
        RunState now = after(run, new RunEvent.Prepared(true));
        assertEquals("RUNNING: compile SKIPPED, unit-tests READY", states(now));
        assertEquals("PASSED: compile SKIPPED, unit-tests PASSED", states(after(now, taken(TESTS), passed(TESTS))));
    }

    @Test
    void cancellingLetsWhatRunsRegardlessRunOnceAndASecondCancelEndsEverything() {
        RunState cancelling = after(fourStages(), new RunEvent.Prepared(true), taken(COMPILE),
                new RunEvent.CancelAsked("enough"));
        assertEquals("CANCELLING: compile RUNNING, unit-tests CANCELLED, tidy WAITING, ring CANCELLED",
                states(cancelling));
        RunState tidying = after(cancelling, ended(COMPILE, new StageOutcome.Stopped()));
        assertEquals("CANCELLING: compile CANCELLED, unit-tests CANCELLED, tidy READY, ring CANCELLED",
                states(tidying));
        assertEquals("CANCELLED: compile CANCELLED, unit-tests CANCELLED, tidy PASSED, ring CANCELLED",
                states(after(tidying, taken(TIDY), passed(TIDY))));
        assertEquals("CANCELLED: compile CANCELLED, unit-tests CANCELLED, tidy CANCELLED, ring CANCELLED",
                states(after(tidying, new RunEvent.CancelAsked("enough"))));
    }

    @Test
    void aResumedRunKeepsWhatPassedAndTriesTheRestOnceMore() {
        RunState failed = after(failedTests(), taken(TIDY), passed(TIDY), taken(RING), passed(RING));
        RunState again = after(failed, new RunEvent.ResumeAsked(), new RunEvent.TurnCame());
        assertEquals("RUNNING: compile PASSED, unit-tests READY/2, tidy WAITING/2, ring WAITING/2", states(again));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(again, taken(TESTS)), "the first attempt is over");
        RunState done = after(again, new RunEvent.StageTaken(TESTS, 2),
                new RunEvent.StageEnded(TESTS, 2, new StageOutcome.Passed()),
                new RunEvent.StageTaken(TIDY, 2), new RunEvent.StageEnded(TIDY, 2, new StageOutcome.Passed()));
        assertEquals("PASSED: compile PASSED, unit-tests PASSED/2, tidy PASSED/2, ring SKIPPED/2", states(done));
    }

    @Test
    void onlyWhatFailedOrWasCancelledCanBeResumed() {
        RunState good = after(twoStages(), new RunEvent.Prepared(true), taken(COMPILE), passed(COMPILE), taken(TESTS),
                passed(TESTS));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(good, new RunEvent.ResumeAsked()));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(twoStages(), new RunEvent.ResumeAsked()));
        assertInstanceOf(Decision.Refused.class, RunDecider
                .decide(after(twoStages(), new RunEvent.PreparationFailed("no")), new RunEvent.ResumeAsked()));
        RunState nothingDelivered = after(
                RunState.planned(List.of(StageState.waiting(COMPILE, StageDependencies.on(), List.of())),
                        List.of("app")),
                new RunEvent.Prepared(true), taken(COMPILE), passed(COMPILE));
        assertInstanceOf(Decision.Refused.class, RunDecider.decide(nothingDelivered, new RunEvent.ResumeAsked()));
    }

    @Test
    void aStageAfterOneWithVariantsWaitsForAllOfThem() {
        RunState run = RunPlan.of(List.of(
                new RunPlan.Planned("unit-tests", List.of(), List.of(), List.of(),
                        List.of(new RunPlan.Variant("UTC", List.of(), Optional.empty()),
                                new RunPlan.Variant("Auckland", List.of(), Optional.empty())),
                        false),
                new RunPlan.Planned("pack", List.of("unit-tests"), List.of(), List.of(),
                        List.of(new RunPlan.Variant("", List.of(), Optional.empty())), false)),
                List.of());
        StageKey utc = new StageKey("unit-tests", "UTC");
        RunState one = after(run, new RunEvent.Prepared(true), taken(utc), passed(utc));
        assertEquals("RUNNING: unit-tests UTC PASSED, unit-tests Auckland READY, pack WAITING", states(one));
    }
}
