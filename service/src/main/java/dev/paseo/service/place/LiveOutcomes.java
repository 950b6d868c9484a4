package dev.paseo.service.place;

import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.version.Versions;
import org.springframework.stereotype.Component;

/** What follows from a deployment going live, and from its being taken back. */
@Component
class LiveOutcomes {

    private final Stretches stretches;
    private final Versions versions;
    private final Announcements announcements;
    private final LooseningReviews reviews;
    private final LiveTrail trail;

    LiveOutcomes(Stretches stretches, Versions versions, Announcements announcements, LooseningReviews reviews,
            LiveTrail trail) {
        this.stretches = stretches;
        this.versions = versions;
        this.announcements = announcements;
        this.reviews = reviews;
        this.trail = trail;
    }

    void wentLive(Place place, Deployment row) {
        trail.stated(place, row, "live now");
        stretch(place, true);
        versions.wentLive(row.id());
        Versions.Version version = versions.byId(row.versionId());
        announcements.live(place.component(), place.environment(), row.id(), version.number(), version.digest(),
                row.replacesId() != null);
        reviews.wentLive(place, row);
    }

    void takenBack(LoadedPlace now, Deployment row) {
        stretch(now.place(), trail.takenBack(now, row));
        versions.takenBack(row.id());
    }

    /** How long it has been healthy there is counted from now. */
    private void stretch(Place place, boolean live) {
        stretches.end(place.id());
        if (live) {
            stretches.begin(place.id());
        }
    }
}
