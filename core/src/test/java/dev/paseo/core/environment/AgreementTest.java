package dev.paseo.core.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class AgreementTest {

    private static Agreement of(Map<String, Set<String>> asked, String... agreed) {
        return new Agreement("operator", new TreeMap<>(asked), Set.of(agreed));
    }

    private static final Map<String, Set<String>> ONE = Map.of("production",
            Set.of("approver-1", "approver-2", "operator"));

    @Test
    void whoWantsItNeverAgrees() {
        assertEquals(Optional.of("operator wants it, and somebody else agrees to it"), of(ONE).refusal("operator"));
        assertEquals(List.of("production"), of(ONE, "operator").open(), "not even where it was written down");
        assertEquals(Set.of("approver-1", "approver-2"), of(ONE).people());
    }

    @Test
    void oneOfThoseWhoAreNamedIsEnough() {
        assertEquals(Optional.empty(), of(ONE).refusal("approver-1"));
        assertEquals(List.of(), of(ONE, "approver-1").open());
        assertEquals(Optional.of("You are not asked: for production one of approver-1, approver-2 agrees"),
                of(ONE).refusal("developer"));
    }

    /** Each environment asks its own. */
    @Test
    void eachEnvironmentIsAgreedTo() {
        Map<String, Set<String>> two = Map.of("production", Set.of("approver-1"), "staging",
                Set.of("approver-2", "approver-1"));
        assertEquals(List.of("production"), of(two, "approver-2").open());
        assertEquals(List.of(), of(two, "approver-1").open(), "who is named by both agrees for both");
        assertEquals(Optional.of("approver-2 has agreed already"), of(two, "approver-2").refusal("approver-2"));
        assertEquals(Set.of("approver-1"), of(two, "approver-2").people());
    }

    @Test
    void itExpiresAfterAWeek() {
        Instant wanted = Instant.parse("2026-11-28T12:00:00Z");
        assertFalse(Agreement.expired(wanted, wanted.plus(Agreement.EXPIRES).minusMillis(1)));
        assertTrue(Agreement.expired(wanted, wanted.plus(Agreement.EXPIRES)));
    }
}
