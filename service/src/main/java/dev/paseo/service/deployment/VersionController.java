package dev.paseo.service.deployment;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.service.bytes.SentBytes;
import dev.paseo.service.component.Components;
import dev.paseo.service.deployment.VersionViews.VersionView;
import dev.paseo.service.permission.Permission;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Versions with their walk; the walk is made of deployments, so the page of a version is told here. */
@RestController
@RequestMapping("/api/v1")
class VersionController {

    private final Components components;
    private final Versions versions;
    private final VersionViews views;
    private final SentBytes bytes;

    VersionController(Components components, Versions versions, VersionViews views, SentBytes bytes) {
        this.components = components;
        this.versions = versions;
        this.views = views;
        this.bytes = bytes;
    }

    private Versions.Version look(Person person, String component, String number) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return versions.numbered(components.named(component).id(), component, number);
    }

    /** The numbers of the newest versions of a component, at most 200. */
    @GetMapping("/versions/{component}")
    List<String> newest(@AuthenticationPrincipal Person person, @PathVariable String component) {
        Permission.require(person, Action.LOOK, Optional.of(component), Optional.empty());
        return versions.newest(components.named(component).id(), 100).stream().map(Versions.Version::number).toList();
    }

    /** One version: its artifacts, evidence, walk and deployments. */
    @GetMapping("/versions/{component}/{number}")
    VersionView version(@AuthenticationPrincipal Person person, @PathVariable String component,
            @PathVariable String number) {
        return views.whole(look(person, component, number));
    }

    /** The bytes of an artifact. Its digest is the ETag, and it never changes. */
    @GetMapping("/versions/{component}/{number}/artifacts/{name}")
    void artifact(@AuthenticationPrincipal Person person, @PathVariable String component, @PathVariable String number,
            @PathVariable String name, HttpServletResponse response) throws IOException {
        Versions.Version version = look(person, component, number);
        Versions.Artifact artifact = versions.artifacts(version.id()).stream().filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(component + " " + number + " has no artifact " + name));
        bytes.send(artifact.digest(), artifact.size(), artifact.fileName(), response);
    }
}
