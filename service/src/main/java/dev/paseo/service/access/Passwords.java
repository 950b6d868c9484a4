package dev.paseo.service.access;

import dev.paseo.service.problem.Refusal;
import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Hashes of passwords. Each takes time and memory on purpose, so few are worked out at once and the others wait their
 * turn.
 */
@Component
public class Passwords {

    static final int SHORTEST = 10;
    /** As long as signing in takes it. */
    public static final int LONGEST = 200;
    private static final Duration PATIENCE = Duration.ofSeconds(5);

    private final PasswordEncoder encoder;
    private final Semaphore turns;
    private final Duration patience;
    private final String nobodys;

    @Autowired
    Passwords(PasswordEncoder encoder) {
        this(encoder, Math.max(1, Runtime.getRuntime().availableProcessors() / 2), PATIENCE);
    }

    Passwords(PasswordEncoder encoder, int atOnce, Duration patience) {
        this.encoder = encoder;
        this.nobodys = encoder.encode(Tokens.fresh("nobody"));
        this.turns = new Semaphore(atOnce, true);
        this.patience = patience;
    }

    private interface Work<T> {
        T done();
    }

    private <T> T inTurn(Work<T> work) {
        try {
            if (!turns.tryAcquire(patience.toMillis(), TimeUnit.MILLISECONDS)) {
                throw Refusal.tooMany("Too many people are signing in at once; try again", patience);
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
            throw Refusal.unavailable("The service is stopping; try again in a minute");
        }
        try {
            return work.done();
        } finally {
            turns.release();
        }
    }

    String hash(String password) {
        if (password.codePointCount(0, password.length()) < SHORTEST
                || password.codePointCount(0, password.length()) > LONGEST) {
            throw Refusal.invalid("/password", "A password has " + SHORTEST + " to " + LONGEST + " characters");
        }
        return inTurn(() -> encoder.encode(password));
    }

    /** It takes the same time where there is no hash to compare with. */
    boolean matches(String password, String hash) {
        return inTurn(() -> encoder.matches(password, hash.isEmpty() ? nobodys : hash)) && !hash.isEmpty();
    }
}
