package dev.paseo.service.store;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.store.WatchedStore.Where;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The stores that a component's versions appear in. */
@RestController
@RequestMapping("/api/v1/components/{name}/stores")
class StoreController {

    /**
     * A store to be observed.
     *
     * @param address   of the registry or the Maven repository, or {@code file:///folder}
     * @param name      of a registry's repository, or an artifact's id
     * @param group     of a Maven artifact
     * @param extension of a Maven artifact; default: jar
     * @param pattern   of tags or versions; of a folder's file names, with {@code {version}} in it
     * @param existing  whether what is there already arrives too
     * @param login     name and password for a registry, with a colon between
     */
    record StoreRequest(WatchedStore.Kind kind, String address, Optional<String> name, Optional<String> group,
            Optional<String> extension, String pattern,
            Optional<Boolean> existing, Optional<String> login) {}

    /** Something seen in a store: the version that it became, or why it did not. */
    record SightingView(String name, String digest, Optional<String> version, Optional<String> reason,
            Instant seenAt) {}

    record StoreView(long id, Where where, Optional<Instant> lookedAt, int failures, Optional<String> error,
            List<SightingView> sightings) {}

    private final Components components;
    private final Stores stores;

    StoreController(Components components, Stores stores) {
        this.components = components;
        this.stores = stores;
    }

    /** Lists a component's observed stores, with what was seen there. */
    @GetMapping
    List<StoreView> all(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return stores.of(components.named(name).id()).stream()
                .map(row -> new StoreView(row.id(), stores.where(row), Optional.ofNullable(row.lookedAt()),
                        row.failures(),
                        Optional.ofNullable(row.lastError()),
                        stores.sightings(row.id()).stream().map(each -> new SightingView(each.name(), each.digest(),
                                Optional.ofNullable(each.version()), Optional.ofNullable(each.reason()), each.seenAt()))
                                .toList()))
                .toList();
    }

    /** Observes a registry, a Maven repository or a folder for new versions. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    List<StoreView> watch(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody StoreRequest request) {
        Permission.require(person, Action.REGISTER_COMPONENT, "watch a store for " + name, Optional.of(name),
                Optional.empty());
        RegisteredComponent component = components.named(name);
        stores.watch(component,
                new Where(request.kind(), request.address(), request.name(), request.group(), request.extension(),
                        request.pattern(),
                        request.existing().orElse(false)),
                request.login(), person.name());
        return all(person, name);
    }

    /** Stops observing a store; versions that arrived stay. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stop(@AuthenticationPrincipal Person person, @PathVariable String name, @PathVariable long id) {
        Permission.require(person, Action.REGISTER_COMPONENT, "stop watching a store for " + name, Optional.of(name),
                Optional.empty());
        stores.stop(id, components.named(name), person.name());
    }
}
