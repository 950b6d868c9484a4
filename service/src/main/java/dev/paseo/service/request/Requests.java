package dev.paseo.service.request;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Requests for deployments, by people and by the walk. */
@Component
public class Requests {

    private final Places places;
    private final RequestGate gate;
    private final Preparation preparation;
    private final NewDeployments deployments;
    private final RequestTrail trail;

    Requests(Places places, RequestGate gate, Preparation preparation, NewDeployments deployments, RequestTrail trail) {
        this.places = places;
        this.gate = gate;
        this.preparation = preparation;
        this.deployments = deployments;
        this.trail = trail;
    }

    /**
     * The deployment's number.
     *
     * @throws Refusal a conflict where it could not be deployed there at all, where the place says no, and, of what a
     *                 person asks for, where a criterion is unmet that neither time nor a decision brings about
     */
    public long request(Wanted wanted) {
        Preparation.recipe(wanted.version());
        preparation.require(wanted.place(), wanted.version());
        return gate.knowing(wanted.place(), wanted.version(), () -> added(wanted));
    }

    private long added(Wanted wanted) {
        Place place = wanted.place();
        Versions.Version version = wanted.version();
        long[] id = new long[1];
        places.require(place.id(), now -> {
            id[0] = deployments.add(now, wanted);
            if (wanted.emergency().isEmpty()) {
                gate.refuseUnmet(now, id[0], wanted.person());
            }
            trail.record(id[0], now, wanted);
            return Optional.of(new PlaceEvent.Requested(preparation.planned(id[0], now, wanted)));
        }, reason -> Refusal.conflict(version.component() + " " + version.number() + " is not requested into "
                + place.environment() + ": " + reason));
        return id[0];
    }
}
