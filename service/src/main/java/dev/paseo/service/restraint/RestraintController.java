package dev.paseo.service.restraint;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Closures of environments, and blocks of versions. */
@RestController
@RequestMapping("/api/v1")
class RestraintController {

    /** @param until when it opens by itself */
    record ClosureRequest(String reason, Optional<Instant> until) {}

    record BlockRequest(String reason) {}

    private final Holds holds;
    private final Environments environments;
    private final Components components;
    private final Versions versions;

    RestraintController(Holds holds, Environments environments, Components components, Versions versions) {
        this.holds = holds;
        this.environments = environments;
        this.components = components;
        this.versions = versions;
    }

    /** Closes an environment to every deployment but rollbacks, until a time or until it is opened. */
    @PutMapping("/environments/{name}/closure")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@AuthenticationPrincipal Person person, @PathVariable String name, @RequestBody ClosureRequest request) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "close " + name, Optional.empty(), Optional.of(name));
        holds.close(environments.named(name), person, request.reason(), request.until());
    }

    /** Opens a closed environment. */
    @DeleteMapping("/environments/{name}/closure")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void open(@AuthenticationPrincipal Person person, @PathVariable String name,
            @RequestParam(defaultValue = "") String reason) {
        Permission.require(person, Action.EDIT_ENVIRONMENT, "open " + name, Optional.empty(), Optional.of(name));
        holds.open(environments.named(name), person, reason);
    }

    /** Blocks a version: it can be deployed nowhere, not even by rollback or emergency. */
    @PutMapping("/versions/{component}/{number}/block")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void block(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @RequestBody BlockRequest request) {
        Permission.require(person, Action.PROMOTE, "block " + component + " " + number, Optional.of(component),
                Optional.empty());
        holds.block(versions.numbered(components.named(component).id(), component, number), person,
                request.reason());
    }

    /** Lifts the block of a version. */
    @DeleteMapping("/versions/{component}/{number}/block")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void liftBlock(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @RequestParam(defaultValue = "") String reason) {
        Permission.require(person, Action.LIFT_BLOCK, "lift the block of " + component + " " + number,
                Optional.of(component), Optional.empty());
        holds.liftBlock(versions.numbered(components.named(component).id(), component, number),
                person, reason);
    }
}
