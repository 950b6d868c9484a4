package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Tick;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class GateDecisionsTest {

    private final GateDecisionMapper mapper = mock(GateDecisionMapper.class);
    private final GateDecisions decisions = new GateDecisions(mapper, mock(ServiceClock.class),
            RealDatabase.get().json());
    private final Evaluation gate = mock(Evaluation.class);

    private void tick(String item) {
        decisions.tick(Gates.Standing.ofDeployment(11), gate, 1,
                new Tick(item, "anna", Tick.Outcome.DONE, "", Rows.NOON), Optional.empty());
    }

    @Test
    void anItemIsOnTheListAndTickedByWhoIsAsked() {
        when(gate.checklists()).thenReturn(List.of(new Criterion.Checklist(List.of("testers"),
                List.of("Board shows the time", "Old links work"))));
        when(gate.tickRefusal(anyString(), anyString())).thenReturn(Optional.of("anna is not one of testers"));
        assertEquals("“Old links” is not on the list; known: Board shows the time, Old links work",
                Refused.by(Kind.NOT_FOUND, () -> tick("Old links")));
        assertEquals("anna is not one of testers", Refused.by(Kind.NOT_ALLOWED, () -> tick("Old links work")));
        verify(mapper, never()).addTick(anyLong(), any(), anyLong(), any(), any());
        when(gate.tickRefusal(anyString(), anyString())).thenReturn(Optional.empty());
        tick("Old links work");
        verify(mapper).addTick(any(), any(), anyLong(), any(), any());
    }
}
