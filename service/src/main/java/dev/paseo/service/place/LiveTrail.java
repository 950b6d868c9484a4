package dev.paseo.service.place;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.livestate.LiveStates;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Writes down what is live from now on, and tells those who look. */
@Component
class LiveTrail {

    private final DeploymentMapper mapper;
    private final Versions versions;
    private final LiveStates live;
    private final Changes changes;

    LiveTrail(DeploymentMapper mapper, Versions versions, LiveStates live, Changes changes) {
        this.mapper = mapper;
        this.versions = versions;
        this.live = live;
        this.changes = changes;
    }

    /** What was live before is live again, if anything was. */
    boolean takenBack(LoadedPlace now, Deployment row) {
        Optional<Deployment> again = now.snapshot().live().flatMap(live -> mapper.byId(live.deployment()));
        stated(now.place(), again.orElse(row), again.isPresent() ? "live again" : "not live any more");
        return again.isPresent();
    }

    /** The trail states it where nothing comes and goes by itself. */
    void stated(Place place, Deployment row, String what) {
        if (!mapper.temporary(place.id())) {
            changes.record(live.into(AuditTrail.Entry
                    .of("paseo", what, place.component() + " " + versions.byId(row.versionId()).number())
                    .in(place.environment())
                    .with("deployment", Long.toString(row.id())), place.id()));
        }
        changes.publish("whereabouts", place.component());
    }
}
