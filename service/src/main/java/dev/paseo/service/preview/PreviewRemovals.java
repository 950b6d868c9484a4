package dev.paseo.service.preview;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.preview.PreviewMapper.PreviewRow;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The previews that there are, and how they are taken away. */
@Component
class PreviewRemovals {

    private final PreviewMapper mapper;
    private final Environments environments;
    private final Places places;
    private final Changes changes;

    PreviewRemovals(PreviewMapper mapper, Environments environments, Places places, Changes changes) {
        this.mapper = mapper;
        this.environments = environments;
        this.places = places;
        this.changes = changes;
    }

    /** Begins to take a preview away, or tries again; true once nothing of it is there any more. */
    boolean remove(PreviewRow preview, String why, String by) {
        Place place = environments.placeById(mapper.place(preview.environmentId()));
        changes.run(() -> {
            if (preview.removing() == null) {
                changes.record(AuditTrail.Entry.of(by, "preview taken away", preview.component())
                        .in(preview.environment()).because(why).with("branch", preview.branch()));
            }
            mapper.removing(preview.environmentId(), why, changes.now());
            places.change(place.id(), now -> Optional.of(new PlaceEvent.RemovalAsked(why)));
        });
        boolean gone = environments.placeById(place.id()).liveDeployment().isEmpty()
                && places.isQuiet(place.id());
        if (gone && mapper.removed(preview.environmentId(), changes.now()) == 1) {
            changes.publish("preview", preview.environment());
        }
        return gone;
    }

    /** Those that are there, or are being taken away. */
    List<PreviewRow> there() {
        return mapper.there();
    }

    PreviewRow named(String environment) {
        return mapper.named(environment).orElseThrow(() -> Refusal.notFound("There is no preview " + environment));
    }

    Place place(PreviewRow preview) {
        return environments.placeById(mapper.place(preview.environmentId()));
    }

    /** Whether something waits or is under way there. */
    boolean busy(PreviewRow preview) {
        return !places.isQuiet(mapper.place(preview.environmentId()));
    }
}
