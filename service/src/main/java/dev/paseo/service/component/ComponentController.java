package dev.paseo.service.component;

import dev.paseo.service.secret.HookSecrets;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/v1/components")
class ComponentController {

    private final Components components;
    private final ComponentViews views;
    private final Registration registration;
    private final Registering registering;
    private final Settings settings;

    /** What belongs to a component beside its registration. */
    @org.springframework.stereotype.Component("componentRegistering")
    record Registering(ComponentChanges changes, HookSecrets hooks) {}

    ComponentController(Components components, ComponentViews views, Registration registration,
            Registering registering, Settings settings) {
        this.components = components;
        this.views = views;
        this.registration = registration;
        this.registering = registering;
        this.settings = settings;
    }

    /**
     * Lists all components that are not retired. Of the heads of its branches each has that of its main branch here.
     */
    @GetMapping
    List<ComponentViews.ComponentView> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return views.all();
    }

    /** One component: its source, branches, labels and links. */
    @GetMapping("/{name}")
    ComponentViews.ComponentView one(@AuthenticationPrincipal Person person, @PathVariable String name) {
        Permission.require(person, Action.LOOK, Optional.of(name), Optional.empty());
        return views.view(components.named(name));
    }

    /** Registers a component, by its repository or by its pipeline file. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    ComponentViews.ComponentView register(@AuthenticationPrincipal Person person,
            @RequestBody Registration.NewComponent wanted) {
        Permission.require(person, Action.REGISTER_COMPONENT);
        Registration.requireGrants(person, wanted);
        return views.view(registration.register(wanted, person.name()));
    }

    /** Puts these links in place of those that are there: title to address. */
    @PutMapping("/{name}/links")
    ComponentViews.ComponentView links(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody Map<String, String> links) {
        Permission.require(person, Action.REGISTER_COMPONENT, "change the links of " + name, Optional.of(name),
                Optional.empty());
        registration.links(components.named(name), links, person.name());
        return views.view(components.named(name));
    }

    /** Puts these labels in place of those that are there: name to value, such as team to wardens. */
    @PutMapping("/{name}/labels")
    ComponentViews.ComponentView labels(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody Map<String, String> labels) {
        Permission.require(person, Action.REGISTER_COMPONENT, "label " + name, Optional.of(name), Optional.empty());
        registration.labels(components.named(name), labels, person.name());
        return views.view(components.named(name));
    }

    /** A component that is opened as a source; to all branches, or to trusted ones alone. */
    record SourceRequest(String name, boolean allBranches) {}

    /** Opens another component's artifacts to this one. */
    @PutMapping("/{name}/sources")
    ComponentViews.ComponentView source(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody SourceRequest source) {
        Permission.require(person, Action.REGISTER_COMPONENT, "open components to " + name, Optional.of(name),
                Optional.empty());
        registration.source(components.named(name), components.named(source.name()), source.allBranches(),
                person.name());
        return views.view(components.named(name));
    }

    /** Closes another component's artifacts to this one again. */
    @DeleteMapping("/{name}/sources/{source}")
    ComponentViews.ComponentView close(@AuthenticationPrincipal Person person, @PathVariable String name,
            @PathVariable String source) {
        Permission.require(person, Action.REGISTER_COMPONENT, "shut " + source + " to " + name, Optional.of(name),
                Optional.empty());
        registration.closed(components.named(name), components.named(source), person.name());
        return views.view(components.named(name));
    }

    /** Changes what is given, all of it or nothing; what is absent stays. */
    @PostMapping("/{name}/changes")
    ComponentViews.ComponentView change(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestBody ComponentChanges.ComponentChange change) {
        Permission.require(person, Action.REGISTER_COMPONENT, "change " + name, Optional.of(name), Optional.empty());
        registering.changes().concerned(components.named(name), change).forEach(each -> Permission.require(person,
                Action.REGISTER_COMPONENT, Optional.of(each.name()), Optional.empty()));
        return views.view(registering.changes().change(components.named(name), change, person));
    }

    /** A ready post-receive script for the repository. It holds the hook's secret. */
    @GetMapping(value = "/{name}/hook", produces = MediaType.TEXT_PLAIN_VALUE)
    String hook(@AuthenticationPrincipal Person person, @PathVariable String name) throws IOException {
        Permission.require(person, Action.REGISTER_COMPONENT);
        try (InputStream template = ComponentController.class.getResourceAsStream("/hook/post-receive")) {
            return new String(template.readAllBytes(), StandardCharsets.UTF_8)
                    .replace("@ADDRESS@", settings.address() + "/hooks/v1/push/" + name)
                    .replace("@SECRET@",
                            registering.hooks().of(components.named(name).id(), name).substring("whsec_".length()));
        }
    }
}
