package dev.paseo.core.secret;

import java.util.Collection;
import java.util.Optional;

/**
 * Where a secret's value holds; what is absent stands for every one. A host stands only together with a component and
 * an environment.
 */
public record ValueReach(Optional<String> component, Optional<String> environment, Optional<String> host) {

    public boolean covers(ValueReach other) {
        return covers(component, other.component) && covers(environment, other.environment) && covers(host, other.host);
    }

    private static boolean covers(Optional<String> mine, Optional<String> other) {
        return mine.isEmpty() || mine.equals(other);
    }

    /**
     * Whether a value here would hold where one of the same name holds already, and further than any of them.
     *
     * @param present where values of that name hold now
     */
    public boolean widens(Collection<ValueReach> present) {
        return present.stream().noneMatch(each -> each.covers(this)) && present.stream().anyMatch(this::covers);
    }

    /** Such as {@code for daylight-api in every environment}. */
    public String words() {
        return "for " + component.orElse("every component") + " in " + environment.orElse("every environment")
                + host.map(name -> " on " + name).orElse("");
    }
}
