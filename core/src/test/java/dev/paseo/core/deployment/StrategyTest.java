package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.gate.Verdict;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Deployments played through to their ends, by hosts that do what they are told or fail where the test says. */
class StrategyTest {

    private static final List<Plan.Host> HOSTS = List.of(new Plan.Host("north-hut", Optional.empty(), false),
            new Plan.Host("ridge-hut", Optional.empty(), false),
            new Plan.Host("valley-house", Optional.empty(), false));
    private static final List<Plan.Host> SIDES = List.of(new Plan.Host("north-hut", Optional.of("blue"), false),
            new Plan.Host("ridge-hut", Optional.of("green"), false));
    private static final Strategy ROLLING = new Strategy.Rolling(1, Duration.ofSeconds(10), false, 0);
    private static final Strategy BLUE_GREEN = new Strategy.BlueGreen(Duration.ofHours(1));
    private static final Strategy CANARY = new Strategy.Canary(
            List.of(new Strategy.Share(10, Duration.ofMinutes(5), Optional.empty(), false),
                    new Strategy.Share(50, Duration.ZERO, Optional.empty(), true)),
            Duration.ZERO);

    /** The failing tasks, as "TASK host"; each fails as often as it is tried. */
    private final Set<String> failing = new java.util.HashSet<>();
    private final List<String> told = new ArrayList<>();
    private Instant now = Instant.parse("2026-05-04T08:00:00Z");
    private PlaceSnapshot place = new PlaceSnapshot(
            Optional.of(new PlaceSnapshot.Live(1, "1.4.1", 7, 1, Optional.of("blue"))), List.of());
    private final Deque<PlaceEvent> due = new ArrayDeque<>();

    private void assertHas(boolean known, String host, String... why) {
        assertEquals(new PlaceSnapshot.Has(2, known, place.hosts().get(host).since()), place.hosts().get(host),
                String.join("", why));
    }

    private static DeploymentState wanted(Plan.Recipe recipe, List<Plan.Host> hosts, WayBack back, OnFailure failure) {
        boolean sided = recipe.strategy().sided();
        int mayFail = recipe.strategy() instanceof Strategy.Rolling rolling ? rolling.mayFail() : 0;
        List<Movement> plan = Plan.of(recipe, hosts, sided ? Optional.of("blue") : Optional.empty());
        return new DeploymentState(2, "1.4.2", 7, 2, Kind.PROMOTION, false, DeploymentStatus.WAITING,
                hosts.stream().map(host -> HostState.ahead(host.name())).toList(),
                failure, back, Optional.empty(),
                Course.of(plan, sided ? new Course.Sides(Optional.of("green"), Optional.of("blue")) : Course.Sides.NONE,
                        mayFail),
                null);
    }

    private static Plan.Recipe only(Strategy strategy) {
        return new Plan.Recipe(strategy, false, false, false, Optional.empty(), List.of());
    }

    private DeploymentStatus play(Plan.Recipe recipe, List<Plan.Host> hosts) {
        return play(wanted(recipe, hosts, WayBack.NONE, OnFailure.UNDO));
    }

    private DeploymentStatus play(DeploymentState deployment) {
        happens(new PlaceEvent.Requested(deployment));
        happens(new PlaceEvent.GatesJudged(Map.of(deployment.id(), Verdict.OPEN)));
        settle();
        return status();
    }

    private DeploymentStatus status() {
        return place.deployment(2).orElseThrow().status();
    }

    /** Everything that is due happens, pauses included. */
    private void settle() {
        for (int step = 0; step < 1000; step++) {
            if (!due.isEmpty()) {
                happens(due.poll());
            } else if (place.wake().isPresent()) {
                now = place.wake().get();
                happens(new PlaceEvent.TimePassed());
            } else {
                return;
            }
        }
        throw new AssertionError("it does not end: " + place);
    }

    private void happens(PlaceEvent event) {
        Decision.Moved<PlaceSnapshot, PlaceEffect> moved = assertInstanceOf(Decision.Moved.class,
                PlaceDecider.decide(place, event, now));
        place = moved.state();
        for (PlaceEffect effect : moved.effects()) {
            switch (effect) {
                case PlaceEffect.OfferTask(long id, String host, HostTask task) -> {
                    String name = (task + " " + host).strip();
                    told.add(name);
                    due.add(new PlaceEvent.HostReported(id, host, task, failing.contains(name)
                            ? new HostOutcome.Failed("exit status 1", true) : new HostOutcome.Done()));
                }
                case PlaceEffect.WithdrawTask withdrawn -> told.add("withdraw " + withdrawn.host());
                case PlaceEffect.StopTask stop -> told.add("stop " + stop.host());
                case PlaceEffect.WentLive live -> told.add("live");
                case PlaceEffect.PassageOpened opened -> assertTrue(told.contains("live"),
                        "a passage opens once it is live");
                case PlaceEffect.Settled settled -> told.add("settled");
                case PlaceEffect.NotSettled not -> told.add("not settled");
                case PlaceEffect.TakenBack back -> told.add("taken back");
            }
        }
    }

    @Test
    void rollingGoesHostByHostAndStopsAtTheFirstBadOne() {
        failing.add("CHECK north-hut");
        assertEquals(DeploymentStatus.UNDONE, play(only(ROLLING), HOSTS));
        assertEquals(List.of("INSTALL north-hut", "CHECK north-hut", "UNDO north-hut"), told);
        assertEquals(1, place.hosts().get("north-hut").deployment());
    }

    @Test
    void rollingBearsAsManyFailuresAsItSays() {
        failing.add("INSTALL ridge-hut");
        assertEquals(DeploymentStatus.LIVE, play(only(new Strategy.Rolling(1, Duration.ZERO, false, 1)), HOSTS));
        assertEquals(HostState.Phase.FAILED, place.deployment(2).orElseThrow().host("ridge-hut").orElseThrow().phase());
        assertHas(false, "ridge-hut");
        happens(new PlaceEvent.TendAsked(List.of("ridge-hut")));
        failing.clear();
        settle();
        assertHas(false, "ridge-hut", "the first tending fails as the install did");
        happens(new PlaceEvent.TendAsked(List.of("ridge-hut")));
        settle();
        assertHas(true, "ridge-hut");
        assertEquals(HostState.Phase.GOOD, place.deployment(2).orElseThrow().host("ridge-hut").orElseThrow().phase());
    }

    @Test
    void blueGreenFillsSwitchesAndClearsTheOldSideLater() {
        assertEquals(DeploymentStatus.LIVE, play(only(BLUE_GREEN), SIDES));
        assertEquals(List.of("INSTALL ridge-hut", "CHECK ridge-hut", "TRAFFIC", "live", "settled", "CLEAR north-hut"),
                told);
        assertEquals(Optional.of("green"), place.live().orElseThrow().side());
        assertFalse(place.hosts().containsKey("north-hut"));
    }

    @Test
    void blueGreenSwitchesBackInsteadOfUndoingHosts() {
        failing.add("WHOLE");
        assertEquals(DeploymentStatus.UNDONE,
                play(new Plan.Recipe(BLUE_GREEN, false, false, true, Optional.empty(), List.of()), SIDES));
        assertEquals(List.of("INSTALL ridge-hut", "CHECK ridge-hut", "TRAFFIC", "WHOLE", "TRAFFIC_BACK"), told);
        assertEquals(Optional.of("blue"), place.live().orElseThrow().side());
    }

    @Test
    void aSideThatNeverHadTrafficNeedsNoWayBack() {
        failing.add("CHECK ridge-hut");
        assertEquals(DeploymentStatus.UNDONE, play(only(BLUE_GREEN), SIDES));
        assertFalse(told.contains("TRAFFIC"));
    }

    @Test
    void aCanaryGetsMoreAndMoreAndAPersonIsAsked() {
        assertEquals(DeploymentStatus.CHECKING, play(only(CANARY), SIDES));
        assertEquals(List.of("INSTALL ridge-hut", "CHECK ridge-hut", "TRAFFIC", "WATCH ridge-hut", "TRAFFIC"), told);
        assertEquals(50, place.deployment(2).orElseThrow().course().share());
        happens(new PlaceEvent.Answered(2, "release-engineer", true));
        settle();
        assertEquals(DeploymentStatus.LIVE, status());
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(place, new PlaceEvent.Answered(2, "release-engineer", true), now));
    }

    @Test
    void aCanaryIsStoppedByItsCheckAndLosesItsShareFirst() {
        failing.add("WATCH ridge-hut");
        assertEquals(DeploymentStatus.UNDONE, play(only(CANARY), SIDES));
        assertEquals(List.of("TRAFFIC", "WATCH ridge-hut", "TRAFFIC_BACK"), told.subList(2, 5));
        assertEquals(0, place.deployment(2).orElseThrow().course().share());
    }

    @Test
    void aNoToACanaryIsTheWayBack() {
        play(only(CANARY), SIDES);
        happens(new PlaceEvent.Answered(2, "release-engineer", false));
        settle();
        assertEquals(DeploymentStatus.UNDONE, status());
        assertTrue(place.deployment(2).orElseThrow().ending().orElseThrow().contains("release-engineer said"));
    }

    @ParameterizedTest
    @CsvSource({"true, LIVE", "false, UNDONE"})
    void aShareGoesOnOnlyIfItsFactsHold(boolean hold, DeploymentStatus end) {
        Strategy canary = new Strategy.Canary(
                List.of(new Strategy.Share(10, Duration.ofMinutes(5), Optional.of("findings.errors == 0"), false)),
                Duration.ZERO);
        assertEquals(DeploymentStatus.CHECKING, play(only(canary), SIDES));
        assertEquals(Optional.of("findings.errors == 0"), place.deployment(2).orElseThrow().factsAsked());
        happens(new PlaceEvent.FactsJudged(2, hold, "findings.errors is 3."));
        settle();
        assertEquals(end, status());
        assertEquals(
                hold ? Optional.empty()
                        : Optional.of("with 10 % of the traffic, findings.errors == 0: findings.errors is 3."),
                place.deployment(2).orElseThrow().ending());
        assertInstanceOf(Decision.Refused.class,
                PlaceDecider.decide(place, new PlaceEvent.FactsJudged(2, true, ""), now));
    }

    @Test
    void trafficThatCannotBeMovedBackIsStopped() {
        failing.addAll(Set.of("TRAFFIC", "TRAFFIC_BACK"));
        assertEquals(DeploymentStatus.STOPPED, play(only(BLUE_GREEN), SIDES));
        assertTrue(place.deployment(2).orElseThrow().ending().orElseThrow().contains("could not be moved back"));
    }

    @Test
    void goingLiveIsTakenBackWhileItIsWatched() {
        failing.add("WATCH valley-house");
        assertEquals(DeploymentStatus.UNDONE, play(
                new Plan.Recipe(ROLLING, true, true, true, Optional.of(Duration.ofMinutes(5)), List.of("acceptance")),
                HOSTS));
        assertTrue(told.containsAll(List.of("ONCE_BEFORE", "ONCE_AFTER", "WHOLE", "live", "taken back",
                "UNDO valley-house", "UNDO north-hut")));
        assertFalse(told.contains("settled") || told.contains("TEST"));
        assertTrue(told.indexOf("UNDO valley-house") < told.indexOf("UNDO north-hut"), "newest first");
    }

    @Test
    void whatWasLiveBeforeHasTheTrafficOnItsOwnSideAgain() {
        happens(new PlaceEvent.Requested(wanted(only(BLUE_GREEN), SIDES, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        while (status() != DeploymentStatus.LIVE) {
            happens(due.remove());
        }
        assertEquals(Optional.of("green"), place.live().flatMap(PlaceSnapshot.Live::side));
        happens(new PlaceEvent.GoesBack(2, "its set goes back"));
        settle();
        assertEquals(new PlaceSnapshot.Live(1, "1.4.1", 7, 1, Optional.of("blue")), place.live().orElseThrow());
        assertEquals(DeploymentStatus.UNDONE, status());
    }

    @Test
    void aFailedTestChangesNothingButKeepsThePassageOpen() {
        failing.add("TEST");
        assertEquals(DeploymentStatus.LIVE, play(
                new Plan.Recipe(new Strategy.Together(), false, false, false, Optional.empty(), List.of("acceptance")),
                HOSTS));
        assertTrue(told.contains("not settled") && !told.contains("settled"));
    }

    /** What was done once × touched → how it ends when hosts were never reached. */
    @ParameterizedTest
    @CsvSource({"ONCE_BEFORE, true, STOPPED", "ONCE_BEFORE, false, FAILED"})
    void whatIsDoneOnceIsNeverUndone(String task, boolean began, DeploymentStatus end) {
        Plan.Recipe recipe = new Plan.Recipe(ROLLING, true, false, false, Optional.empty(), List.of());
        happens(new PlaceEvent.Requested(wanted(recipe, HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        due.clear();
        happens(new PlaceEvent.HostReported(2, "", HostTask.valueOf(task),
                new HostOutcome.Failed("exit status 1", began)));
        settle();
        assertEquals(end, status());
    }

    @Test
    void nothingGoesBackPastAnIrreversibleChange() {
        failing.add("CHECK north-hut");
        DeploymentState plain = wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO);
        DeploymentState barred = new DeploymentState(2, plain.version(), 7, 2, plain.kind(), false, plain.status(),
                plain.hosts(), plain.onFailure(), plain.wayBack(),
                Optional.empty(), plain.course(),
                new DeploymentState.Terms(false, Optional.of(2L), false, Optional.empty()));
        assertEquals(DeploymentStatus.STOPPED, play(barred));
        assertEquals(WayBack.BARRED, place.deployment(2).orElseThrow().wayBack());
    }

    @Test
    void whatIsLiveGoesBackWithItsSet() {
        assertEquals(DeploymentStatus.LIVE, play(only(ROLLING), HOSTS));
        happens(new PlaceEvent.GoesBack(2, "path-board of its set failed"));
        settle();
        assertEquals(DeploymentStatus.UNDONE, status());
        assertTrue(told.containsAll(List.of("UNDO valley-house", "UNDO north-hut", "taken back")), told::toString);
        assertInstanceOf(Decision.Refused.class, PlaceDecider.decide(place, new PlaceEvent.GoesBack(2, "again"), now));
    }

    @Test
    void whereNothingIsCheckedNothingIsAsked() {
        DeploymentState plain = wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO);
        DeploymentState unchecked = new DeploymentState(2, plain.version(), 7, 2, plain.kind(), false, plain.status(),
                plain.hosts(), plain.onFailure(), plain.wayBack(),
                Optional.empty(), plain.course(),
                new DeploymentState.Terms(false, Optional.empty(), false, Optional.of(true)));
        assertEquals(DeploymentStatus.LIVE, play(unchecked));
        assertTrue(told.stream().noneMatch(task -> task.startsWith("CHECK")), told::toString);
        happens(new PlaceEvent.TendAsked(List.of("valley-house")));
        settle();
        assertFalse(place.deployment(2).orElseThrow().tending());
    }

    @Test
    void aHostInMaintenanceIsLeftOutAndCatchesUpLater() {
        DeploymentState plain = wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO);
        List<HostState> hosts = plain.hosts().stream().map(
                host -> host.host().equals("valley-house") ? HostState.away("valley-house", "in maintenance") : host)
                .toList();
        assertEquals(DeploymentStatus.LIVE, play(plain.planned(hosts, plain.course())));
        assertFalse(told.contains("INSTALL valley-house"));
        happens(new PlaceEvent.TendAsked(List.of("valley-house", "new-hut")));
        settle();
        assertHas(true, "valley-house");
        assertHas(true, "new-hut");
    }

    @Test
    void aHostThatGoesIntoMaintenanceBeforeItsTurnIsLeftOut() {
        happens(new PlaceEvent.Requested(wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        happens(new PlaceEvent.HostAway("north-hut", "in maintenance: new disk", false));
        happens(new PlaceEvent.HostAway("valley-house", "in maintenance: new disk", false));
        settle();
        assertEquals(DeploymentStatus.LIVE, status());
        assertEquals(List.of("INSTALL north-hut", "CHECK north-hut", "INSTALL ridge-hut", "CHECK ridge-hut", "live",
                "settled"), told, "whose turn has come goes on");
        assertEquals(HostState.Phase.AWAY,
                place.deployment(2).orElseThrow().host("valley-house").orElseThrow().phase());
    }

    @Test
    void whatAnAgentHasNotTakenIsWithdrawnAndTheOthersGoOn() {
        happens(new PlaceEvent.Requested(wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        due.clear();
        happens(new PlaceEvent.HostAway("north-hut", "in maintenance: new disk", true));
        settle();
        assertEquals(DeploymentStatus.LIVE, status());
        assertEquals(HostState.Phase.AWAY, place.deployment(2).orElseThrow().host("north-hut").orElseThrow().phase());
        assertTrue(told.containsAll(List.of("withdraw north-hut", "INSTALL ridge-hut", "INSTALL valley-house"))
                && !told.contains("CHECK north-hut"), told::toString);
    }

    @Test
    void theLastHostIsNotLeftOut() {
        failing.add("INSTALL north-hut");
        failing.add("INSTALL ridge-hut");
        happens(new PlaceEvent.Requested(
                wanted(only(new Strategy.Rolling(1, Duration.ZERO, false, 2)), HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        happens(due.poll());
        happens(due.poll());
        happens(new PlaceEvent.HostAway("valley-house", "in maintenance: new disk", false));
        settle();
        assertTrue(told.contains("INSTALL valley-house"), told::toString);
    }

    @Test
    void anotherDeploymentEndsTheWatchOfTheLiveOne() {
        Plan.Recipe watched = new Plan.Recipe(ROLLING, false, false, false, Optional.of(Duration.ofMinutes(5)),
                List.of());
        happens(new PlaceEvent.Requested(wanted(watched, HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        while (status() != DeploymentStatus.LIVE) {
            happens(due.isEmpty() ? new PlaceEvent.TimePassed() : due.poll());
            now = place.wake().orElse(now);
        }
        due.clear();
        DeploymentState base = wanted(only(ROLLING), HOSTS, WayBack.NONE, OnFailure.UNDO);
        DeploymentState automatic = new DeploymentState(3, "1.4.3", 7, 3, Kind.PROMOTION, true,
                DeploymentStatus.WAITING, base.hosts(), OnFailure.UNDO, WayBack.NONE,
                Optional.empty(), base.course(), null);
        happens(new PlaceEvent.Requested(automatic));
        happens(new PlaceEvent.GatesJudged(Map.of(3L, Verdict.OPEN)));
        assertEquals(DeploymentStatus.QUEUED, place.deployment(3).orElseThrow().status(),
                "by itself it waits until what is live is settled");
        DeploymentState asked = new DeploymentState(4, "1.4.4", 7, 4, Kind.PROMOTION, false, DeploymentStatus.WAITING,
                base.hosts(), OnFailure.UNDO, WayBack.NONE,
                Optional.empty(), base.course(), null);
        happens(new PlaceEvent.Requested(asked));
        happens(new PlaceEvent.GatesJudged(Map.of(4L, Verdict.OPEN)));
        assertEquals(DeploymentStatus.DEPLOYING, place.deployment(4).orElseThrow().status());
        assertEquals(DeploymentStatus.OVERTAKEN, place.deployment(3).orElseThrow().status());
        assertTrue(told.contains("stop north-hut"));
        assertFalse(place.deployment(2).orElseThrow().anyBusy());
    }

    @Test
    void whatIsLiveIsRemovedAndAgainWhereThatFailed() {
        play(only(ROLLING), HOSTS);
        failing.add("REMOVE ridge-hut");
        happens(new PlaceEvent.RemovalAsked("the branch is gone"));
        settle();
        assertEquals(DeploymentStatus.STOPPED, status());
        assertFalse(place.hosts().containsKey("north-hut"));
        failing.clear();
        happens(new PlaceEvent.RemovalAsked("the branch is gone"));
        settle();
        assertEquals(DeploymentStatus.REMOVED, status());
        assertFalse(place.hosts().containsKey("ridge-hut"));
        assertTrue(told.contains("taken back"));
    }

    /**
     * The traffic is just being moved on when somebody cancels: whatever comes of that, it is moved back afterwards.
     */
    @ParameterizedTest
    @CsvSource({"true", "false"})
    void aCancelWhileTheTrafficIsMovedOnMovesItBack(boolean moved) {
        play(only(CANARY), SIDES);
        happens(new PlaceEvent.Answered(2, "release-engineer", true));
        assertEquals("TRAFFIC", told.getLast());
        due.clear();
        happens(new PlaceEvent.CancelAsked(2, "release-engineer"));
        assertEquals(DeploymentStatus.UNDOING, status());
        happens(new PlaceEvent.HostReported(2, "", HostTask.TRAFFIC,
                moved ? new HostOutcome.Done() : new HostOutcome.Failed("stopped", true)));
        assertEquals("TRAFFIC_BACK", told.getLast());
        settle();
        assertEquals(DeploymentStatus.UNDONE, status());
    }

    @Test
    void aHostThatIsTendedWhileTheOthersAreWatchedHoldsNothingUp() {
        Plan.Recipe watched = new Plan.Recipe(new Strategy.Rolling(1, Duration.ZERO, false, 1), false, false, false,
                Optional.of(Duration.ofMinutes(5)), List.of());
        failing.add("INSTALL ridge-hut");
        happens(new PlaceEvent.Requested(wanted(watched, HOSTS, WayBack.NONE, OnFailure.UNDO)));
        happens(new PlaceEvent.GatesJudged(Map.of(2L, Verdict.OPEN)));
        while (status() != DeploymentStatus.LIVE) {
            happens(due.poll());
        }
        failing.clear();
        happens(new PlaceEvent.TendAsked(List.of("ridge-hut")));
        settle();
        assertTrue(told.contains("settled"), told::toString);
        assertFalse(place.deployment(2).orElseThrow().anyBusy());
    }
}
