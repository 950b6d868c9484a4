package dev.paseo.core.access;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Somebody who is signed in, with the groups and grants that count at this moment.
 *
 * @param limit all that the token allows with which they signed in, such as {@code publish versions of hut-planner}; empty: what their roles allow
 */
public record Person(long id, String name, Set<String> groups, List<Grant> grants, Optional<String> limit) {

    public Person(long id, String name, Set<String> groups, List<Grant> grants) {
        this(id, name, groups, grants, Optional.empty());
    }

    public Person {
        groups = Set.copyOf(groups);
        grants = List.copyOf(grants);
    }

    public boolean may(Action action, Optional<String> component, Optional<String> environment) {
        return grants.stream().anyMatch(grant -> grant.covers(action, component, environment));
    }

    /** Whether any role of theirs allows it, be it only for one component or environment. */
    public boolean mayAnywhere(Action action) {
        return grants.stream().anyMatch(grant -> grant.role().allows(action));
    }

    /** The role by which somebody may do this, in words; empty where they may not. */
    public String because(Action action, Optional<String> component, Optional<String> environment) {
        return grants.stream().filter(grant -> grant.covers(action, component, environment)).findFirst()
                .map(grant -> grant.role().word() + grant.environment().map(name -> " in " + name).orElse("") + grant.component().map(name -> " of " + name).orElse("")).orElse("");
    }
}
