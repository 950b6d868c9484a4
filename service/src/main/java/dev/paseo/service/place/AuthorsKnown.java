package dev.paseo.service.place;

import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.gate.Authorship;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** Sees to it that the authors of what is proposed for a place are known, which git is asked for. */
@Component
class AuthorsKnown {

    private static final int LEARNED_AGAIN = 10;

    private final PlaceRepository repository;
    private final AtGates atGates;
    private final Authorship authorship;
    private final Environments environments;
    private final Versions versions;

    AuthorsKnown(PlaceRepository repository, AtGates atGates, Authorship authorship, Environments environments,
            Versions versions) {
        this.repository = repository;
        this.atGates = atGates;
        this.authorship = authorship;
        this.environments = environments;
        this.versions = versions;
    }

    /** Asks git, outside the transaction, who wrote what is proposed there. */
    void learn(long place) {
        Optional<String> live = repository.version(environments.placeById(place)).flatMap(Versions.Version::commit);
        repository.open(place).forEach(row -> {
            Versions.Version version = versions.byId(row.versionId());
            version.commit().ifPresent(commit -> authorship.learn(version.componentId(), live, commit));
            atGates.ofSet(environments.placeById(place), row)
                    .ifPresent(set -> set.others().forEach(other -> learn(other.place(), other.version())));
        });
    }

    /** The same for a version that is about to be requested. */
    void learn(Place place, Versions.Version version) {
        Optional<String> live = repository.version(place).flatMap(Versions.Version::commit);
        version.commit().ifPresent(commit -> authorship.learn(version.componentId(), live, commit));
    }

    /**
     * Does what needs the authors of a version known; where what is live moved on in between, they are learned again.
     */
    <T> T knowing(long place, Versions.Version version, Supplier<T> what) {
        for (int times = 1;; times++) {
            learn(place);
            learn(environments.placeById(place), version);
            try {
                return what.get();
            } catch (Gates.AuthorsUnknown movedOn) {
                if (times == LEARNED_AGAIN) {
                    throw Refusal.unavailable("What is live there keeps changing: try again");
                }
            }
        }
    }
}
