package dev.paseo.service.grant;

import dev.paseo.service.change.Changes;
import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.secret.ValueReach;
import dev.paseo.language.NearestName;
import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.UnaryOperator;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Secrets: where they are set, and which components may name them. Values go in and never come out. */
@RestController
@RequestMapping("/api/v1")
class SecretController {

    /** A value; for one component, one environment, both, one host of both, or everywhere. */
    record SecretRequest(String name, @Size(max = 16_000) String value, Optional<String> component,
            Optional<String> environment, Optional<String> host) {}

    /** How many values are under the new key. */
    record RotationView(int values) {}

    private final Changes changes;
    private final Secrets secrets;
    private final Components components;
    private final Environments environments;
    private final Granting granting;
    private final Widening widening;

    /** How it is written down. */
    @Component("secretControllerAround")
    record Around(Changes changes, Granting granting, Widening widening) {}

    SecretController(Secrets secrets, Components components, Environments environments, Around around) {
        this.changes = around.changes();
        this.secrets = secrets;
        this.components = components;
        this.environments = environments;
        this.granting = around.granting();
        this.widening = around.widening();
    }

    /** Lists which secrets are set where: never a value. */
    @GetMapping("/secrets")
    List<Secrets.SetSecret> all(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.LOOK);
        return secrets.all();
    }

    /** Sets a secret's value, for everywhere, a component, an environment, or a host. */
    @PutMapping("/secrets")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void set(@AuthenticationPrincipal Person person, @RequestBody SecretRequest request) {
        Permission.require(person, Action.SET_SECRET, request.component(), request.environment());
        named(request.name());
        Secrets.Scope scope = new Secrets.Scope(request.component().map(name -> components.named(name).id()).orElse(0L),
                request.environment().map(name -> environments.named(name).id()).orElse(0L),
                request.host().map(name -> host(request, name)).orElse(0L));
        Secrets.check(request.value());
        ValueReach reach = new ValueReach(request.component().map(name -> components.named(name).name()),
                request.environment().map(name -> environments.named(name).name()), request.host());
        boolean widens = widening.widens(request.name(), reach, person);
        changed(AuditTrail.Entry.of(person.name(), "secret set", request.name()).in(request.environment().orElse(""))
                .with("component", request.component().orElse("")).with("host", request.host().orElse("")),
                () -> {
                    secrets.set(request.name(), request.value(), scope, OptionalLong.of(person.id()));
                    if (widens) {
                        widening.mark(request.name(), reach, person);
                    }
                });
    }

    private void changed(AuditTrail.Entry entry, Runnable change) {
        changed(entry, change, UnaryOperator.identity());
    }

    /** @param stating what the entry has beside, of how it is after the change */
    private void changed(AuditTrail.Entry entry, Runnable change, UnaryOperator<AuditTrail.Entry> stating) {
        changes.run(() -> {
            change.run();
            environments.wakeAll();
            changes.record(stating.apply(entry));
        });
    }

    private static void named(String name) {
        if (!Names.VARIABLE.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A secret's name has " + Names.VARIABLE_WORDS);
        }
    }

    private long host(SecretRequest request, String name) {
        if (request.component().isEmpty() || request.environment().isEmpty()) {
            throw Refusal.invalid("/host", "needs component and environment as well");
        }
        Environments.Place place = environments.place(request.component().get(), request.environment().get());
        List<Environments.PlaceHost> hosts = environments.hosts(place.id());
        return hosts.stream().filter(host -> host.name().equals(name)).findFirst().map(Environments.PlaceHost::id)
                .orElseThrow(
                        () -> Refusal.notFound(place.component() + " has no host " + name + " in " + place.environment()
                                + NearestName.hint(name, hosts.stream().map(Environments.PlaceHost::name).toList())));
    }

    /** Makes a new key for secrets, in a file of its own; every value's key is sealed with it, in one transaction. */
    @PostMapping("/secrets/rotation")
    RotationView rotate(@AuthenticationPrincipal Person person) {
        Permission.require(person, Action.SET_SECRET, "renew the key of all secrets");
        return changes.in(() -> {
            int values = secrets.rotate();
            changes.record(AuditTrail.Entry.of(person.name(), "secrets' key renewed", "secrets").with("values",
                    Integer.toString(values)));
            return new RotationView(values);
        });
    }

    /** The names of the secrets that a component's files may name. */
    @GetMapping("/components/{component}/grants")
    List<String> grants(@AuthenticationPrincipal Person person, @PathVariable String component) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return secrets.given(components.named(component).id());
    }

    /** Gives a component's trusted branches a secret. */
    @PutMapping("/components/{component}/grants/{secret}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void grant(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String secret) {
        Permission.require(person, Action.SET_SECRET, "give secrets to " + component, Optional.of(component),
                Optional.empty());
        named(secret);
        granting.grant(component, secret, person);
    }

    /** Takes a secret from a component. */
    @DeleteMapping("/components/{component}/grants/{secret}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revoke(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String secret) {
        Permission.require(person, Action.SET_SECRET, "take secrets from " + component, Optional.of(component),
                Optional.empty());
        long id = components.named(component).id();
        changed(AuditTrail.Entry.of(person.name(), "secret taken back", secret).with("component", component), () -> {
            if (!secrets.close(id, secret)) {
                throw Refusal.conflict(component + " was not given the secret " + secret);
            }
        }, entry -> secrets.stating(entry, id));
    }
}
