package dev.paseo.core.signature;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class KeyRingTest {

    private static final Instant MAY = Instant.parse("2026-05-01T08:00:00Z");
    private static final Instant JUNE = Instant.parse("2026-06-01T08:00:00Z");
    private static final byte[] BYTES = "what is signed".getBytes(StandardCharsets.UTF_8);
    private final SigningPair first = SigningPair.fresh();
    private final SigningPair second = SigningPair.fresh();
    private final SigningPair third = SigningPair.fresh();
    private final KeyRing ring = first.ring().with(first.renewedBy(second, MAY)).with(second.renewedBy(third, JUNE));

    @Test
    void whatIsWrittenIsReadAndOneKeyIsARing() {
        assertEquals(ring, KeyRing.of(ring.text()));
        assertEquals(ring, KeyRing.of(ring.text() + "\n"));
        assertEquals(first.ring(), KeyRing.of(first.text()));
        assertEquals(third.text(), ring.newest());
        assertEquals(List.of(Optional.empty(), Optional.of(MAY), Optional.of(JUNE)),
                ring.terms().stream().map(KeyRing.Term::since).toList());
        assertEquals(Ed25519.print(third.pair().getPublic()), ring.terms().getLast().print());
    }

    @Test
    void whatAnyOfThemSignedIsGoodAndNothingElse() {
        for (SigningPair each : List.of(first, second, third)) {
            assertTrue(ring.signer(BYTES, each.sign(BYTES)).isPresent());
        }
        assertFalse(ring.signer(BYTES, SigningPair.fresh().sign(BYTES)).isPresent());
    }

    @Test
    void aKeyThatWasRenewedCountsForAMinuteMore() {
        String signature = first.sign(BYTES);
        assertTrue(ring.good(BYTES, MAY.minusSeconds(1), signature));
        assertTrue(ring.good(BYTES, MAY.plus(KeyRing.OVERLAP), signature));
        assertFalse(ring.good(BYTES, MAY.plus(KeyRing.OVERLAP).plus(Duration.ofMillis(1)), signature));
        assertTrue(ring.good(BYTES, JUNE.plus(Duration.ofDays(365)), third.sign(BYTES)));
    }

    @Test
    void aKeyThatTheOneBeforeHasNotSignedIsRefused() {
        KeyRing.Renewal stolen = third.renewedBy(second, MAY);
        assertEquals("the key of 2026-05-01T08:00:00Z is not signed by the one before",
                assertThrows(IllegalArgumentException.class, () -> first.ring().with(stolen)).getMessage());
        KeyRing.Renewal moved = new KeyRing.Renewal(second.text(), JUNE, first.renewedBy(second, MAY).signature());
        assertThrows(IllegalArgumentException.class, () -> first.ring().with(moved));
    }

    @Test
    void noSingleCharacterOfARingCanBeChanged() {
        String text = ring.text();
        for (int at = first.text().length() + 1; at < text.length(); at++) {
            StringBuilder changed = new StringBuilder(text);
            changed.setCharAt(at, text.charAt(at) == '7' ? '8' : '7');
            assertThrows(IllegalArgumentException.class, () -> KeyRing.of(changed.toString()), changed::toString);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " \n ", "no key", "AAAA", "AAAA 2026-05-01T08:00:00Z AAAA"})
    void whatIsNoRingIsRefused(String text) {
        assertThrows(IllegalArgumentException.class, () -> KeyRing.of(text));
        assertThrows(IllegalArgumentException.class, () -> KeyRing.of(first.text() + "\n" + text + "x"));
    }

    @Test
    void whoeverTrustsOneTrustsThoseBehindIt() {
        assertEquals(Optional.of(ring), ring.from(first.ring()));
        KeyRing later = ring.from(third.ring()).orElseThrow();
        assertEquals(third.ring(), later);
        assertFalse(later.signer(BYTES, first.sign(BYTES)).isPresent());
        assertEquals(Optional.of(ring), ring.from(first.ring().with(first.renewedBy(second, MAY))));
        assertEquals(Optional.of(ring), first.ring().from(ring), "what is known already still ends the first one");
        assertEquals(Optional.empty(), ring.from(SigningPair.fresh().ring()));
    }

    @Test
    void aRenewalByWhoStoleAKeyIsNotBelievedByWhoKeptTheTrueOne() {
        SigningPair thief = SigningPair.fresh();
        KeyRing forged = first.ring().with(first.renewedBy(thief, MAY));
        KeyRing kept = first.ring().with(first.renewedBy(second, MAY));
        assertEquals(Optional.empty(), forged.from(kept));
        assertEquals(kept, forged.believed(Optional.of(kept)));
        assertFalse(forged.believed(Optional.of(kept)).signer(BYTES, thief.sign(BYTES)).isPresent());
    }
}
