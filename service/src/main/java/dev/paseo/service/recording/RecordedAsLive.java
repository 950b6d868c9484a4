package dev.paseo.service.recording;

import dev.paseo.core.access.Person;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.livestate.LiveStates;
import dev.paseo.service.version.Versions;
import org.springframework.stereotype.Component;

/** What follows from a version being recorded as live: its stretch and its passage, and the trail states it. */
@Component
class RecordedAsLive {

    private final Stretches stretches;
    private final Passages passages;
    private final LiveStates live;
    private final Changes changes;

    RecordedAsLive(Stretches stretches, Passages passages, LiveStates live, Changes changes) {
        this.stretches = stretches;
        this.passages = passages;
        this.live = live;
        this.changes = changes;
    }

    void follow(long deployment, Place place, Versions.Version version, Person person, String reason) {
        stretches.begin(place.id());
        passages.recorded(version.id(), place.environmentId());
        changes.record(live.into(AuditTrail.Entry
                .of(person.name(), "recorded as live", version.component() + " " + version.number())
                .in(place.environment()).because(reason).with("deployment", Long.toString(deployment)), place.id()));
        changes.publish("whereabouts", place.component());
    }
}
