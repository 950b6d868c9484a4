package dev.paseo.service.grant;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.secret.ValueReach;
import dev.paseo.language.file.Names;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.secret.Secrets;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
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

    private final Secrets secrets;
    private final SecretScopes scopes;
    private final Widening widening;
    private final Changes changes;

    SecretController(Secrets secrets, SecretScopes scopes, Widening widening, Changes changes) {
        this.secrets = secrets;
        this.scopes = scopes;
        this.widening = widening;
        this.changes = changes;
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
        Secrets.Scope scope = scopes.of(request.component(), request.environment(), request.host());
        Secrets.check(request.value());
        ValueReach reach = scopes.reach(request.component(), request.environment(), request.host());
        boolean widens = widening.widens(request.name(), reach, person);
        changes.run(() -> {
            secrets.set(request.name(), request.value(), scope, OptionalLong.of(person.id()));
            if (widens) {
                widening.mark(request.name(), reach, person);
            }
            scopes.wake();
            changes.record(AuditTrail.Entry.of(person.name(), "secret set", request.name())
                    .in(request.environment().orElse("")).with("component", request.component().orElse(""))
                    .with("host", request.host().orElse("")));
        });
    }

    static void named(String name) {
        if (!Names.VARIABLE.matcher(name).matches()) {
            throw Refusal.invalid("/name", "A secret's name has " + Names.VARIABLE_WORDS);
        }
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
}
