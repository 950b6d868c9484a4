package dev.paseo.service.origin;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.component.Components;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Locale;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where files come from, and signed statements about it: in-toto Statement 1 in DSSE envelopes. */
@RestController
@RequestMapping("/api/v1")
class OriginController {

    private final Origins origins;
    private final Statements statements;
    private final Components components;
    private final Versions versions;
    private final Deployments deployments;

    OriginController(Origins origins, Statements statements, Components components, Versions versions,
            Deployments deployments) {
        this.origins = origins;
        this.statements = statements;
        this.components = components;
        this.versions = versions;
        this.deployments = deployments;
    }

    /**
     * What a file is, by its digest: of which versions, how they came about, where they are live and were.
     *
     * @param sha256 the file's digest, in hexadecimal
     */
    @GetMapping("/origins/{sha256}")
    Origins.OriginView origin(@AuthenticationPrincipal Person person, @PathVariable String sha256) {
        if (!sha256.matches("[0-9a-fA-F]{64}")) {
            throw Refusal.notFound("What was asked is no digest: SHA-256 in hexadecimal has 64 digits");
        }
        Origins.OriginView view = origins.of(sha256.toLowerCase(Locale.ROOT),
                component -> person.may(Action.LOOK, Optional.of(component), Optional.empty()));
        if (view.versions().isEmpty() && view.made().isEmpty()) {
            throw Refusal.notFound("Nothing of this digest was made or kept here: the file is none of ours, or was "
                    + "changed since");
        }
        return view;
    }

    /** How a version came about, signed: SLSA Provenance 1.0. */
    @GetMapping("/versions/{component}/{number}/statement")
    Statements.EnvelopeView ofVersion(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return statements.ofVersion(versions.numbered(components.named(component).id(), component, number).id());
    }

    /** That a deployment went live, where, and by whose decision, signed. */
    @GetMapping("/deployments/{id}/statement")
    Statements.EnvelopeView ofDeployment(@AuthenticationPrincipal Person person, @PathVariable long id) {
        Permission.require(person, Action.LOOK);
        Deployment deployment = deployments.get(id);
        if (deployment.liveAt() == null) {
            throw Refusal.notFound("Deployment " + id + " has never been live: there is nothing to state");
        }
        return statements.ofDeployment(id);
    }
}
