package dev.paseo.service.preview;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.component.Components;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Which versions are to be shown in the preview of their branch. */
@Component
class PreviewsAsked {

    /** @param owner the address of whoever committed last */
    record Asked(Versions.Version version, String owner) {}

    private final Versions versions;
    private final Components components;
    private final Deployments deployments;

    PreviewsAsked(Versions versions, Components components, Deployments deployments) {
        this.versions = versions;
        this.components = components;
        this.deployments = deployments;
    }

    /** Empty where its file does not say that its branch gets previews, or it has been requested into one. */
    Optional<Asked> of(long id) {
        Versions.Version version = versions.byId(id);
        return version.commit()
                .filter(commit -> wanted(version, commit) && deployments.ofVersion(id).stream()
                        .noneMatch(row -> row.kind() == Kind.PREVIEW))
                .map(commit -> new Asked(version, components.mirror(components.byId(version.componentId()))
                        .commit(commit).address()));
    }

    private boolean wanted(Versions.Version version, String commit) {
        return components.readFile(components.byId(version.componentId()), commit).file()
                .map(PipelineFile::starts).orElse(List.of()).stream()
                .anyMatch(start -> start instanceof Trigger.Preview(var branches)
                        && branches.stream().anyMatch(pattern -> pattern.matches(version.branch())));
    }
}
