package dev.paseo.service.deployment;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Hosts are brought to what is live again, as it was deployed. */
@Component
class Repairs {

    private final Places places;
    private final Environments environments;
    private final HostStandings standings;
    private final AuditTrail audit;

    Repairs(Places places, Environments environments, HostStandings standings, AuditTrail audit) {
        this.places = places;
        this.environments = environments;
        this.standings = standings;
        this.audit = audit;
    }

    /**
     * The hosts that are repaired.
     *
     * @param named  none: those that differ from what is live or are unhealthy
     * @throws Refusal not found where a host is not one of the place; a conflict where nothing is live, nothing
     *                 differs, something is missing, or the place says no
     */
    List<String> repair(Place place, String by, List<String> named) {
        List<String> known = environments.hosts(place.id()).stream().map(Environments.PlaceHost::name).toList();
        named.stream().filter(host -> !known.contains(host)).findFirst().ifPresent(host -> {
            throw Refusal.notFound(place.component() + " has no host " + host + " in " + place.environment()
                    + "; it has " + String.join(", ", known));
        });
        Versions.Version live = places.requireLive(place);
        List<String> hosts = named.isEmpty() ? standings.differing(place) : named;
        if (hosts.isEmpty()) {
            throw Refusal.conflict("Every host of " + place.component() + " in " + place.environment()
                    + " has the live version and answers: nothing needs repair");
        }
        standings.lacking(place, live, hosts).ifPresent(why -> {
            throw Refusal.conflict("Nothing was started: " + why);
        });
        places.require(place.id(), now -> {
            audit.record(AuditTrail.Entry.of(by, "repair asked", place.component()).in(place.environment())
                    .with("hosts", String.join(", ", hosts)));
            return Optional.of(new PlaceEvent.TendAsked(hosts));
        }, reason -> Refusal.conflict("Nothing was started: " + reason));
        return hosts;
    }
}
