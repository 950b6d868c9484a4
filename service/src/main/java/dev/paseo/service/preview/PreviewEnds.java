package dev.paseo.service.preview;

import dev.paseo.core.deployment.PreviewEnd;
import dev.paseo.language.environment.EnvironmentsFile.Template;
import dev.paseo.service.component.Components;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Why a preview ends: its branch is gone, its time is over, or its work has been promoted. */
@Component
class PreviewEnds {

    private final PreviewMapper mapper;
    private final Components components;
    private final Environments environments;
    private final Places places;

    PreviewEnds(PreviewMapper mapper, Components components, Environments environments, Places places) {
        this.mapper = mapper;
        this.components = components;
        this.environments = environments;
        this.places = places;
    }

    /** Why it ends now; nothing: it stays. */
    Optional<String> of(PreviewRow preview, Template template, Instant now) {
        boolean gone = !components.heads(preview.componentId()).containsKey(preview.branch());
        return new PreviewEnd(preview.component(),
                components.byId(preview.componentId()).retired().isPresent(), preview.branch(), gone,
                preview.pushedAt(), template.after(), template.promotion())
                .why(now, () -> promoted(preview, template.promotion().orElseThrow()));
    }

    /** Whether what is live there has the preview's commit in its history. */
    private boolean promoted(PreviewRow preview, String environment) {
        Optional<String> live = environments.find(preview.component(), environment).flatMap(places::live)
                .flatMap(Versions.Version::commit);
        Optional<String> shown = places.live(environments.placeById(mapper.place(preview.environmentId())))
                .flatMap(Versions.Version::commit);
        return live.isPresent() && shown.isPresent() && (live.equals(shown)
                || components.mirror(components.byId(preview.componentId())).precedes(shown.get(),
                        live.get()));
    }
}
