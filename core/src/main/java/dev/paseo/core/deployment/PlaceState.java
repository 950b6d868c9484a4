package dev.paseo.core.deployment;

import java.util.List;
import java.util.Optional;

/**
 * One component in one environment, as far as deciding needs it.
 *
 * @param live what is live
 * @param open the deployments that have not ended, in the order of their requests
 */
public record PlaceState(Optional<Live> live, List<DeploymentState> open) {

    /** What is live: the deployment, and its version's line and position in it. */
    public record Live(long deployment, String version, long line, long order) {}

    public PlaceState {
        open = List.copyOf(open);
    }

    public Optional<DeploymentState> deployment(long id) {
        return open.stream().filter(deployment -> deployment.id() == id).findFirst();
    }

    boolean busy() {
        return open.stream().anyMatch(deployment -> deployment.status().active());
    }

    PlaceState with(DeploymentState changed) {
        return new PlaceState(live,
                open.stream().map(deployment -> deployment.id() == changed.id() ? changed : deployment).toList());
    }

    PlaceState plus(DeploymentState added) {
        return new PlaceState(live, java.util.stream.Stream.concat(open.stream(), java.util.stream.Stream.of(added)).toList());
    }

    PlaceState living(DeploymentState now) {
        return new PlaceState(Optional.of(new Live(now.id(), now.version(), now.line(), now.order())), open);
    }
}
