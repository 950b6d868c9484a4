package dev.paseo.service.deployment;

import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Where a version comes from: its commit, what led to it, what came with it. */
@Component
class VersionOrigins {

    private final Components components;
    private final Causes causes;
    private final EvidenceViews evidence;

    VersionOrigins(Components components, Causes causes, EvidenceViews evidence) {
        this.components = components;
        this.causes = causes;
        this.evidence = evidence;
    }

    Optional<Mirror.Commit> commit(Versions.Version version) {
        return version.commit().map(id -> components.mirror(components.named(version.component())).commit(id));
    }

    List<Causes.Link> causes(Versions.Version version) {
        return causes.chain(version.cause());
    }

    List<EvidenceViews.KnownView> evidence(Versions.Version version) {
        return evidence.ofVersion(version.id());
    }
}
