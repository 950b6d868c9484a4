package dev.paseo.service.permission;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;

/** Asks whether somebody may, and refuses where not. */
public final class Permission {

    private Permission() {}

    public static void require(Person person, Action action) {
        require(person, action, Optional.empty(), Optional.empty());
    }

    public static void require(Person person, Action action, Optional<String> component, Optional<String> environment) {
        if (!person.may(action, component, environment)) {
            throw Refusal.notAllowed(person.name() + " may not " + action.words()
                    + component.map(name -> " of " + name).orElse("") + environment.map(name -> " in " + name).orElse("")
                    + person.limit().map(all -> ": this token may " + all + ", and nothing else").orElse("; an administrator can give a role that may"));
        }
    }
}
