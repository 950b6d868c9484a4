package dev.paseo.service.deployment;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What people say to a deployment that waits or is under way: cancel it; go on, or do not. */
@Component
class Interventions {

    private final Deployments deployments;
    private final Places places;
    private final AuditTrail audit;

    Interventions(Deployments deployments, Places places, AuditTrail audit) {
        this.deployments = deployments;
        this.places = places;
        this.audit = audit;
    }

    /** @throws Refusal a conflict where it is over, or cannot go back any more */
    void cancel(long id, Person person) {
        Deployment row = deployments.get(id);
        places.require(row.placeId(), place -> {
            audit.record(AuditTrail.Entry.of(person.name(), "deployment cancel asked", place.component())
                    .in(place.environment()).with("deployment", Long.toString(id)));
            return Optional.of(new PlaceEvent.CancelAsked(id, person.name()));
        }, reason -> Refusal.conflict("Deployment " + id + " cannot be cancelled: " + reason));
    }

    /**
     * A person says whether it goes on where the plan asks.
     *
     * @throws Refusal a conflict where it asks nothing
     */
    void answer(long id, Person person, boolean yes) {
        Deployment row = deployments.get(id);
        places.require(row.placeId(), place -> {
            audit.record(AuditTrail.Entry
                    .of(person.name(), yes ? "said go on" : "said do not go on", place.component())
                    .in(place.environment()).with("deployment", Long.toString(id)));
            return Optional.of(new PlaceEvent.Answered(id, person.name(), yes));
        }, reason -> Refusal.conflict("Nothing was decided: " + reason));
    }
}
