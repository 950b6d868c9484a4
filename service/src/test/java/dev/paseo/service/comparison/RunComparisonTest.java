package dev.paseo.service.comparison;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.evidence.EvidenceViews;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.run.Run;
import dev.paseo.service.run.RunViews;
import dev.paseo.service.run.Runs;
import org.junit.jupiter.api.Test;

class RunComparisonTest {

    @Test
    void runsOfTwoComponentsAreNotCompared() {
        Run before = mock(Run.class);
        Run after = mock(Run.class);
        when(before.componentId()).thenReturn(3L);
        when(after.componentId()).thenReturn(4L);
        RunComparison comparison = new RunComparison(mock(Runs.class), mock(RunViews.class), mock(EvidenceViews.class));
        assertEquals("Only runs of the same component can be compared",
                Refused.by(Kind.CONFLICT, () -> comparison.compare(before, after)));
    }
}
