package dev.paseo.core.deployment;

import java.util.Optional;

/**
 * One host within a deployment.
 *
 * @param touched whether its recipe began there, so that something may have changed
 */
public record HostState(String host, Phase phase, boolean touched, Optional<String> reason) {

    /** How far a host is. */
    public enum Phase {
        AHEAD, INSTALLING, INSTALLED, CHECKING, GOOD, FAILED, UNDOING, UNDONE, LEFT;

        boolean busy() {
            return this == INSTALLING || this == CHECKING || this == UNDOING;
        }
    }

    public static HostState ahead(String host) {
        return new HostState(host, Phase.AHEAD, false, Optional.empty());
    }

    HostState to(Phase next) {
        return new HostState(host, next, touched, reason);
    }

    HostState touchedTo(Phase next) {
        return new HostState(host, next, true, reason);
    }

    HostState failed(String why, boolean wasTouched) {
        return new HostState(host, Phase.FAILED, touched || wasTouched, Optional.of(why));
    }
}
