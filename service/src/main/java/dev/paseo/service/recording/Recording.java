package dev.paseo.service.recording;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.Plan;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.request.NewDeployments;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Writes down what is live already, on the day that Paseo is brought in. */
@Component
class Recording {

    private final Places places;
    private final NewDeployments deployments;
    private final Environments environments;
    private final RecordedAsLive recorded;
    private final Transactions transactions;

    Recording(Places places, NewDeployments deployments, Environments environments, RecordedAsLive recorded,
            Transactions transactions) {
        this.places = places;
        this.deployments = deployments;
        this.environments = environments;
        this.recorded = recorded;
        this.transactions = transactions;
    }

    /**
     * A version is live already, although nothing was deployed by Paseo: from now on that is known.
     *
     * @throws Refusal a conflict where the version has no deployment in its file, or the place says no
     */
    long record(Place place, Versions.Version version, Person person, String reason) {
        if (version.recipe().isEmpty()) {
            throw Refusal
                    .conflict(version.component() + " " + version.number() + " has no deployment in its pipeline file");
        }
        return transactions.in(() -> {
            long[] id = new long[1];
            places.require(place.id(), now -> {
                id[0] = deployments.recorded(now, version, person, reason);
                return Optional.of(new PlaceEvent.Recorded(id[0], version.number(), version.line(), version.order(),
                        environments.hosts(now.id()).stream()
                                .map(host -> new Plan.Host(host.name(), host.side(), false)).toList()));
            }, why -> Refusal.conflict(place.component() + " in " + place.environment() + ": " + why));
            recorded.follow(id[0], place, version, person, reason);
            return id[0];
        });
    }
}
