package dev.paseo.service.grant;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.secret.Secrets;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Which secrets a component's files may name. */
@RestController
@RequestMapping("/api/v1/components/{component}/grants")
class GrantController {

    private final Secrets secrets;
    private final Components components;
    private final Granting granting;

    GrantController(Secrets secrets, Components components, Granting granting) {
        this.secrets = secrets;
        this.components = components;
        this.granting = granting;
    }

    /** The names of the secrets that a component's files may name. */
    @GetMapping
    List<String> list(@AuthenticationPrincipal Person person, @PathVariable String component) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return secrets.given(components.named(component).id());
    }

    /** Gives a component's trusted branches a secret. */
    @PutMapping("/{secret}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void give(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String secret) {
        Permission.require(person, Action.SET_SECRET, "give secrets to " + component, Optional.of(component),
                Optional.empty());
        SecretController.named(secret);
        granting.grant(component, secret, person);
    }

    /** Takes a secret from a component. */
    @DeleteMapping("/{secret}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeBack(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String secret) {
        Permission.require(person, Action.SET_SECRET, "take secrets from " + component, Optional.of(component),
                Optional.empty());
        granting.revoke(component, secret, person);
    }
}
