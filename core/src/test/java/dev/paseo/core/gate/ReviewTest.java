package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ReviewTest {

    private static Optional<String> refusal(String person, String requester, String loosenedBy) {
        return Review.refusal(7, person, Optional.ofNullable(requester), Optional.ofNullable(loosenedBy));
    }

    @Test
    void whoHadAPartInItDoesNotReviewIt() {
        assertEquals(Optional.of("developer asked for deployment 7, and somebody else reviews it"),
                refusal("developer", "developer", null));
        assertEquals(Optional.of("operator loosened what deployment 7 went live under, and somebody else reviews it"),
                refusal("operator", "developer", "operator"));
        assertEquals(Optional.empty(), refusal("approver-1", "developer", "operator"));
        assertEquals(Optional.empty(), refusal("approver-1", null, null), "of the walk everybody may");
    }

    @Test
    void aLooseningCountsForADayAndAReviewIsDueInThree() {
        Instant now = Instant.parse("2026-11-28T12:00:00Z");
        assertEquals(Instant.parse("2026-11-27T12:00:00Z"), Review.since(now));
        assertEquals(Instant.parse("2026-12-01T12:00:00Z"), Review.due(now));
    }
}
