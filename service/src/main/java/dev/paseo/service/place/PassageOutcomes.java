package dev.paseo.service.place;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.version.Versions;
import org.springframework.stereotype.Component;

/** What follows for the passage of a version through an environment. */
@Component
class PassageOutcomes {

    private final Passages passages;
    private final Versions versions;
    private final PeopleTold people;
    private final Changes changes;

    PassageOutcomes(Passages passages, Versions versions, PeopleTold people, Changes changes) {
        this.passages = passages;
        this.versions = versions;
        this.people = people;
        this.changes = changes;
    }

    void opened(Place place, Deployment row) {
        passages.opened(row.versionId(), place.environmentId(), row.id());
    }

    void settled(Place place, Deployment row) {
        passages.settled(row.versionId(), place.environmentId(), row.causeId());
    }

    void notSettled(Place place, Deployment row, String reason) {
        changes.record(AuditTrail.Entry
                .of("paseo", "passage stays open", place.component() + " " + versions.byId(row.versionId()).number())
                .in(place.environment())
                .because("a test of what is live failed: " + reason).with("deployment", Long.toString(row.id())));
        passages.testFailed(row.versionId(), place.environmentId(), reason);
        people.testFailed(place, row, reason);
    }
}
