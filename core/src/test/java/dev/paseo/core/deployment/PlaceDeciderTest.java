package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.deployment.PlaceEffect.Content;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class PlaceDeciderTest {

    private static final Verdict SHUT = new Verdict(
            List.of(new Judgement(Judgement.State.ASKED, "0 of 1 approval", "", Optional.empty())), Optional.empty(), Optional.empty());
    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");
    private static final PlaceState EMPTY = new PlaceState(Optional.empty(), List.of());
    private static final PlaceState LIVE = new PlaceState(Optional.of(new PlaceState.Live(1, "1.4.1", 7, 1, Optional.empty())), List.of());

    private final List<PlaceEffect> effects = new ArrayList<>();

    private static DeploymentState wanted(long id, String version, long order) {
        return wanted(id, version, order, OnFailure.UNDO, WayBack.NONE);
    }

    private static DeploymentState wanted(long id, String version, long order, OnFailure failure, WayBack back) {
        return new DeploymentState(id, version, 7, order, Kind.PROMOTION, false, DeploymentStatus.WAITING,
                List.of(HostState.ahead("north-hut"), HostState.ahead("ridge-hut")), failure, back, Optional.empty(), null, null);
    }

    private PlaceState after(PlaceState state, PlaceEvent... events) {
        PlaceState now = state;
        for (PlaceEvent event : events) {
            Decision<PlaceState, PlaceEffect> decision = PlaceDecider.decide(now, event, NOW);
            assertInstanceOf(Decision.Moved.class, decision, () -> event + " was refused: " + decision);
            Decision.Moved<PlaceState, PlaceEffect> moved = (Decision.Moved<PlaceState, PlaceEffect>) decision;
            now = moved.state();
            effects.addAll(moved.effects());
        }
        return now;
    }

    private static PlaceEvent asked(DeploymentState deployment) {
        return new PlaceEvent.Requested(deployment);
    }

    private static PlaceEvent gates(Map<Long, Verdict> verdicts) {
        return new PlaceEvent.GatesJudged(verdicts);
    }

    private static PlaceEvent done(long id, String host, HostTask task) {
        return new PlaceEvent.HostReported(id, host, task, new HostOutcome.Done());
    }

    private static PlaceEvent failed(long id, String host, HostTask task, boolean touched) {
        return new PlaceEvent.HostReported(id, host, task, new HostOutcome.Failed("exit status 1", touched));
    }

    private static DeploymentStatus status(PlaceState place, long id) {
        return place.deployment(id).orElseThrow().status();
    }

    private PlaceState deploying(PlaceState place, DeploymentState deployment) {
        return after(place, asked(deployment), gates(Map.of(deployment.id(), Verdict.OPEN)));
    }

    private PlaceState checking(PlaceState place, DeploymentState deployment) {
        return after(deploying(place, deployment), done(deployment.id(), "north-hut", HostTask.INSTALL), done(deployment.id(), "ridge-hut", HostTask.INSTALL));
    }

    @Test
    void hostsAreInstalledTogetherThenCheckedThenItIsLive() {
        PlaceState live = after(checking(LIVE, wanted(2, "1.4.2", 2)), done(2, "north-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.LIVE, status(live, 2));
        assertEquals(2, live.live().orElseThrow().deployment());
        assertTrue(effects.contains(new PlaceEffect.WentLive(2)));
        assertTrue(effects.contains(new PlaceEffect.HostHas(2, "north-hut", Content.THIS_VERSION)));
    }

    @Test
    void aShutGateHoldsAndAnOpenOneStarts() {
        PlaceState waiting = after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, SHUT)));
        assertEquals(DeploymentStatus.WAITING, status(waiting, 2));
        assertEquals(DeploymentStatus.WAITING, status(after(waiting, gates(Map.of())), 2), "without a verdict a gate is shut");
        assertEquals(DeploymentStatus.DEPLOYING, status(after(waiting, gates(Map.of(2L, Verdict.OPEN))), 2));
    }

    @Test
    void aPlaceTakesOneDeploymentAtATime() {
        PlaceState first = deploying(LIVE, wanted(2, "1.4.2", 2));
        PlaceState second = after(first, asked(wanted(3, "1.4.3", 3)), gates(Map.of(3L, Verdict.OPEN)));
        assertEquals(DeploymentStatus.QUEUED, status(second, 3));
    }

    private static DeploymentState byItself(DeploymentState asked) {
        return new DeploymentState(asked.id(), asked.version(), asked.line(), asked.order(), asked.kind(), true, asked.status(), asked.hosts(), asked.onFailure(), asked.wayBack(),
                asked.ending(), asked.course(), asked.terms());
    }

    @ParameterizedTest
    @CsvSource({"false, false, OVERTAKEN", "true, false, OVERTAKEN", "true, true, OVERTAKEN", "false, true, WAITING"})
    void whatAPersonAskedForIsNotOvertakenByWhatNobodyAskedFor(boolean olderByItself, boolean newerByItself, DeploymentStatus older) {
        DeploymentState first = wanted(2, "1.4.2", 2);
        DeploymentState second = wanted(3, "1.4.3", 3);
        PlaceState place = after(LIVE, asked(olderByItself ? byItself(first) : first), asked(newerByItself ? byItself(second) : second));
        assertEquals(older, status(place, 2));
        assertEquals(DeploymentStatus.WAITING, status(place, 3));
    }

    @Test
    void anOlderOneThatWaitsIsOvertakenByANewerOfItsLine() {
        PlaceState place = after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, SHUT)), asked(wanted(3, "1.4.3", 3)));
        assertEquals(DeploymentStatus.OVERTAKEN, status(place, 2));
        assertEquals(Optional.of("overtaken by 1.4.3"), place.deployment(2).orElseThrow().ending());
    }

    @Test
    void anAutomaticDeploymentNeverGoesBackwards() {
        DeploymentState old = wanted(9, "1.4.0", 0);
        DeploymentState automatic = new DeploymentState(9, old.version(), 7, 0, Kind.PROMOTION, true, DeploymentStatus.WAITING, old.hosts(),
                OnFailure.UNDO, WayBack.NONE, Optional.empty(), null, null);
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(LIVE, asked(automatic), NOW));
        assertInstanceOf(Decision.Moved.class, PlaceDecider.decide(LIVE, asked(old), NOW), "a person may");
    }

    @Test
    void theSameVersionIsNotRequestedTwice() {
        PlaceState place = after(LIVE, asked(wanted(2, "1.4.2", 2)));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, asked(wanted(3, "1.4.2", 2)), NOW));
    }

    @Test
    void aFailedCheckUndoesEveryTouchedHostNewestFirst() {
        PlaceState undoing = after(checking(LIVE, wanted(2, "1.4.2", 2)), failed(2, "north-hut", HostTask.CHECK, true));
        assertEquals(DeploymentStatus.UNDOING, status(undoing, 2));
        assertTrue(effects.contains(new PlaceEffect.StopTask(2, "ridge-hut")));
        PlaceState stopped = after(undoing, failed(2, "ridge-hut", HostTask.CHECK, true));
        assertEquals(new PlaceEffect.OfferTask(2, "ridge-hut", HostTask.UNDO), effects.getLast());
        PlaceState half = after(stopped, done(2, "ridge-hut", HostTask.UNDO));
        assertEquals(new PlaceEffect.OfferTask(2, "north-hut", HostTask.UNDO), effects.getLast());
        PlaceState undone = after(half, done(2, "north-hut", HostTask.UNDO));
        assertEquals(DeploymentStatus.UNDONE, status(undone, 2));
        assertEquals(1, undone.live().orElseThrow().deployment());
        assertTrue(effects.contains(new PlaceEffect.HostHas(2, "north-hut", Content.PREVIOUS_VERSION)));
    }

    @Test
    void nothingTouchedMeansFailed() {
        PlaceState failed = after(deploying(LIVE, wanted(2, "1.4.2", 2)), failed(2, "north-hut", HostTask.INSTALL, false),
                failed(2, "ridge-hut", HostTask.INSTALL, false));
        assertEquals(DeploymentStatus.FAILED, status(failed, 2));
    }

    @Test
    void anUndoThatFailsOnOneHostGoesOnWithTheOthersAndEndsStopped() {
        PlaceState place = after(checking(LIVE, wanted(2, "1.4.2", 2)), failed(2, "north-hut", HostTask.CHECK, true),
                failed(2, "ridge-hut", HostTask.CHECK, true), failed(2, "ridge-hut", HostTask.UNDO, true));
        assertEquals(new PlaceEffect.OfferTask(2, "north-hut", HostTask.UNDO), effects.getLast());
        assertEquals(DeploymentStatus.STOPPED, status(after(place, done(2, "north-hut", HostTask.UNDO)), 2));
    }

    @Test
    void aFirstDeploymentIsTakenBackByRemovalOrStopped() {
        PlaceState removed = after(checking(EMPTY, wanted(2, "1.4.2", 2, OnFailure.UNDO, WayBack.REMOVAL)), failed(2, "north-hut", HostTask.CHECK, true),
                done(2, "ridge-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.REMOVE), done(2, "north-hut", HostTask.REMOVE));
        assertEquals(DeploymentStatus.UNDONE, status(removed, 2));
        PlaceState stopped = after(checking(EMPTY, wanted(3, "1.4.3", 3)), failed(3, "north-hut", HostTask.CHECK, true), done(3, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.STOPPED, status(stopped, 3));
    }

    /** What is taken away before it was ever live is removed too, while one that replaces something gets that back. */
    @Test
    void takingAwayWhatIsUnderWayEndsAsRemovedWhereItsRemovalRuns() {
        PlaceEvent removal = new PlaceEvent.RemovalAsked("the branch is gone");
        PlaceState removed = after(checking(EMPTY, wanted(2, "1.4.2", 2, OnFailure.UNDO, WayBack.REMOVAL)), removal,
                done(2, "north-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.REMOVE), done(2, "north-hut", HostTask.REMOVE));
        assertEquals(DeploymentStatus.REMOVED, status(removed, 2));
        PlaceState back = after(checking(LIVE, wanted(3, "1.4.3", 3)), removal,
                done(3, "north-hut", HostTask.CHECK), done(3, "ridge-hut", HostTask.CHECK), done(3, "ridge-hut", HostTask.UNDO), done(3, "north-hut", HostTask.UNDO));
        assertEquals(DeploymentStatus.UNDONE, status(back, 3));
    }

    @Test
    void onFailureStopLeavesTheHostsAsTheyAre() {
        PlaceState stopped = after(checking(LIVE, wanted(2, "1.4.2", 2, OnFailure.STOP, WayBack.NONE)), failed(2, "north-hut", HostTask.CHECK, true),
                done(2, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.STOPPED, status(stopped, 2));
        assertTrue(effects.stream().noneMatch(effect -> effect instanceof PlaceEffect.OfferTask offer && offer.task() == HostTask.UNDO));
    }

    /** State × cancel → state. */
    @ParameterizedTest
    @CsvSource({"WAITING, WITHDRAWN", "QUEUED, WITHDRAWN", "DEPLOYING, UNDOING", "CHECKING, UNDOING"})
    void cancelOfWhatCanBeCancelled(DeploymentStatus from, DeploymentStatus to) {
        PlaceState place = switch (from) {
            case WAITING -> after(LIVE, asked(wanted(2, "1.4.2", 2)));
            case QUEUED -> after(deploying(LIVE, wanted(8, "1.4.8", 8)), asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, Verdict.OPEN)));
            case DEPLOYING -> deploying(LIVE, wanted(2, "1.4.2", 2));
            default -> checking(LIVE, wanted(2, "1.4.2", 2));
        };
        assertEquals(from, status(place, 2));
        assertEquals(to, status(after(place, new PlaceEvent.CancelAsked(2, "release-engineer")), 2));
    }

    @ParameterizedTest
    @EnumSource(value = DeploymentStatus.class, names = {"WAITING", "QUEUED", "DEPLOYING", "CHECKING"}, mode = EnumSource.Mode.EXCLUDE)
    void cancelOfWhatCannotBeCancelledIsRefused(DeploymentStatus status) {
        PlaceState place = new PlaceState(Optional.empty(), List.of(wanted(2, "1.4.2", 2).to(status)));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, new PlaceEvent.CancelAsked(2, "release-engineer"), NOW));
    }

    @Test
    void aRejectionAndAnExpiryEndIt() {
        Verdict no = new Verdict(List.of(), Optional.of("rejected by approver-1: \"no\""), Optional.empty());
        Verdict late = new Verdict(List.of(), Optional.empty(), Optional.of("nobody decided"));
        assertEquals(DeploymentStatus.REJECTED, status(after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, no))), 2));
        assertEquals(DeploymentStatus.EXPIRED, status(after(LIVE, asked(wanted(3, "1.4.3", 3)), gates(Map.of(3L, late))), 3));
    }

    @Test
    void reportsOfTasksThatAreNotRunningAreRefused() {
        PlaceState place = deploying(LIVE, wanted(2, "1.4.2", 2));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, done(2, "north-hut", HostTask.CHECK), NOW));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, done(2, "valley-house", HostTask.INSTALL), NOW));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, done(5, "north-hut", HostTask.INSTALL), NOW));
    }
}
