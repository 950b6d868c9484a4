package dev.paseo.core.deployment;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * One component in one environment, as far as deciding needs it.
 *
 * @param live what is live
 * @param open the deployments that have not ended, and the live one, in the order of their requests
 */
public record PlaceState(Optional<Live> live, List<DeploymentState> open) {

    /**
     * What is live: the deployment, and its version's line and position in it.
     *
     * @param side the side that has the traffic, where the place has sides
     */
    public record Live(long deployment, String version, long line, long order, Optional<String> side) {}

    public PlaceState {
        open = List.copyOf(open);
    }

    public Optional<DeploymentState> deployment(long id) {
        return open.stream().filter(deployment -> deployment.id() == id).findFirst();
    }

    /** Whether hosts of the place are being changed. */
    boolean busy() {
        return open.stream().anyMatch(deployment -> deployment.status().active() || deployment.tending());
    }

    PlaceState with(DeploymentState changed) {
        return new PlaceState(live,
                open.stream().map(deployment -> deployment.id() == changed.id() ? changed : deployment).toList());
    }

    PlaceState plus(DeploymentState added) {
        return new PlaceState(live, Stream.concat(open.stream(), Stream.of(added)).toList());
    }

    PlaceState living(DeploymentState now) {
        return new PlaceState(Optional.of(new Live(now.id(), now.version(), now.line(), now.order(), now.course().sides().filled())), open);
    }

    /** The same with other plans for those that have not begun. */
    public PlaceState planned(java.util.function.UnaryOperator<DeploymentState> plan) {
        return new PlaceState(live, open.stream().map(deployment -> deployment.status().ahead() ? plan.apply(deployment) : deployment).toList());
    }

    /** When time alone will move something. */
    public Optional<Instant> wake() {
        return open.stream().flatMap(deployment -> deployment.course().until().stream()).min(Instant::compareTo);
    }
}
