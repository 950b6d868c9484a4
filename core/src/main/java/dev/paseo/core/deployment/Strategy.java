package dev.paseo.core.deployment;

import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** In which order the hosts of a place get a version. */
public sealed interface Strategy {

    /** All at once. */
    record Together() implements Strategy {}

    /**
     * Some after the others.
     *
     * @param batch    how many at a time, at least 1
     * @param pause    between two batches
     * @param reversed the last of the place's hosts first
     * @param mayFail  how many hosts may fail without ending the deployment
     */
    record Rolling(int batch, Duration pause, boolean reversed, int mayFail) implements Strategy {}

    /**
     * The side without traffic is filled and checked, then gets all of the traffic.
     *
     * @param oldSideStays how long the other side keeps what it has, for an instant way back; zero: until the next
     *                     deployment
     */
    record BlueGreen(Duration oldSideStays) implements Strategy {}

    /** The side without traffic is filled and checked, then gets its share of the traffic little by little. */
    record Canary(List<Share> shares, Duration oldSideStays) implements Strategy {
        public Canary {
            shares = List.copyOf(shares);
        }
    }

    /**
     * One share of a canary.
     *
     * @param percent of the traffic, 1 to 99
     * @param stay    how long it stays so, checked all the while
     * @param facts   a condition over facts that has to hold after that, in CEL
     * @param asked   whether a person says that it goes on
     */
    record Share(int percent, Duration stay, Optional<String> facts, boolean asked) {}

    /** Whether it needs hosts on two sides, and something that moves traffic between them. */
    default boolean sided() {
        return this instanceof BlueGreen || this instanceof Canary;
    }
}
