package dev.paseo.core.deployment;

import dev.paseo.core.deployment.HostState.Phase;
import dev.paseo.core.deployment.Consequence.Content;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What follows from a task that ended, on a host or for the whole place. */
final class HostReports {

    private HostReports() {}

    /** Empty where that task is not running there. */
    static Optional<Step> reported(DeploymentState deployment, String name, HostTask task, HostOutcome outcome,
            Instant now) {
        if (task.ofPlace()) {
            return deployment.course().running().filter(task::equals)
                    .map(running -> ofPlace(deployment, task, outcome, now));
        }
        return deployment.host(name).filter(host -> host.phase() == Onward.busyWith(task)).map(host -> switch (task) {
            case INSTALL -> installed(deployment, name, outcome, now);
            case CHECK -> checked(deployment, name, outcome, now);
            case WATCH -> watched(deployment, name, outcome, now);
            case CLEAR -> cleared(deployment, name, outcome, now);
            default -> undone(deployment, name, task, outcome, now);
        });
    }

    private static Step ofPlace(DeploymentState deployment, HostTask task, HostOutcome outcome, Instant now) {
        if (task == HostTask.TRAFFIC_BACK) {
            return Retreat.trafficIsBack(deployment, outcome);
        }
        List<Consequence> effects = new ArrayList<>();
        boolean began = outcome instanceof HostOutcome.Done
                || outcome instanceof HostOutcome.Failed(String why, boolean touched) && touched;
        boolean once = task == HostTask.ONCE_BEFORE || task == HostTask.ONCE_AFTER;
        Course course = once && began ? deployment.course().idle().changing() : deployment.course().idle();
        int share = course.now().map(Movement::share).orElse(0);
        return switch (outcome) {
            case HostOutcome.Done() -> Onward
                    .advance(deployment.on(task == HostTask.TRAFFIC ? course.sharing(share) : course), now, effects);
            case HostOutcome.Failed(String reason, boolean touched) when task == HostTask.TEST
                    && deployment.ending().isEmpty() -> {
                effects.add(new PlaceEffect.NotSettled(deployment.id(), reason));
                yield Onward.enter(deployment.on(course.unsettling()), now, effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) ->
                    // Traffic whose moving failed half way is moved back too.
                    fail(deployment
                            .on(task == HostTask.TRAFFIC && touched ? course.sharing(Math.max(1, share)) : course),
                            words(task) + ": " + reason, now, effects);
        };
    }

    private static String words(HostTask task) {
        return switch (task) {
            case ONCE_BEFORE -> "once-before";
            case ONCE_AFTER -> "once-after";
            case TRAFFIC -> "moving the traffic";
            default -> "checking the whole";
        };
    }

    private static Step installed(DeploymentState deployment, String name, HostOutcome outcome, Instant now) {
        List<Consequence> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                effects.add(new Consequence.HostHas(deployment.id(), name, Content.THIS_VERSION));
                boolean unchecked = deployment.terms().unchecked().orElse(false);
                DeploymentState there = deployment.withHost(name,
                        host -> host.touchedTo(unchecked ? Phase.GOOD : Phase.INSTALLED));
                yield tended(deployment) && !unchecked ? Onward.onHosts(there, List.of(name), HostTask.CHECK, effects)
                        : Onward.advance(there, now, effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> {
                if (touched) {
                    effects.add(new Consequence.HostHas(deployment.id(), name, Content.UNKNOWN));
                }
                yield failedOn(deployment, name, reason, touched, now, effects);
            }
        };
    }

    private static boolean tended(DeploymentState deployment) {
        return deployment.status() == DeploymentStatus.LIVE;
    }

    private static Step checked(DeploymentState deployment, String name, HostOutcome outcome, Instant now) {
        List<Consequence> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                DeploymentState good = deployment.withHost(name, host -> host.to(Phase.GOOD));
                yield Onward.advance(good, now, effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> failedOn(deployment, name, reason,
                    touchedBefore(deployment, name), now, effects);
        };
    }

    /** A host that is only verified was not touched by checking it. */
    private static boolean touchedBefore(DeploymentState deployment, String name) {
        return deployment.host(name).filter(HostState::touched).isPresent();
    }

    /** One host has failed: told where it is being tended, borne where the strategy bears it, else the way back. */
    private static Step failedOn(DeploymentState deployment, String name, String reason, boolean touched, Instant now,
            List<Consequence> effects) {
        DeploymentState failed = deployment.withHost(name, host -> host.failed(reason, touched));
        if (tended(deployment)) {
            return Onward.advance(failed, now, effects);
        }
        boolean borne = failed.ending().isEmpty() && failed.failedHosts() <= failed.course().mayFail();
        return borne ? Onward.advance(failed, now, effects) : fail(failed, name + ": " + reason, now, effects);
    }

    private static Step watched(DeploymentState deployment, String name, HostOutcome outcome, Instant now) {
        List<Consequence> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> Onward.advance(deployment.withHost(name, host -> host.to(Phase.GOOD)), now,
                    effects);
            case HostOutcome.Failed(String reason, boolean touched) -> fail(
                    deployment.withHost(name, host -> host.failed(reason, false)), name + ": " + reason, now, effects);
        };
    }

    private static Step cleared(DeploymentState deployment, String name, HostOutcome outcome, Instant now) {
        List<Consequence> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                effects.add(new Consequence.HostHas(deployment.id(), name, Content.NOTHING));
                yield Onward.advance(deployment.withHost(name, host -> host.to(Phase.CLEARED)), now, effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> {
                effects.add(new Consequence.HostHas(deployment.id(), name, Content.UNKNOWN));
                yield Onward.advance(
                        deployment.withHost(name,
                                host -> host.failed("could not be cleared: " + reason, false).to(Phase.LEFT)),
                        now, effects);
            }
        };
    }

    private static Step undone(DeploymentState deployment, String name, HostTask task, HostOutcome outcome,
            Instant now) {
        List<Consequence> effects = new ArrayList<>();
        return switch (outcome) {
            case HostOutcome.Done() -> {
                Content content = task == HostTask.REMOVE ? Content.NOTHING : Content.PREVIOUS_VERSION;
                effects.add(new Consequence.HostHas(deployment.id(), name, content));
                yield Onward.advance(deployment.withHost(name, host -> host.to(Phase.UNDONE)), now, effects);
            }
            case HostOutcome.Failed(String reason, boolean touched) -> {
                effects.add(new Consequence.HostHas(deployment.id(), name, Content.UNKNOWN));
                yield Onward.advance(
                        deployment.withHost(name,
                                host -> host.failed("could not be undone: " + reason, true).to(Phase.LEFT)),
                        now, effects);
            }
        };
    }

    private static Step fail(DeploymentState deployment, String why, Instant now, List<Consequence> effects) {
        return deployment.ending().isPresent() ? Onward.advance(deployment, now, effects)
                : Retreat.begin(deployment, why, false, effects);
    }
}
