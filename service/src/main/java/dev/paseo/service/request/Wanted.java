package dev.paseo.service.request;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.version.Versions;
import java.util.Optional;
import java.util.function.LongUnaryOperator;

/**
 * The deployment that is wanted.
 *
 * @param person    none: the walk or a push
 * @param emergency the reason for which it goes past unmet criteria, hold and closure
 * @param promotion of the set that it is requested with: takes the deployment's number, within its transaction, and
 *                  gives the promotion's
 */
public record Wanted(Place place, Versions.Version version, Kind kind, Optional<Person> person, Cause cause,
        Optional<String> emergency, Optional<LongUnaryOperator> promotion) {
    public Wanted(Place place, Versions.Version version, Kind kind, Optional<Person> person, Cause cause,
            Optional<String> emergency) {
        this(place, version, kind, person, cause, emergency, Optional.empty());
    }
}
