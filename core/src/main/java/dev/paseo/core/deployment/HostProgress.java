package dev.paseo.core.deployment;

import dev.paseo.core.deployment.DeploymentState.OnFailure;
import dev.paseo.core.deployment.DeploymentState.WayBack;
import dev.paseo.core.deployment.HostState.Phase;
import dev.paseo.core.deployment.PlaceEffect.Content;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What happens on the hosts of one deployment: installed together, checked together, undone one by one. */
final class HostProgress {

    private HostProgress() {}

    record Step(DeploymentState deployment, List<PlaceEffect> effects) {}

    static Step start(DeploymentState deployment) {
        return offerAll(deployment.to(DeploymentStatus.DEPLOYING), HostTask.INSTALL, Phase.INSTALLING, new ArrayList<>());
    }

    private static Step offerAll(DeploymentState deployment, HostTask task, Phase phase, List<PlaceEffect> effects) {
        DeploymentState now = deployment;
        for (HostState host : deployment.hosts()) {
            now = now.withHost(host.host(), state -> state.to(phase));
            effects.add(new PlaceEffect.OfferTask(deployment.id(), host.host(), task));
        }
        return new Step(now, effects);
    }

    /** Empty where that task is not running on that host. */
    static Optional<Step> reported(DeploymentState deployment, String name, HostTask task, HostOutcome outcome) {
        return deployment.host(name).filter(host -> host.phase() == busyWith(task)).map(host -> switch (task) {
            case INSTALL -> installed(deployment, name, outcome);
            case CHECK -> checked(deployment, name, outcome);
            case UNDO, REMOVE -> undone(deployment, name, task, outcome);
        });
    }

    private static Phase busyWith(HostTask task) {
        return switch (task) {
            case INSTALL -> Phase.INSTALLING;
            case CHECK -> Phase.CHECKING;
            case UNDO, REMOVE -> Phase.UNDOING;
        };
    }

    private static Step installed(DeploymentState deployment, String name, HostOutcome outcome) {
        List<PlaceEffect> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                effects.add(new PlaceEffect.HostHas(deployment.id(), name, Content.THIS_VERSION));
                yield advance(deployment.withHost(name, host -> host.touchedTo(Phase.INSTALLED)), effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> {
                if (touched) {
                    effects.add(new PlaceEffect.HostHas(deployment.id(), name, Content.UNKNOWN));
                }
                yield fail(deployment.withHost(name, host -> host.failed(reason, touched)), name, reason, effects);
            }
        };
    }

    private static Step checked(DeploymentState deployment, String name, HostOutcome outcome) {
        return switch (outcome) {
            case HostOutcome.Done() -> advance(deployment.withHost(name, host -> host.to(Phase.GOOD)), new ArrayList<>());
            case HostOutcome.Failed(String reason, boolean touched) ->
                    fail(deployment.withHost(name, host -> host.failed(reason, true)), name, reason, new ArrayList<>());
        };
    }

    private static Step undone(DeploymentState deployment, String name, HostTask task, HostOutcome outcome) {
        List<PlaceEffect> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                Content content = task == HostTask.REMOVE ? Content.NOTHING : Content.PREVIOUS_VERSION;
                effects.add(new PlaceEffect.HostHas(deployment.id(), name, content));
                yield advance(deployment.withHost(name, host -> host.to(Phase.UNDONE)), effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> {
                effects.add(new PlaceEffect.HostHas(deployment.id(), name, Content.UNKNOWN));
                yield advance(deployment.withHost(name, host -> host.failed("could not be undone: " + reason, true).to(Phase.LEFT)), effects);
            }
        };
    }

    private static Step fail(DeploymentState deployment, String host, String reason, List<PlaceEffect> effects) {
        if (deployment.ending().isPresent()) {
            return advance(deployment, effects);
        }
        Step back = retreat(deployment, host + ": " + reason, false);
        effects.addAll(back.effects());
        return new Step(back.deployment(), effects);
    }

    /** Turns back: nothing more is begun, what is running is told to stop, then what was touched is undone. */
    static Step retreat(DeploymentState deployment, String why, boolean asked) {
        List<PlaceEffect> effects = new ArrayList<>();
        for (HostState host : deployment.hosts()) {
            if (host.phase().busy()) {
                effects.add(new PlaceEffect.StopTask(deployment.id(), host.host()));
            }
        }
        boolean stays = deployment.onFailure() == OnFailure.STOP && !asked;
        return advance(deployment.because(why).to(stays ? deployment.status() : DeploymentStatus.UNDOING), effects);
    }

    private static Step advance(DeploymentState deployment, List<PlaceEffect> effects) {
        if (deployment.ending().isPresent()) {
            return deployment.anyBusy() ? new Step(deployment, effects) : back(deployment, effects);
        }
        if (deployment.status() == DeploymentStatus.DEPLOYING && deployment.allIn(Phase.INSTALLED)) {
            return offerAll(deployment.to(DeploymentStatus.CHECKING), HostTask.CHECK, Phase.CHECKING, effects);
        }
        if (deployment.status() == DeploymentStatus.CHECKING && deployment.allIn(Phase.GOOD)) {
            return new Step(deployment.to(DeploymentStatus.LIVE), effects);
        }
        return new Step(deployment, effects);
    }

    /** Nothing is running: undo the next host, newest first, or say how it ended. */
    private static Step back(DeploymentState deployment, List<PlaceEffect> effects) {
        if (!deployment.anyTouched()) {
            return new Step(deployment.to(DeploymentStatus.FAILED), effects);
        }
        if (deployment.status() != DeploymentStatus.UNDOING || deployment.wayBack() == WayBack.NONE) {
            return new Step(deployment.to(DeploymentStatus.STOPPED), effects);
        }
        Optional<HostState> next = deployment.hosts().reversed().stream()
                .filter(host -> host.touched() && host.phase() != Phase.UNDONE && host.phase() != Phase.LEFT).findFirst();
        if (next.isEmpty()) {
            boolean left = deployment.hosts().stream().anyMatch(host -> host.phase() == Phase.LEFT);
            return new Step(deployment.to(left ? DeploymentStatus.STOPPED : DeploymentStatus.UNDONE), effects);
        }
        HostTask task = deployment.wayBack() == WayBack.REMOVAL ? HostTask.REMOVE : HostTask.UNDO;
        effects.add(new PlaceEffect.OfferTask(deployment.id(), next.get().host(), task));
        return new Step(deployment.withHost(next.get().host(), host -> host.to(Phase.UNDOING)), effects);
    }
}
