package dev.paseo.core.access;

import java.util.Optional;

/** A role given to somebody, everywhere or only for one component or one environment. */
public record Grant(Role role, Optional<String> component, Optional<String> environment) {

    /** Whether it covers this action here. A grant that is limited covers nothing outside its limit. */
    boolean covers(Action action, Optional<String> inComponent, Optional<String> inEnvironment) {
        return role.allows(action) && within(component, inComponent) && within(environment, inEnvironment);
    }

    private static boolean within(Optional<String> limit, Optional<String> asked) {
        return limit.isEmpty() || limit.equals(asked);
    }
}
