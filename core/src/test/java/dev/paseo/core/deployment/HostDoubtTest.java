package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.deployment.HostDoubt.Candidate;
import java.util.List;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

/** What a host has is said only where what was found fits one deployment alone. */
class HostDoubtTest {

    private static final Candidate LOST = new Candidate(2, true, true);
    private static final Candidate BEFORE = new Candidate(1, true, true);
    private static final Candidate NOT_LOST = new Candidate(2, true, false);
    private static final Candidate NOT_BEFORE = new Candidate(1, true, false);

    @Test
    void oneThatFitsIsWhatIsThere() {
        assertEquals(OptionalLong.of(2), HostDoubt.settled(List.of(LOST, NOT_BEFORE)));
        assertEquals(OptionalLong.of(1), HostDoubt.settled(List.of(NOT_LOST, BEFORE)));
        assertEquals(OptionalLong.of(2), HostDoubt.settled(List.of(LOST)));
    }

    @Test
    void noneOrMoreThanOneThatFitLeaveItUnknown() {
        assertEquals(OptionalLong.empty(), HostDoubt.settled(List.of(LOST, BEFORE)));
        assertEquals(OptionalLong.empty(), HostDoubt.settled(List.of(NOT_LOST, NOT_BEFORE)));
        assertEquals(OptionalLong.empty(), HostDoubt.settled(List.of()));
    }

    @Test
    void whereThereWasNothingToTellItByItStaysUnknown() {
        assertEquals(OptionalLong.empty(), HostDoubt.settled(List.of(new Candidate(2, false, true))));
        assertEquals(OptionalLong.empty(), HostDoubt.settled(List.of(new Candidate(2, false, true), NOT_BEFORE)));
    }
}
