package dev.paseo.core.access;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Somebody who is signed in, with the groups and grants that count at this moment.
 *
 * @param scope all that the token allows of it with which they signed in; empty: what their roles allow
 */
public record Person(long id, String name, Set<String> groups, List<Grant> grants, Optional<Scope> scope) {

    public Person(long id, String name, Set<String> groups, List<Grant> grants) {
        this(id, name, groups, grants, Optional.empty());
    }

    public Person {
        groups = Set.copyOf(groups);
        grants = List.copyOf(grants);
    }

    public boolean may(Action action, Optional<String> component, Optional<String> environment) {
        return scope.filter(limit -> !limit.covers(action, component)).isEmpty()
                && grants.stream().anyMatch(grant -> grant.covers(action, component, environment));
    }

    /** The same person, signed in with a token that is limited; their groups count only where it may decide. */
    public Person within(Scope limit) {
        return new Person(id, name, limit.actions().contains(Action.DECIDE) ? groups : Set.of(), grants,
                Optional.of(limit));
    }

    /** Whether any role of theirs allows it, be it only for one component or environment. */
    public boolean mayAnywhere(Action action) {
        return scope.filter(limit -> !limit.actions().contains(action)).isEmpty()
                && grants.stream().anyMatch(grant -> grant.role().allows(action));
    }

    /** The role by which somebody may do this, in words; empty where they may not. */
    public String because(Action action, Optional<String> component, Optional<String> environment) {
        return grants.stream().filter(grant -> grant.covers(action, component, environment)).findFirst()
                .map(Grant::words).orElse("");
    }
}
