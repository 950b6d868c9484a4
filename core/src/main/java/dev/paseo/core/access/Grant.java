package dev.paseo.core.access;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A role given to somebody, everywhere or only for one component or one environment. */
public record Grant(Role role, Optional<String> component, Optional<String> environment) {

    private static final Pattern WORDS = Pattern.compile(
            "(?<role>[a-z-]{1,40})(?: in (?<environment>[a-z0-9][a-z0-9-]{0,62}))?(?: of "
                    + "(?<component>[a-z0-9][a-z0-9-]{0,62}))?");

    /** Of its words, such as {@code approver in production of daylight-api}; empty where they are none. */
    public static Optional<Grant> of(String words) {
        Matcher matcher = WORDS.matcher(words);
        if (!matcher.matches()) {
            return Optional.empty();
        }
        return Role.named(matcher.group("role")).map(role -> new Grant(role,
                Optional.ofNullable(matcher.group("component")), Optional.ofNullable(matcher.group("environment"))));
    }

    /** The role, and where it holds. */
    public String words() {
        return role.word() + environment.map(name -> " in " + name).orElse("")
                + component.map(name -> " of " + name).orElse("");
    }

    /** Whether it covers this action here. A grant that is limited covers nothing outside its limit. */
    boolean covers(Action action, Optional<String> inComponent, Optional<String> inEnvironment) {
        return role.allows(action) && within(component, inComponent) && within(environment, inEnvironment);
    }

    private static boolean within(Optional<String> limit, Optional<String> asked) {
        return limit.isEmpty() || limit.equals(asked);
    }
}
