package dev.paseo.service.request;

import dev.paseo.core.access.Person;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** The gate that a request comes to. */
@Component
class RequestGate {

    private final PlaceGates gates;
    private final Deployments deployments;

    RequestGate(PlaceGates gates, Deployments deployments) {
        this.gates = gates;
        this.deployments = deployments;
    }

    /** With the authors of the version known. */
    long knowing(Place place, Versions.Version version, Supplier<Long> request) {
        return gates.knowing(place.id(), version, request);
    }

    /** What neither time nor a decision brings about is told to whoever asks at once, not discovered there. */
    void refuseUnmet(Place place, long id, Optional<Person> person) {
        person.flatMap(asks -> gates.evaluate(gates.atGate(place, deployments.get(id))).verdict().unmet().stream()
                .findFirst()).ifPresent(unmet -> {
                    throw Refusal.conflict(place.environment() + " does not take it: " + unmet.name() + ". "
                            + unmet.sentence());
                });
    }
}
