package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
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
            List.of(new Judgement(Judgement.State.ASKED, "0 of 1 approval", "", Optional.empty())), Optional.empty(),
            Optional.empty());
    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");
    private static final PlaceSnapshot EMPTY = new PlaceSnapshot(Optional.empty(), List.of());
    private static final PlaceSnapshot LIVE = new PlaceSnapshot(
            Optional.of(new PlaceSnapshot.Live(1, "1.4.1", 7, 1, Optional.empty())), List.of());

    private final List<PlaceEffect> effects = new ArrayList<>();

    private static DeploymentState wanted(long id, String version, long order) {
        return wanted(id, version, order, OnFailure.UNDO, WayBack.NONE);
    }

    private static DeploymentState wanted(long id, String version, long order, OnFailure failure, WayBack back) {
        return new DeploymentState(id, version, 7, order, Kind.PROMOTION, false, DeploymentStatus.WAITING,
                List.of(HostState.ahead("north-hut"), HostState.ahead("ridge-hut")), failure, back, Optional.empty(),
                null, null);
    }

    private PlaceSnapshot after(PlaceSnapshot state, PlaceEvent... events) {
        PlaceSnapshot now = state;
        for (PlaceEvent event : events) {
            Decision<PlaceSnapshot, PlaceEffect> decision = PlaceDecider.decide(now, event, NOW);
            assertInstanceOf(Decision.Moved.class, decision, () -> event + " was refused: " + decision);
            Decision.Moved<PlaceSnapshot, PlaceEffect> moved = (Decision.Moved<PlaceSnapshot, PlaceEffect>) decision;
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

    private static DeploymentStatus status(PlaceSnapshot place, long id) {
        return place.deployment(id).orElseThrow().status();
    }

    private PlaceSnapshot deploying(PlaceSnapshot place, DeploymentState deployment) {
        return after(place, asked(deployment), gates(Map.of(deployment.id(), Verdict.OPEN)));
    }

    private PlaceSnapshot checking(PlaceSnapshot place, DeploymentState deployment) {
        return after(deploying(place, deployment), done(deployment.id(), "north-hut", HostTask.INSTALL),
                done(deployment.id(), "ridge-hut", HostTask.INSTALL));
    }

    /** What somebody went past in an emergency neither ends it nor keeps it waiting; anything else it does. */
    @Test
    void anEmergencyBeginsWhateverItsGateSays() {
        Verdict rejected = new Verdict(List.of(), Optional.of("anna said no"), Optional.empty());
        Verdict expired = new Verdict(List.of(), Optional.empty(), Optional.of("nobody decided"));
        Map<Verdict, DeploymentStatus> otherwise = Map.of(SHUT, DeploymentStatus.WAITING, rejected,
                DeploymentStatus.REJECTED, expired, DeploymentStatus.EXPIRED);
        otherwise.forEach((verdict, status) -> {
            assertEquals(status, judged(false, verdict));
            assertEquals(DeploymentStatus.DEPLOYING, judged(true, verdict));
        });
    }

    private DeploymentStatus judged(boolean emergency, Verdict verdict) {
        DeploymentState plain = wanted(2, "1.4.2", 2);
        DeploymentState asked = new DeploymentState(2, "1.4.2", 7, 2, Kind.PROMOTION, false, DeploymentStatus.WAITING,
                plain.hosts(), OnFailure.UNDO, WayBack.NONE, Optional.empty(), null,
                new DeploymentState.Terms(emergency, Optional.empty(), false, Optional.empty()));
        return after(EMPTY, new PlaceEvent.Requested(asked), new PlaceEvent.GatesJudged(Map.of(2L, verdict)))
                .deployment(2).orElseThrow().status();
    }

    @Test
    void hostsAreInstalledTogetherThenCheckedThenItIsLive() {
        PlaceSnapshot live = after(checking(LIVE, wanted(2, "1.4.2", 2)), done(2, "north-hut", HostTask.CHECK),
                done(2, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.LIVE, status(live, 2));
        assertEquals(2, live.live().orElseThrow().deployment());
        assertTrue(effects.contains(new PlaceEffect.WentLive(2)));
        assertEquals(new PlaceSnapshot.Has(2, true, NOW), live.hosts().get("north-hut"));
    }

    @Test
    void aShutGateHoldsAndAnOpenOneStarts() {
        PlaceSnapshot waiting = after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, SHUT)));
        assertEquals(DeploymentStatus.WAITING, status(waiting, 2));
        assertEquals(DeploymentStatus.WAITING, status(after(waiting, gates(Map.of())), 2),
                "without a verdict a gate is shut");
        assertEquals(DeploymentStatus.DEPLOYING, status(after(waiting, gates(Map.of(2L, Verdict.OPEN))), 2));
    }

    @Test
    void aPlaceTakesOneDeploymentAtATime() {
        PlaceSnapshot first = deploying(LIVE, wanted(2, "1.4.2", 2));
        PlaceSnapshot second = after(first, asked(wanted(3, "1.4.3", 3)), gates(Map.of(3L, Verdict.OPEN)));
        assertEquals(DeploymentStatus.QUEUED, status(second, 3));
    }

    private static DeploymentState byItself(DeploymentState asked) {
        return new DeploymentState(asked.id(), asked.version(), asked.line(), asked.order(), asked.kind(), true,
                asked.status(), asked.hosts(), asked.onFailure(), asked.wayBack(),
                asked.ending(), asked.course(), asked.terms());
    }

    @ParameterizedTest
    @CsvSource({"false, false, OVERTAKEN", "true, false, OVERTAKEN", "true, true, OVERTAKEN", "false, true, WAITING"})
    void whatAPersonAskedForIsNotOvertakenByWhatNobodyAskedFor(boolean olderByItself, boolean newerByItself,
            DeploymentStatus older) {
        DeploymentState first = wanted(2, "1.4.2", 2);
        DeploymentState second = wanted(3, "1.4.3", 3);
        PlaceSnapshot place = after(LIVE, asked(olderByItself ? byItself(first) : first),
                asked(newerByItself ? byItself(second) : second));
        assertEquals(older, status(place, 2));
        assertEquals(DeploymentStatus.WAITING, status(place, 3));
    }

    @Test
    void anOlderOneThatWaitsIsOvertakenByANewerOfItsLine() {
        PlaceSnapshot place = after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, SHUT)),
                asked(wanted(3, "1.4.3", 3)));
        assertEquals(DeploymentStatus.OVERTAKEN, status(place, 2));
        assertEquals(Optional.of("overtaken by 1.4.3"), place.deployment(2).orElseThrow().ending());
    }

    @Test
    void anAutomaticDeploymentNeverGoesBackwards() {
        DeploymentState old = wanted(9, "1.4.0", 0);
        DeploymentState automatic = new DeploymentState(9, old.version(), 7, 0, Kind.PROMOTION, true,
                DeploymentStatus.WAITING, old.hosts(),
                OnFailure.UNDO, WayBack.NONE, Optional.empty(), null, null);
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(LIVE, asked(automatic), NOW));
        assertInstanceOf(Decision.Moved.class, PlaceDecider.decide(LIVE, asked(old), NOW), "a person may");
    }

    @Test
    void theSameVersionIsNotRequestedTwice() {
        PlaceSnapshot place = after(LIVE, asked(wanted(2, "1.4.2", 2)));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, asked(wanted(3, "1.4.2", 2)), NOW));
    }

    @Test
    void aFailedCheckUndoesEveryTouchedHostNewestFirst() {
        PlaceSnapshot undoing = after(checking(LIVE, wanted(2, "1.4.2", 2)),
                failed(2, "north-hut", HostTask.CHECK, true));
        assertEquals(DeploymentStatus.UNDOING, status(undoing, 2));
        assertTrue(effects.contains(new PlaceEffect.StopTask(2, "ridge-hut")));
        PlaceSnapshot stopped = after(undoing, failed(2, "ridge-hut", HostTask.CHECK, true));
        assertEquals(new PlaceEffect.OfferTask(2, "ridge-hut", HostTask.UNDO), effects.getLast());
        PlaceSnapshot half = after(stopped, done(2, "ridge-hut", HostTask.UNDO));
        assertEquals(new PlaceEffect.OfferTask(2, "north-hut", HostTask.UNDO), effects.getLast());
        PlaceSnapshot undone = after(half, done(2, "north-hut", HostTask.UNDO));
        assertEquals(DeploymentStatus.UNDONE, status(undone, 2));
        assertEquals(1, undone.live().orElseThrow().deployment());
        assertEquals(new PlaceSnapshot.Has(1, true, NOW), undone.hosts().get("north-hut"));
    }

    @Test
    void nothingTouchedMeansFailed() {
        PlaceSnapshot failed = after(deploying(LIVE, wanted(2, "1.4.2", 2)),
                failed(2, "north-hut", HostTask.INSTALL, false),
                failed(2, "ridge-hut", HostTask.INSTALL, false));
        assertEquals(DeploymentStatus.FAILED, status(failed, 2));
    }

    @Test
    void anUndoThatFailsOnOneHostGoesOnWithTheOthersAndEndsStopped() {
        PlaceSnapshot place = after(checking(LIVE, wanted(2, "1.4.2", 2)), failed(2, "north-hut", HostTask.CHECK, true),
                failed(2, "ridge-hut", HostTask.CHECK, true), failed(2, "ridge-hut", HostTask.UNDO, true));
        assertEquals(new PlaceEffect.OfferTask(2, "north-hut", HostTask.UNDO), effects.getLast());
        assertEquals(DeploymentStatus.STOPPED, status(after(place, done(2, "north-hut", HostTask.UNDO)), 2));
    }

    @Test
    void aFirstDeploymentIsTakenBackByRemovalOrStopped() {
        PlaceSnapshot removed = after(checking(EMPTY, wanted(2, "1.4.2", 2, OnFailure.UNDO, WayBack.REMOVAL)),
                failed(2, "north-hut", HostTask.CHECK, true),
                done(2, "ridge-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.REMOVE),
                done(2, "north-hut", HostTask.REMOVE));
        assertEquals(DeploymentStatus.UNDONE, status(removed, 2));
        PlaceSnapshot stopped = after(checking(EMPTY, wanted(3, "1.4.3", 3)),
                failed(3, "north-hut", HostTask.CHECK, true), done(3, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.STOPPED, status(stopped, 3));
    }

    /** What is taken away before it was ever live is removed too, while one that replaces something gets that back. */
    @Test
    void takingAwayWhatIsUnderWayEndsAsRemovedWhereItsRemovalRuns() {
        PlaceEvent removal = new PlaceEvent.RemovalAsked("the branch is gone");
        PlaceSnapshot removed = after(checking(EMPTY, wanted(2, "1.4.2", 2, OnFailure.UNDO, WayBack.REMOVAL)), removal,
                done(2, "north-hut", HostTask.CHECK), done(2, "ridge-hut", HostTask.CHECK),
                done(2, "ridge-hut", HostTask.REMOVE), done(2, "north-hut", HostTask.REMOVE));
        assertEquals(DeploymentStatus.REMOVED, status(removed, 2));
        PlaceSnapshot back = after(checking(LIVE, wanted(3, "1.4.3", 3)), removal,
                done(3, "north-hut", HostTask.CHECK), done(3, "ridge-hut", HostTask.CHECK),
                done(3, "ridge-hut", HostTask.UNDO), done(3, "north-hut", HostTask.UNDO));
        assertEquals(DeploymentStatus.UNDONE, status(back, 3));
    }

    @Test
    void onFailureStopLeavesTheHostsAsTheyAre() {
        PlaceSnapshot stopped = after(checking(LIVE, wanted(2, "1.4.2", 2, OnFailure.STOP, WayBack.NONE)),
                failed(2, "north-hut", HostTask.CHECK, true),
                done(2, "ridge-hut", HostTask.CHECK));
        assertEquals(DeploymentStatus.STOPPED, status(stopped, 2));
        assertTrue(effects.stream()
                .noneMatch(effect -> effect instanceof PlaceEffect.OfferTask offer && offer.task() == HostTask.UNDO));
    }

    /** State × cancel → state. */
    @ParameterizedTest
    @CsvSource({"WAITING, WITHDRAWN", "QUEUED, WITHDRAWN", "DEPLOYING, UNDOING", "CHECKING, UNDOING"})
    void cancelOfWhatCanBeCancelled(DeploymentStatus from, DeploymentStatus to) {
        PlaceSnapshot place = switch (from) {
            case WAITING -> after(LIVE, asked(wanted(2, "1.4.2", 2)));
            case QUEUED -> after(deploying(LIVE, wanted(8, "1.4.8", 8)), asked(wanted(2, "1.4.2", 2)),
                    gates(Map.of(2L, Verdict.OPEN)));
            case DEPLOYING -> deploying(LIVE, wanted(2, "1.4.2", 2));
            default -> checking(LIVE, wanted(2, "1.4.2", 2));
        };
        assertEquals(from, status(place, 2));
        assertEquals(to, status(after(place, new PlaceEvent.CancelAsked(2, "release-engineer")), 2));
    }

    @ParameterizedTest
    @EnumSource(value = DeploymentStatus.class, names = {"WAITING", "QUEUED", "DEPLOYING", "CHECKING"},
            mode = EnumSource.Mode.EXCLUDE)
    void cancelOfWhatCannotBeCancelledIsRefused(DeploymentStatus status) {
        PlaceSnapshot place = new PlaceSnapshot(Optional.empty(), List.of(wanted(2, "1.4.2", 2).to(status)));
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(place, new PlaceEvent.CancelAsked(2, "release-engineer"), NOW));
    }

    @Test
    void aRejectionAndAnExpiryEndIt() {
        Verdict no = new Verdict(List.of(), Optional.of("rejected by approver-1: \"no\""), Optional.empty());
        Verdict late = new Verdict(List.of(), Optional.empty(), Optional.of("nobody decided"));
        assertEquals(DeploymentStatus.REJECTED,
                status(after(LIVE, asked(wanted(2, "1.4.2", 2)), gates(Map.of(2L, no))), 2));
        assertEquals(DeploymentStatus.EXPIRED,
                status(after(LIVE, asked(wanted(3, "1.4.3", 3)), gates(Map.of(3L, late))), 3));
    }

    @Test
    void reportsOfTasksThatAreNotRunningAreRefused() {
        PlaceSnapshot place = deploying(LIVE, wanted(2, "1.4.2", 2));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, done(2, "north-hut", HostTask.CHECK), NOW));
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(place, done(2, "valley-house", HostTask.INSTALL), NOW));
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(place, done(5, "north-hut", HostTask.INSTALL), NOW));
    }

    private PlaceSnapshot live(PlaceSnapshot place, DeploymentState deployment) {
        return after(checking(place, deployment), done(deployment.id(), "north-hut", HostTask.CHECK),
                done(deployment.id(), "ridge-hut", HostTask.CHECK));
    }

    @Test
    void whatIsLiveReplacesWhatWas() {
        PlaceSnapshot second = live(live(PlaceSnapshot.EMPTY, wanted(2, "1.4.2", 2)), wanted(3, "1.4.3", 3));
        assertEquals(Optional.of(new PlaceSnapshot.Live(3, "1.4.3", 7, 3, Optional.empty())), second.live());
        assertEquals(DeploymentStatus.REPLACED, status(second, 2));
        assertEquals(Map.of(3L, new PlaceSnapshot.Live(2, "1.4.2", 7, 2, Optional.empty())), second.replaces());
    }

    @Test
    void whatWasStoppedStaysStoppedWhenAnotherIsLive() {
        DeploymentState stopped = wanted(2, "1.4.2", 2).to(DeploymentStatus.STOPPED);
        PlaceSnapshot place = new PlaceSnapshot(Optional.of(new PlaceSnapshot.Live(2, "1.4.2", 7, 2, Optional.empty())),
                List.of(stopped));
        assertEquals(DeploymentStatus.STOPPED, status(live(place, wanted(3, "1.4.3", 3)), 2));
    }

    @Test
    void onlyAPromotionOpensAPassageAndWhatIsRedeployedSettlesItToo() {
        for (Kind kind : Kind.values()) {
            effects.clear();
            DeploymentState plain = wanted(2, "1.4.2", 2);
            live(LIVE, new DeploymentState(2, plain.version(), 7, 2, kind, false, plain.status(), plain.hosts(),
                    plain.onFailure(), plain.wayBack(), Optional.empty(), null, null));
            assertEquals(kind == Kind.PROMOTION, effects.contains(new PlaceEffect.PassageOpened(2)), kind.name());
            assertEquals(kind == Kind.PROMOTION || kind == Kind.REDEPLOY, effects.contains(new PlaceEffect.Settled(2)),
                    kind.name());
            assertEquals(kind != Kind.PREVIEW, kind.reviewedIfLoosened());
        }
    }

    private static final List<Plan.Host> SIDES = List.of(new Plan.Host("north-hut", Optional.of("blue"), false),
            new Plan.Host("ridge-hut", Optional.of("green"), false));

    @Test
    void whatWasThereBeforeIsRecordedOnItsSideAlone() {
        PlaceSnapshot known = after(PlaceSnapshot.EMPTY, new PlaceEvent.Recorded(2, "1.4.2", 7, 2, SIDES));
        assertEquals(Optional.of(new PlaceSnapshot.Live(2, "1.4.2", 7, 2, Optional.of("blue"))), known.live());
        assertEquals(Map.of("north-hut", new PlaceSnapshot.Has(2, true, NOW)), known.hosts());
        assertEquals(DeploymentStatus.LIVE, status(known, 2));
        assertEquals(List.of(new PlaceEffect.PassageOpened(2)), effects);
    }

    @Test
    void nothingIsRecordedWhereSomethingIsLiveOrOnItsWay() {
        PlaceEvent recorded = new PlaceEvent.Recorded(9, "1.4.2", 7, 2, SIDES);
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(LIVE, recorded, NOW));
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(after(PlaceSnapshot.EMPTY, asked(wanted(2, "1.4.2", 2))), recorded, NOW));
    }

    @Test
    void whatAHostHasIsFoundOnlyWhereNobodyKnewIt() {
        PlaceSnapshot lost = after(deploying(LIVE, wanted(2, "1.4.2", 2)),
                failed(2, "north-hut", HostTask.INSTALL, true));
        assertEquals(new PlaceSnapshot.Has(2, false, NOW), lost.hosts().get("north-hut"));
        assertEquals(new PlaceSnapshot.Has(1, true, NOW),
                after(lost, new PlaceEvent.Found("north-hut", 1)).hosts().get("north-hut"));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(lost, new PlaceEvent.Found("ridge-hut", 1), NOW),
                "nothing was lost there");
        PlaceSnapshot known = live(LIVE, wanted(2, "1.4.2", 2));
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(known, new PlaceEvent.Found("north-hut", 1), NOW));
    }

    @Test
    void whatGoesBackMakesWhatItReplacedLiveAgain() {
        PlaceSnapshot second = live(live(PlaceSnapshot.EMPTY, wanted(2, "1.4.2", 2)), wanted(3, "1.4.3", 3));
        PlaceSnapshot back = after(second, new PlaceEvent.GoesBack(3, "its set goes back"),
                done(3, "ridge-hut", HostTask.UNDO), done(3, "north-hut", HostTask.UNDO));
        assertEquals(Optional.of(2L), back.live().map(PlaceSnapshot.Live::deployment));
        assertEquals(DeploymentStatus.UNDONE, status(back, 3));
        assertEquals(Map.of("north-hut", new PlaceSnapshot.Has(2, true, NOW), "ridge-hut",
                new PlaceSnapshot.Has(2, true, NOW)), back.hosts());
        assertTrue(effects.contains(new PlaceEffect.TakenBack(3)));
    }

    @Test
    void whatIsRemovedLeavesNothingLive() {
        PlaceSnapshot second = live(live(PlaceSnapshot.EMPTY, wanted(2, "1.4.2", 2)), wanted(3, "1.4.3", 3));
        PlaceSnapshot gone = after(second, new PlaceEvent.RemovalAsked("retired"),
                done(3, "ridge-hut", HostTask.REMOVE), done(3, "north-hut", HostTask.REMOVE));
        assertEquals(Optional.empty(), gone.live());
        assertEquals(Map.of(), gone.hosts());
        assertEquals(DeploymentStatus.REMOVED, status(gone, 3));
    }

    @Test
    void whatIsGivenAnewIsHadSinceThen() {
        PlaceSnapshot known = live(LIVE, wanted(2, "1.4.2", 2));
        PlaceSnapshot tended = after(known, new PlaceEvent.TendAsked(List.of("north-hut")));
        Decision<PlaceSnapshot, PlaceEffect> again = PlaceDecider.decide(tended, done(2, "north-hut", HostTask.INSTALL),
                NOW.plusSeconds(60));
        assertEquals(new PlaceSnapshot.Has(2, true, NOW.plusSeconds(60)),
                ((Decision.Moved<PlaceSnapshot, PlaceEffect>) again).state().hosts().get("north-hut"));
    }
}
