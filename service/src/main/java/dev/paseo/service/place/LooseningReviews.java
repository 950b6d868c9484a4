package dev.paseo.service.place;

import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.loosening.Loosenings;
import org.springframework.stereotype.Component;

/** What goes live within a day of a loosening is reviewed: those who may are told. */
@Component
class LooseningReviews {

    private final Loosenings loosenings;
    private final PeopleTold people;

    LooseningReviews(Loosenings loosenings, PeopleTold people) {
        this.loosenings = loosenings;
        this.people = people;
    }

    void wentLive(Place place, Deployment row) {
        if (row.kind().reviewedIfLoosened()) {
            loosenings.wentLive(row.id(), place.environmentId(), place.componentId())
                    .ifPresent(loosened -> people.loosened(place, row, loosened));
        }
    }
}
