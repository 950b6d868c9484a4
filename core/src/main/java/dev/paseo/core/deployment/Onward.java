package dev.paseo.core.deployment;

import dev.paseo.core.deployment.HostState.Phase;
import dev.paseo.core.deployment.Movement.What;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Takes a deployment along its plan. */
final class Onward {

    private Onward() {}

    static Step start(DeploymentState deployment, Instant now) {
        return enter(deployment.to(DeploymentStatus.DEPLOYING), now, new ArrayList<>());
    }

    /** The part that was being done has ended well. */
    static Step next(DeploymentState deployment, Instant now, List<Consequence> effects) {
        return enter(deployment.on(deployment.course().next()), now, effects);
    }

    static Step enter(DeploymentState begun, Instant now, List<Consequence> effects) {
        DeploymentState deployment = begun;
        while (deployment.course().now().isPresent()) {
            Movement movement = deployment.course().now().get();
            switch (movement.what()) {
                case LIVE -> {
                    effects.add(new PlaceEffect.WentLive(deployment.id()));
                    if (deployment.kind().opensPassage()) {
                        effects.add(new PlaceEffect.PassageOpened(deployment.id()));
                    }
                    deployment = deployment.to(DeploymentStatus.LIVE).on(deployment.course().next());
                }
                case SETTLED -> {
                    if (deployment.kind().settlesPassage()) {
                        effects.add(new PlaceEffect.Settled(deployment.id()));
                    }
                    deployment = deployment.on(deployment.course().next());
                }
                default -> {
                    Step entered = begin(deployment, movement, now, effects);
                    if (entered.deployment().anyBusy() || waits(movement)) {
                        return entered;
                    }
                    deployment = entered.deployment().on(entered.deployment().course().next());
                }
            }
        }
        return new Step(deployment, effects);
    }

    private static boolean waits(Movement movement) {
        return movement.what() == What.PAUSE || movement.what() == What.QUESTION || movement.what() == What.FACTS;
    }

    private static Step begin(DeploymentState deployment, Movement movement, Instant now, List<Consequence> effects) {
        return switch (movement.what()) {
            case ONCE_BEFORE -> once(deployment, HostTask.ONCE_BEFORE, effects);
            case ONCE_AFTER -> once(deployment, HostTask.ONCE_AFTER, effects);
            case TRAFFIC -> once(deployment, HostTask.TRAFFIC, effects);
            case TEST -> once(deployment, HostTask.TEST, effects);
            case WHOLE -> once(deployment.to(DeploymentStatus.CHECKING), HostTask.WHOLE, effects);
            case INSTALL -> onHosts(deployment, movement.hosts(), HostTask.INSTALL, effects);
            case VERIFY -> onHosts(checking(deployment), movement.hosts(), HostTask.CHECK, effects);
            case CLEAR -> onHosts(deployment, movement.hosts(), HostTask.CLEAR, effects);
            case WATCH -> {
                List<String> good = deployment.hosts().stream().filter(host -> host.phase() == Phase.GOOD)
                        .map(HostState::host).toList();
                Step hosts = onHosts(deployment, good, HostTask.WATCH, effects);
                boolean whole = deployment.course().plan().stream().anyMatch(each -> each.what() == What.WHOLE)
                        && deployment.status() == DeploymentStatus.LIVE;
                yield whole ? once(hosts.deployment(), HostTask.WATCH_WHOLE, effects) : hosts;
            }
            case PAUSE -> new Step(deployment.on(deployment.course().until(now.plus(movement.length().orElseThrow()))),
                    effects);
            case QUESTION, FACTS, LIVE, SETTLED -> new Step(deployment, effects);
        };
    }

    private static Step once(DeploymentState deployment, HostTask task, List<Consequence> effects) {
        effects.add(new PlaceEffect.OfferTask(deployment.id(), "", task));
        return new Step(deployment.on(deployment.course().running(task)), effects);
    }

    /** Offered on those of these hosts that take part. */
    static Step onHosts(DeploymentState deployment, List<String> names, HostTask task, List<Consequence> effects) {
        DeploymentState now = deployment;
        for (String name : names) {
            if (now.host(name).filter(host -> host.phase() != Phase.AWAY).isPresent()) {
                now = now.withHost(name, host -> host.to(busyWith(task)));
                effects.add(new PlaceEffect.OfferTask(deployment.id(), name, task));
            }
        }
        return new Step(now, effects);
    }

    static Phase busyWith(HostTask task) {
        return switch (task) {
            case INSTALL -> Phase.INSTALLING;
            case CHECK -> Phase.CHECKING;
            case WATCH -> Phase.WATCHED;
            case CLEAR -> Phase.CLEARING;
            case UNDO, REMOVE -> Phase.UNDOING;
            case ONCE_BEFORE, ONCE_AFTER, TRAFFIC, TRAFFIC_BACK, WHOLE, WATCH_WHOLE,
                    TEST -> throw new IllegalArgumentException(task + " is of no host");
        };
    }

    /** Once no host is to be installed any more, what is left is checking. */
    private static DeploymentState checking(DeploymentState deployment) {
        return deployment.status() == DeploymentStatus.DEPLOYING && !deployment.course().moreHosts()
                ? deployment.to(DeploymentStatus.CHECKING) : deployment;
    }

    /** A host of the part that is being done has ended its task: with the last of them, the next begins. */
    static Step advance(DeploymentState deployment, Instant now, List<Consequence> effects) {
        if (deployment.ending().isPresent()) {
            return deployment.anyBusy() ? new Step(deployment, effects) : Retreat.back(deployment, effects);
        }
        if (deployment.anyBusy() || deployment.course().now().filter(part -> !waits(part)).isEmpty()) {
            return new Step(deployment, effects);
        }
        Movement movement = deployment.course().now().get();
        List<String> installed = deployment.hosts().stream().filter(host -> movement.hosts().contains(host.host()))
                .filter(host -> host.phase() == Phase.INSTALLED).map(HostState::host).toList();
        return installed.isEmpty() ? next(deployment, now, effects)
                : onHosts(checking(deployment), installed, HostTask.CHECK, effects);
    }

    /** A live deployment brings these hosts to itself again. */
    static Step tend(DeploymentState deployment, List<String> names) {
        List<HostState> hosts = new ArrayList<>(deployment.hosts());
        names.stream().filter(name -> deployment.host(name).isEmpty())
                .forEach(name -> hosts.add(HostState.ahead(name)));
        UnaryOperator<HostState> anew = host -> names.contains(host.host()) ? host.anew(Phase.AHEAD) : host;
        return onHosts(deployment.withHosts(hosts.stream().map(anew).toList()), names, HostTask.INSTALL,
                new ArrayList<>());
    }

    /** Another deployment begins: what is still done for this live one ends. */
    static Step abandon(DeploymentState live) {
        List<Consequence> effects = new ArrayList<>();
        Retreat.stopAll(live, effects);
        List<HostState> hosts = live.hosts().stream().map(host -> switch (host.phase()) {
            case WATCHED -> host.to(Phase.GOOD);
            case CLEARING -> host.to(Phase.LEFT);
            default -> host;
        }).toList();
        return new Step(live.withHosts(hosts).on(live.course().over().idle()), effects);
    }
}
