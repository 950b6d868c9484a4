package dev.paseo.core.deployment;

import java.util.Optional;

/**
 * One host within a deployment.
 *
 * @param touched whether its recipe began there, so that something may have changed
 */
public record HostState(String host, Phase phase, boolean touched, Optional<String> reason) {

    /** How far a host is. AWAY: it is in maintenance, takes no part, and catches up later. */
    public enum Phase {
        AHEAD, AWAY, INSTALLING, INSTALLED, CHECKING, GOOD, WATCHED, FAILED, UNDOING, UNDONE, LEFT, CLEARING, CLEARED;

        boolean busy() {
            return this == INSTALLING || this == CHECKING || this == WATCHED || this == UNDOING || this == CLEARING;
        }
    }

    public static HostState ahead(String host) {
        return new HostState(host, Phase.AHEAD, false, Optional.empty());
    }

    public static HostState away(String host, String why) {
        return new HostState(host, Phase.AWAY, false, Optional.of(why));
    }

    /** It has it already. */
    public static HostState there(String host) {
        return new HostState(host, Phase.GOOD, false, Optional.empty());
    }

    /**
     * It was in maintenance, or never took what it was to do, and catches up by itself. One whose recipe failed waits
     * for a person.
     */
    public boolean late() {
        return phase == Phase.AWAY || phase == Phase.FAILED && !touched;
    }

    HostState to(Phase next) {
        return new HostState(host, next, touched, reason);
    }

    /** The same without the reason of an earlier failure. */
    HostState anew(Phase next) {
        return new HostState(host, next, touched, Optional.empty());
    }

    HostState touchedTo(Phase next) {
        return new HostState(host, next, true, reason);
    }

    HostState failed(String why, boolean wasTouched) {
        return new HostState(host, Phase.FAILED, touched || wasTouched, Optional.of(why));
    }
}
