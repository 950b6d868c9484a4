package dev.paseo.service.request;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The walk asks by itself. Where something is missing there it stays, and is tried again; where it would go backwards,
 * or twice, that is written down and ends it.
 */
@Component
public class WalkRequests {

    private final Requests requests;
    private final Preparation preparation;
    private final WalkStays stays;

    WalkRequests(Requests requests, Preparation preparation, WalkStays stays) {
        this.requests = requests;
        this.preparation = preparation;
        this.stays = stays;
    }

    public void into(Place place, Versions.Version version, String from) {
        Optional<String> lacks = preparation.lacking(place, version);
        if (lacks.isPresent()) {
            stays.stays(version, place.environment(), from, lacks.get());
            return;
        }
        try {
            requests.request(new Wanted(place, version, Kind.PROMOTION, Optional.empty(),
                    new Cause.Walk(version.component(), version.number(), from), Optional.empty()));
        } catch (Refusal refused) {
            if (refused.kind() != Refusal.Kind.CONFLICT) {
                throw refused;
            }
            stays.ends(version, place.environment(), String.valueOf(refused.getMessage()));
            return;
        }
        stays.goesOn(version, place.environment());
    }
}
