package dev.paseo.core.deployment;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How a host was found by those who look at it again and again.
 *
 * @param failures       how many looks in a row found something failing
 * @param unhealthySince from when on that were too many
 * @param drift          in which way its files are not those that were deployed
 * @param driftedSince   from when on
 */
public record HostHealth(int failures, Optional<Instant> unhealthySince, Optional<String> drift,
        Optional<Instant> driftedSince) {

    /** Nobody has looked yet. */
    public static final HostHealth UNSEEN = new HostHealth(0, Optional.empty(), Optional.empty(), Optional.empty());

    /** So many looks in a row that find something failing make it unhealthy. */
    private static final int UNHEALTHY = 3;

    /** What a look has changed. */
    public enum Change {
        DRIFT("drift"), DRIFT_ENDED("drift ended"), UNHEALTHY("unhealthy"), HEALTHY_AGAIN("healthy again");

        private final String words;

        Change(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** After one more look. */
    public HostHealth seen(boolean failing, Optional<String> differing, Instant now) {
        int inARow = failing ? failures + 1 : 0;
        return new HostHealth(inARow, inARow < UNHEALTHY ? Optional.empty() : unhealthySince.or(() -> Optional.of(now)),
                differing,
                differing.isEmpty() ? Optional.empty() : driftedSince.or(() -> Optional.of(now)));
    }

    /** What is not as it was. */
    public List<Change> since(HostHealth before) {
        List<Change> changes = new ArrayList<>();
        if (drift.isPresent() != before.drift.isPresent()) {
            changes.add(drift.isPresent() ? Change.DRIFT : Change.DRIFT_ENDED);
        }
        if (unhealthySince.isPresent() != before.unhealthySince.isPresent()) {
            changes.add(unhealthySince.isPresent() ? Change.UNHEALTHY : Change.HEALTHY_AGAIN);
        }
        return changes;
    }
}
