package dev.paseo.core.deployment;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Assertions;

/** Whatever is asked, judged, reported and cancelled at a place, these hold. */
class PlacePropertiesTest {

    private static final Verdict SHUT = new Verdict(
            List.of(new Judgement(Judgement.State.ASKED, "0 of 1 approval", "", Optional.empty())), Optional.empty(),
            Optional.empty());
    private static final Instant NOW = Instant.parse("2026-05-04T08:00:00Z");
    private static final List<String> HOSTS = List.of("north-hut", "ridge-hut", "valley-house");

    private static final List<Strategy> STRATEGIES = List
            .of(new Strategy.Together(), new Strategy.Rolling(1, Duration.ofSeconds(10), false, 1),
                    new Strategy.Rolling(2, Duration.ZERO, true, 0), new Strategy.BlueGreen(Duration.ofHours(1)),
                    new Strategy.Canary(
                            List.of(new Strategy.Share(10, Duration.ofMinutes(5), Optional.of("tests.failed == 0"),
                                    false), new Strategy.Share(50, Duration.ZERO, Optional.empty(), true)),
                            Duration.ZERO));

    private static DeploymentState wanted(long id, boolean automatic, OnFailure failure, Strategy strategy) {
        List<Plan.Host> hosts = HOSTS.stream()
                .map(name -> new Plan.Host(name, Optional.of(name.equals("valley-house") ? "green" : "blue"), false))
                .toList();
        List<Movement> plan = Plan.of(
                new Plan.Recipe(strategy, true, true, true, Optional.of(Duration.ofMinutes(1)), List.of("acceptance")),
                hosts, Optional.of("green"));
        Course.Sides sides = strategy.sided() ? new Course.Sides(Optional.of("blue"), Optional.of("green"))
                : Course.Sides.NONE;
        return new DeploymentState(id, "1.4." + id, 7, id, Kind.PROMOTION, automatic, DeploymentStatus.WAITING,
                HOSTS.stream().map(HostState::ahead).toList(), failure, WayBack.REMOVAL, Optional.empty(),
                Course.of(plan, sides, 0), null);
    }

    @Provide
    Arbitrary<List<PlaceEvent>> events() {
        Arbitrary<Long> ids = Arbitraries.longs().between(1, 5);
        Arbitrary<PlaceEvent> requests = Combinators
                .combine(ids, Arbitraries.of(true, false), Arbitraries.of(OnFailure.values()),
                        Arbitraries.of(STRATEGIES))
                .as((id, automatic, failure,
                        strategy) -> new PlaceEvent.Requested(wanted(id, automatic, failure, strategy)));
        Arbitrary<PlaceEvent> gates = Arbitraries.of(Verdict.OPEN, SHUT).list().ofSize(5).map(verdicts -> {
            Map<Long, Verdict> byId = new HashMap<>();
            for (int at = 0; at < verdicts.size(); at++) {
                byId.put(at + 1L, verdicts.get(at));
            }
            return new PlaceEvent.GatesJudged(byId);
        });
        Arbitrary<HostOutcome> outcomes = Arbitraries.of(new HostOutcome.Done(), new HostOutcome.Done(),
                new HostOutcome.Done(),
                new HostOutcome.Failed("no", true), new HostOutcome.Failed("no", false));
        Arbitrary<PlaceEvent> reports = Combinators
                .combine(ids, Arbitraries.of(HOSTS), Arbitraries.of(HostTask.values()), outcomes)
                .as((id, host, task, outcome) -> new PlaceEvent.HostReported(id, task.ofPlace() ? "" : host, task,
                        outcome));
        Arbitrary<PlaceEvent> others = Arbitraries.oneOf(Arbitraries.just(new PlaceEvent.TimePassed()),
                Combinators.combine(ids, Arbitraries.of(true, false))
                        .as((id, yes) -> new PlaceEvent.Answered(id, "release-engineer", yes)),
                Combinators.combine(ids, Arbitraries.of(true, false))
                        .as((id, hold) -> new PlaceEvent.FactsJudged(id, hold, "tests.failed is 1.")),
                Arbitraries.of(HOSTS).map(host -> new PlaceEvent.HostAway(host, "in maintenance", false)),
                Arbitraries.of(HOSTS).map(host -> new PlaceEvent.TendAsked(List.of(host))));
        Arbitrary<PlaceEvent> cancels = ids.map(id -> new PlaceEvent.CancelAsked(id, "release-engineer"));
        return Arbitraries.frequencyOf(net.jqwik.api.Tuple.of(3, requests), net.jqwik.api.Tuple.of(4, gates),
                net.jqwik.api.Tuple.of(30, reports), net.jqwik.api.Tuple.of(5, others),
                net.jqwik.api.Tuple.of(1, cancels)).list().ofMaxSize(120);
    }

    @Property
    void onlyOneAtATimeNeverThroughAShutGateNeverBackwardsByItself(@ForAll("events") List<PlaceEvent> events) {
        PlaceSnapshot now = new PlaceSnapshot(Optional.empty(), List.of());
        Set<Long> used = new HashSet<>();
        for (PlaceEvent event : events) {
            if (event instanceof PlaceEvent.Requested(DeploymentState wanted) && !used.add(wanted.id())) {
                continue;
            }
            if (PlaceDecider.decide(now, event, NOW) instanceof Decision.Moved(PlaceSnapshot next, var effects)) {
                check(now, event, next);
                now = next;
            }
        }
    }

    private static void check(PlaceSnapshot before, PlaceEvent event, PlaceSnapshot after) {
        after.live()
                .ifPresent(live -> Assertions.assertTrue(
                        after.deployment(live.deployment())
                                .filter(deployment -> deployment.status() == DeploymentStatus.LIVE
                                        || deployment.status() == DeploymentStatus.UNDOING
                                        || deployment.status() == DeploymentStatus.STOPPED
                                        || deployment.status() == DeploymentStatus.REPLACED)
                                .isPresent(),
                        () -> "what is live never went live: " + after));
        Assertions.assertTrue(after.open().stream().filter(deployment -> deployment.status() == DeploymentStatus.LIVE)
                .allMatch(deployment -> after.live().filter(live -> live.deployment() == deployment.id()).isPresent()),
                "live, but not what is live there");
        after.hosts()
                .forEach((host, has) -> Assertions.assertTrue(
                        after.deployment(has.deployment()).filter(deployment -> !deployment.status().ahead())
                                .isPresent(),
                        () -> host + " has what was never begun"));
        Assertions.assertTrue(after.open().stream().filter(deployment -> deployment.status().active()).count() <= 1,
                "two at a time");
        for (DeploymentState deployment : after.open()) {
            Optional<DeploymentState> earlier = before.deployment(deployment.id());
            boolean started = (deployment.status() == DeploymentStatus.DEPLOYING
                    || deployment.status() == DeploymentStatus.CHECKING)
                    && earlier.filter(old -> old.status().active()).isEmpty();
            if (started) {
                PlaceEvent.GatesJudged judged = Assertions.assertInstanceOf(PlaceEvent.GatesJudged.class, event,
                        "started by something else");
                Assertions.assertTrue(judged.verdicts().get(deployment.id()).open(), "started through a shut gate");
                Assertions.assertFalse(deployment.automatic()
                        && before.live().filter(live -> live.order() > deployment.order()).isPresent()
                        && earlier.isEmpty(), "went backwards by itself");
            }
            boolean ended = !deployment.status().open() && deployment.status() != DeploymentStatus.LIVE;
            Assertions.assertFalse(ended && deployment.anyBusy(), "ended while something is running");
            earlier.filter(old -> !old.status().open() && old.status() != DeploymentStatus.LIVE)
                    .ifPresent(old -> Assertions.assertEquals(old, deployment, "an ended one changed"));
        }
    }
}
