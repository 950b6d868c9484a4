package dev.paseo.service.permission;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.core.access.Scope;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;

/** Asks whether somebody may, and refuses where not. */
public final class Permission {

    private Permission() {}

    public static void require(Person person, Action action) {
        require(person, action, Optional.empty(), Optional.empty());
    }

    /**
     * For what is somebody's own, such as their notices: a token that is limited reaches none of it.
     *
     * @param tried what the person wants to do, as it completes "may not ..."
     */
    public static void unlimited(Person person, String tried) {
        person.scope().ifPresent(scope -> {
            throw Refusal.notAllowed(person.name() + " may not " + tried + ": " + only(scope));
        });
    }

    private static String only(Scope scope) {
        return "this token may " + scope.words() + ", and nothing else";
    }

    /** @param tried what the person wants to do, as it completes "may not ..." */
    public static void require(Person person, Action action, String tried) {
        require(person, action, tried, Optional.empty(), Optional.empty());
    }

    public static void require(Person person, Action action, Optional<String> component, Optional<String> environment) {
        require(person, action, action.words() + component.map(name -> " of " + name).orElse("")
                + environment.map(name -> " in " + name).orElse(""), component, environment);
    }

    /** @param tried what the person wants to do, as it completes "may not ..." */
    public static void require(Person person, Action action, String tried, Optional<String> component,
            Optional<String> environment) {
        if (!person.may(action, component, environment)) {
            throw Refusal.notAllowed(person.name() + " may not " + tried + ": "
                    + person.scope().map(Permission::only).orElse("it takes the role " + Role.allowing(action)
                            + (component.isPresent() || environment.isPresent() ? " there" : "")
                            + ", which an administrator gives"));
        }
    }
}
