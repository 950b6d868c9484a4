package dev.paseo.core.deployment;

import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.deployment.HostState.Phase;
import dev.paseo.core.deployment.Movement.What;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The way back: nothing more is begun, what is running is told to stop, then what was touched is undone. */
final class Retreat {

    private Retreat() {}

    /** @param asked whether a person wants it, who then is not left with {@code on-failure: stop} */
    static Step begin(DeploymentState deployment, String why, boolean asked, List<Consequence> effects) {
        stopAll(deployment, effects);
        boolean stays = deployment.onFailure() == OnFailure.STOP && !asked;
        DeploymentState turned = deployment.because(why).to(stays ? deployment.status() : DeploymentStatus.UNDOING);
        return turned.anyBusy() ? new Step(turned, effects) : back(turned, effects);
    }

    /** What is live is removed from every host, also where an earlier removal failed. */
    static Step remove(DeploymentState live, String why, List<Consequence> effects) {
        List<HostState> again = live.hosts().stream()
                .map(host -> host.phase() == Phase.LEFT ? host.anew(Phase.GOOD) : host).toList();
        return back(live.withHosts(again).goingBackBy(WayBack.TAKEN_AWAY).because(why).to(DeploymentStatus.UNDOING),
                effects);
    }

    static void stopAll(DeploymentState deployment, List<Consequence> effects) {
        deployment.hosts().stream().filter(host -> host.phase().busy())
                .forEach(host -> effects.add(new PlaceEffect.StopTask(deployment.id(), host.host())));
        deployment.course().running().ifPresent(task -> effects.add(new PlaceEffect.StopTask(deployment.id(), "")));
    }

    /** Nothing is running: take back what comes next, or say how it ended. */
    static Step back(DeploymentState deployment, List<Consequence> effects) {
        boolean shared = deployment.course().share() > 0;
        if (!deployment.anyTouched() && !shared) {
            return ended(deployment, untouched(deployment), effects);
        }
        if (deployment.status() != DeploymentStatus.UNDOING || blind(deployment, shared)) {
            return ended(deployment, DeploymentStatus.STOPPED, effects);
        }
        if (deployment.course().sides().before().isPresent()) {
            if (shared) {
                effects.add(new PlaceEffect.OfferTask(deployment.id(), "", HostTask.TRAFFIC_BACK));
                return new Step(deployment.on(deployment.course().running(HostTask.TRAFFIC_BACK)), effects);
            }
            return ended(deployment, DeploymentStatus.UNDONE, effects);
        }
        return nextHost(deployment, effects);
    }

    /**
     * No host was touched. What {@code once-before} did when it failed nobody knows; what it did when it passed stays.
     */
    private static DeploymentStatus untouched(DeploymentState deployment) {
        if (!deployment.course().changed()) {
            return DeploymentStatus.FAILED;
        }
        return deployment.course().is(What.ONCE_BEFORE) ? DeploymentStatus.STOPPED : DeploymentStatus.UNDONE;
    }

    /** Whether nothing can be taken back. What has no traffic yet needs no way back. */
    private static boolean blind(DeploymentState deployment, boolean shared) {
        boolean none = deployment.wayBack() == WayBack.NONE || deployment.wayBack() == WayBack.BARRED;
        return none && (shared || deployment.course().sides().before().isEmpty());
    }

    private static Step nextHost(DeploymentState deployment, List<Consequence> effects) {
        Optional<HostState> next = deployment.hosts().reversed().stream()
                .filter(host -> host.touched() && host.phase() != Phase.UNDONE && host.phase() != Phase.LEFT)
                .findFirst();
        if (next.isEmpty()) {
            boolean left = deployment.hosts().stream().anyMatch(host -> host.phase() == Phase.LEFT);
            return ended(deployment, left ? DeploymentStatus.STOPPED : DeploymentStatus.UNDONE, effects);
        }
        HostTask task = deployment.wayBack().removes() ? HostTask.REMOVE : HostTask.UNDO;
        effects.add(new PlaceEffect.OfferTask(deployment.id(), next.get().host(), task));
        return new Step(deployment.withHost(next.get().host(), host -> host.to(Phase.UNDOING)), effects);
    }

    private static Step ended(DeploymentState deployment, DeploymentStatus status, List<Consequence> effects) {
        boolean takenAway = status == DeploymentStatus.UNDONE && deployment.wayBack() == WayBack.TAKEN_AWAY;
        boolean wasLive = deployment.course().plan().stream().limit(deployment.course().at())
                .anyMatch(each -> each.what() == What.LIVE);
        if (wasLive && status == DeploymentStatus.UNDONE) {
            effects.add(new PlaceEffect.TakenBack(deployment.id()));
        }
        return new Step(deployment.to(takenAway ? DeploymentStatus.REMOVED : status), effects);
    }

    /** The traffic is back where it was, or could not be brought back. */
    static Step trafficIsBack(DeploymentState deployment, HostOutcome outcome) {
        List<Consequence> effects = new ArrayList<>();
        DeploymentState idle = deployment.on(deployment.course().idle());
        return switch (outcome) {
            case HostOutcome.Done() -> back(idle.on(idle.course().sharing(0)), effects);
            case HostOutcome.Failed(String reason, boolean touched) -> ended(idle.withEnding(idle.ending().orElse("")
                    + "; the traffic could not be moved back: " + reason), DeploymentStatus.STOPPED, effects);
        };
    }
}
