package dev.paseo.service.grant;

import dev.paseo.core.access.Person;
import dev.paseo.core.secret.ValueReach;
import dev.paseo.language.NearestName;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.loosening.Loosenings;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Where secrets hold, by the names of components, environments and hosts; and what follows where they hold further. */
@Component
class SecretScopes {

    private final Components components;
    private final Environments environments;
    private final Loosenings loosenings;

    SecretScopes(Components components, Environments environments, Loosenings loosenings) {
        this.components = components;
        this.environments = environments;
        this.loosenings = loosenings;
    }

    long component(String name) {
        return components.named(name).id();
    }

    /** @throws Refusal where one of them is not there, or a host is named without its place */
    Secrets.Scope of(Optional<String> component, Optional<String> environment, Optional<String> host) {
        return new Secrets.Scope(component.map(this::component).orElse(0L),
                environment.map(name -> environments.named(name).id()).orElse(0L),
                host.map(name -> host(component, environment, name)).orElse(0L));
    }

    private long host(Optional<String> component, Optional<String> environment, String name) {
        if (component.isEmpty() || environment.isEmpty()) {
            throw Refusal.invalid("/host", "needs component and environment as well");
        }
        Environments.Place place = environments.place(component.get(), environment.get());
        List<Environments.PlaceHost> hosts = environments.hosts(place.id());
        return hosts.stream().filter(host -> host.name().equals(name)).findFirst().map(Environments.PlaceHost::id)
                .orElseThrow(
                        () -> Refusal.notFound(place.component() + " has no host " + name + " in " + place.environment()
                                + NearestName.hint(name, hosts.stream().map(Environments.PlaceHost::name).toList())));
    }

    /** The same by the names that components and environments have now. */
    ValueReach reach(Optional<String> component, Optional<String> environment, Optional<String> host) {
        return new ValueReach(component.map(name -> components.named(name).name()),
                environment.map(name -> environments.named(name).name()), host);
    }

    /** What goes live there within a day is looked at. */
    void loosened(ValueReach reach, String what, Person by) {
        if (reach.component().isPresent()) {
            loosenings.ofComponent(component(reach.component().get()), what, by.name());
        } else {
            environments.all().stream()
                    .filter(known -> reach.environment().filter(name -> !name.equals(known.name())).isEmpty())
                    .forEach(known -> loosenings.ofEnvironment(known.id(), what, by.name()));
        }
    }

    /** Gates that wait are judged again: what they compare has changed. */
    void wake() {
        environments.wakeAll();
    }
}
