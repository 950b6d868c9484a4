package dev.paseo.service.deployment;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Removes what is live at a place, by its recipe's {@code removal}. */
@Component
public class Removals {

    private final Places places;

    Removals(Places places) {
        this.places = places;
    }

    /** Begins it; what waits there is withdrawn. */
    public void begin(long place, String why) {
        places.require(place, now -> Optional.of(new PlaceEvent.RemovalAsked(why)),
                reason -> Refusal.conflict("It is not removed: " + reason));
    }
}
