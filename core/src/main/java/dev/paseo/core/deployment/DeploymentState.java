package dev.paseo.core.deployment;

import dev.paseo.core.deployment.HostState.Phase;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * All that deciding about a deployment needs.
 *
 * @param line      the line of its version
 * @param order     the version's position in its line; a greater one is newer
 * @param automatic whether the walk, not a person, asked for it
 * @param onFailure what a failure leads to
 * @param wayBack   how a host that was touched is brought back
 * @param ending    why it is on its way back, once it is
 */
public record DeploymentState(
        long id, String version, long line, long order, Kind kind, boolean automatic, DeploymentStatus status,
        List<HostState> hosts, OnFailure onFailure, WayBack wayBack, Optional<String> ending) {

    /** What a failure leads to. */
    public enum OnFailure { UNDO, STOP }

    /** How a host is brought back: by the recipe of what was live, by this recipe's removal, or not at all. */
    public enum WayBack { PREVIOUS, REMOVAL, NONE }

    public DeploymentState {
        hosts = List.copyOf(hosts);
    }

    public DeploymentState to(DeploymentStatus next) {
        return new DeploymentState(id, version, line, order, kind, automatic, next, hosts, onFailure, wayBack, ending);
    }

    DeploymentState because(String why) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, wayBack,
                ending.or(() -> Optional.of(why)));
    }

    DeploymentState withHost(String name, UnaryOperator<HostState> change) {
        List<HostState> changed = hosts.stream().map(host -> host.host().equals(name) ? change.apply(host) : host).toList();
        return new DeploymentState(id, version, line, order, kind, automatic, status, changed, onFailure, wayBack, ending);
    }

    /** The same request with what is live now to go back to. */
    public DeploymentState backBy(WayBack now) {
        return new DeploymentState(id, version, line, order, kind, automatic, status, hosts, onFailure, now, ending);
    }

    public Optional<HostState> host(String name) {
        return hosts.stream().filter(host -> host.host().equals(name)).findFirst();
    }

    boolean anyBusy() {
        return hosts.stream().anyMatch(host -> host.phase().busy());
    }

    boolean anyTouched() {
        return hosts.stream().anyMatch(HostState::touched);
    }

    boolean allIn(Phase phase) {
        return hosts.stream().allMatch(host -> host.phase() == phase);
    }
}
