package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.text.Word;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.change.Changes;
import dev.paseo.service.environment.Environments.Place;
import org.springframework.stereotype.Component;

/** What follows from a deployment's having another status: the trail, the people, its set. */
@Component
class StatusOutcomes {

    private final Changes changes;
    private final Causes causes;
    private final PeopleTold people;
    private final SetMembership sets;

    StatusOutcomes(Changes changes, Causes causes, PeopleTold people, SetMembership sets) {
        this.changes = changes;
        this.causes = causes;
        this.people = people;
        this.sets = sets;
    }

    void moved(Place place, Deployment row, DeploymentState deployment) {
        String because = causes.chain(row.causeId()).getFirst().sentence();
        changes
                .record(AuditTrail.Entry
                        .of("paseo", "deployment " + Word.of(deployment.status()),
                                place.component() + " " + deployment.version())
                        .in(place.environment()).because(deployment.ending().orElse(because))
                        .with("deployment", Long.toString(row.id()))
                        .with("cause", deployment.ending().map(why -> because).orElse("")));
        people.moved(place, row, deployment);
        if (row.promotionId() != null) {
            sets.lookAgain(row.promotionId(), row.id(), deployment.status());
        }
        changes.publish("whereabouts", place.component());
    }

    void tell(long deployment) {
        changes.publish("deployment", Long.toString(deployment));
    }
}
