package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Places and versions by the names that people give, where they may do what they try. */
@Component
public class NamedPlaces {

    private final Components components;
    private final Environments environments;
    private final Versions versions;

    NamedPlaces(Components components, Environments environments, Versions versions) {
        this.components = components;
        this.environments = environments;
        this.versions = versions;
    }

    /**
     * A place where this person may do that.
     *
     * @param tried in words, as a refusal says it
     */
    public Place place(Person person, Action action, String tried, String component, String environment) {
        Permission.require(person, action, tried, Optional.of(component), Optional.of(environment));
        return environments.place(components.named(component).name(), environment);
    }

    /** A version of the place's component. */
    public Versions.Version version(Place place, String number) {
        return versions.numbered(place.componentId(), place.component(), number);
    }

    public static String here(String component, String environment) {
        return component + " in " + environment;
    }
}
