package dev.paseo.service.access;

import dev.paseo.core.access.BackOff;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Component;

/**
 * Who has failed to sign in, by account and by the address that asked. An account's owner waits half a minute at most,
 * and whoever shares an address with a guesser a minute, so that nobody shuts others out for long. Each replica counts
 * for itself.
 */
@Component
class FailedTries {

    private static final int MOST = 20_000;
    private static final int FREE_OF_ACCOUNT = 5;
    private static final int FREE_OF_ADDRESS = 50;
    static final Duration LONGEST_OF_ACCOUNT = Duration.ofSeconds(30);
    static final Duration LONGEST_OF_ADDRESS = Duration.ofMinutes(1);

    private final Map<String, BackOff> failures = new LinkedHashMap<>(64, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, BackOff> eldest) {
            return size() > MOST;
        }
    };

    /** How long until a try for this account from this address is looked at. */
    synchronized Duration left(String account, String address, Instant now) {
        Duration ofAccount = failures.getOrDefault("account " + account, BackOff.none()).left(now, FREE_OF_ACCOUNT,
                LONGEST_OF_ACCOUNT);
        Duration ofAddress = failures.getOrDefault("address " + address, BackOff.none()).left(now, FREE_OF_ADDRESS,
                LONGEST_OF_ADDRESS);
        return ofAccount.compareTo(ofAddress) > 0 ? ofAccount : ofAddress;
    }

    synchronized void failed(String account, String address, Instant now) {
        failures.merge("account " + account, BackOff.none().failed(now), (before, one) -> before.failed(now));
        failures.merge("address " + address, BackOff.none().failed(now), (before, one) -> before.failed(now));
    }

    /** A success forgets the account's failures, but not the address's: it may have guessed one of many. */
    synchronized void succeeded(String account) {
        failures.remove("account " + account);
    }
}
