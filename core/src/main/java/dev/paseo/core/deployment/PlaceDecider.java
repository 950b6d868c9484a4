package dev.paseo.core.deployment;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.gate.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Decides about places: requests, the queue, and, by {@link HostProgress}, what happens on hosts. Pure. */
public final class PlaceDecider {

    private PlaceDecider() {}

    public static Decision<PlaceState, PlaceEffect> decide(PlaceState place, PlaceEvent event) {
        return switch (event) {
            case PlaceEvent.Requested(DeploymentState wanted) -> request(place, wanted);
            case PlaceEvent.GatesJudged(Map<Long, Verdict> verdicts) -> judged(place, verdicts);
            case PlaceEvent.HostReported(long id, String host, HostTask task, HostOutcome outcome) ->
                    place.deployment(id)
                            .map(deployment -> settle(place, HostProgress.reported(deployment, host, task, outcome)))
                            .orElseGet(() -> Decision.refused("deployment " + id + " has ended"));
            case PlaceEvent.CancelAsked(long id, String by) ->
                    place.deployment(id)
                            .map(deployment -> cancel(place, deployment, by))
                            .orElseGet(() -> Decision.refused("deployment " + id + " has ended"));
        };
    }

    private static Decision<PlaceState, PlaceEffect> request(PlaceState place, DeploymentState wanted) {
        for (DeploymentState other : place.open()) {
            if (other.version().equals(wanted.version()) && other.status() != DeploymentStatus.UNDOING) {
                return Decision.refused("deployment " + other.id() + " of " + wanted.version() + " is on its way there already");
            }
        }
        Optional<String> backwards = wanted.automatic() ? backwards(place, wanted) : Optional.empty();
        if (backwards.isPresent()) {
            return Decision.refused(backwards.get());
        }
        PlaceState now = place;
        for (DeploymentState other : place.open()) {
            if (other.status().ahead() && other.line() == wanted.line() && other.order() < wanted.order()) {
                now = now.with(other.because("overtaken by " + wanted.version()).to(DeploymentStatus.OVERTAKEN));
            }
        }
        return Decision.moved(now.plus(wanted), List.of());
    }

    /** An automatic deployment never goes backwards in a line. */
    private static Optional<String> backwards(PlaceState place, DeploymentState wanted) {
        Optional<String> live = place.live()
                .filter(now -> now.line() == wanted.line() && now.order() >= wanted.order())
                .map(now -> now.version() + ", which is not older, is live there");
        return live.or(() -> place.open().stream()
                .filter(other -> other.line() == wanted.line() && other.order() > wanted.order())
                .filter(other -> other.status() != DeploymentStatus.UNDOING)
                .findFirst().map(other -> other.version() + ", which is newer, is on its way there"));
    }

    private static Decision<PlaceState, PlaceEffect> judged(PlaceState place, Map<Long, Verdict> verdicts) {
        PlaceState now = place;
        List<PlaceEffect> effects = new ArrayList<>();
        for (DeploymentState deployment : place.open()) {
            if (deployment.status().ahead()) {
                // Without a verdict a gate counts as shut.
                Optional<Verdict> verdict = Optional.ofNullable(verdicts.get(deployment.id()));
                now = now.with(pass(deployment, verdict, now, effects));
            }
        }
        return Decision.moved(now, effects);
    }

    private static DeploymentState pass(
            DeploymentState deployment, Optional<Verdict> verdict, PlaceState place, List<PlaceEffect> effects) {
        if (verdict.flatMap(Verdict::rejected).isPresent()) {
            return deployment.because(verdict.get().rejected().get()).to(DeploymentStatus.REJECTED);
        }
        if (verdict.flatMap(Verdict::expired).isPresent()) {
            return deployment.because(verdict.get().expired().get()).to(DeploymentStatus.EXPIRED);
        }
        if (verdict.filter(Verdict::open).isEmpty()) {
            return deployment.to(DeploymentStatus.WAITING);
        }
        if (place.busy()) {
            return deployment.to(DeploymentStatus.QUEUED);
        }
        WayBack back = place.live().isPresent() ? WayBack.PREVIOUS : deployment.wayBack();
        HostProgress.Step started = HostProgress.start(deployment.backBy(back));
        effects.addAll(started.effects());
        return started.deployment();
    }

    private static Decision<PlaceState, PlaceEffect> cancel(PlaceState place, DeploymentState deployment, String by) {
        return switch (deployment.status()) {
            case WAITING, QUEUED -> Decision.moved(
                    place.with(deployment.because("withdrawn by " + by).to(DeploymentStatus.WITHDRAWN)), List.of());
            case DEPLOYING, CHECKING -> settle(place, Optional.of(HostProgress.retreat(deployment, "cancelled by " + by, true)));
            case UNDOING -> Decision.refused("deployment " + deployment.id() + " is being undone already");
            case LIVE, REPLACED, UNDONE, STOPPED, FAILED, REJECTED, EXPIRED, WITHDRAWN, OVERTAKEN ->
                    Decision.refused("deployment " + deployment.id() + " has ended");
        };
    }

    private static Decision<PlaceState, PlaceEffect> settle(PlaceState place, Optional<HostProgress.Step> step) {
        if (step.isEmpty()) {
            return Decision.refused("that task of that host is not running");
        }
        DeploymentState deployment = step.get().deployment();
        PlaceState now = place.with(deployment);
        List<PlaceEffect> effects = new ArrayList<>(step.get().effects());
        if (deployment.status() == DeploymentStatus.LIVE) {
            effects.add(new PlaceEffect.WentLive(deployment.id()));
            now = now.living(deployment);
        }
        return Decision.moved(now, effects);
    }
}
