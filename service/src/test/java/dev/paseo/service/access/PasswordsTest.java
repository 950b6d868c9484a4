package dev.paseo.service.access;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

class PasswordsTest {

    private final Passwords passwords = new Passwords(new PasswordHashes().passwordEncoder());

    @Test
    void aHashTakesMemoryAndTime() {
        assertTrue(passwords.hash("long enough for us").startsWith("$argon2id$v=19$m=16384,t=2,p=1$"));
    }

    @Test
    void aPasswordHasTenToTwoHundredCharacters() {
        for (String wrong : List.of("", "x".repeat(9), "x".repeat(201))) {
            assertEquals("A password has 10 to 200 characters",
                    Refused.field("/password", () -> passwords.hash(wrong)));
        }
        String hash = passwords.hash("\uD83D\uDE00".repeat(10));
        assertTrue(passwords.matches("\uD83D\uDE00".repeat(10), hash), "characters are counted, not their halves");
    }

    @Test
    void whoeverWaitsWhileTheServiceStopsIsToldToComeAgain() {
        Thread.currentThread().interrupt();
        assertEquals("The service is stopping; try again in a minute",
                Refused.by(Kind.UNAVAILABLE, () -> passwords.hash("long enough for us")));
        assertTrue(Thread.interrupted(), "whoever stops it is heard further up");
    }

    @Test
    void whoeverGetsNoTurnIsToldSo() {
        Passwords busy = new Passwords(new PasswordHashes().passwordEncoder(), 0, Duration.ofMillis(1));
        assertEquals("Too many people are signing in at once; try again",
                Refused.by(Kind.TOO_MANY, () -> busy.hash("long enough for us")));
    }

    @Test
    void nothingMatchesAnAccountWithoutAPassword() {
        assertFalse(passwords.matches("", ""));
        assertFalse(passwords.matches("anything at all", ""));
    }
}
