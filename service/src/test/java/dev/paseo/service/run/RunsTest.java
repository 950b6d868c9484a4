package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.announcement.Announcements;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The shell around a run: what was decided is stored once, and what follows is told. */
class RunsTest {

    private final AtNoon noon = new AtNoon();
    private final RunMapper mapper = mock(RunMapper.class);
    private final Components components = mock(Components.class);
    private final Announcements announcements = mock(Announcements.class);
    private final Effects effects = mock(Effects.class);
    private final Notices notices = mock(Notices.class);
    private final Runs runs = new Runs(mapper, components,
            new RunOutcomes(mapper, mock(WorkBoard.class), mock(Versions.class)),
            new RunEnds(mapper, effects, announcements, notices, noon.changes), noon.changes,
            RealDatabase.get().json());
    private Run run = run(RunStatus.WAITING);

    private static Run run(RunStatus status) {
        return new Run(4, 7, "daylight-api", 12, 3, "c0ffee", "main", true, 5, 40, "1.4.2", false, null, "Draw it",
                "Anna", null, null, "{}", status,
                RealDatabase.get().json().write(new RunState(status, List.of(), List.of(), false, Optional.empty())),
                2, 9, null, Rows.NOON, null, null);
    }

    @BeforeEach
    void itIsThere() {
        when(mapper.locked(4)).thenAnswer(call -> run);
        when(mapper.move(any())).thenReturn(1);
        when(mapper.endedBefore(3, 4)).thenReturn(Optional.empty());
        when(components.file(5)).thenReturn(new FileInForce(5, PipelineFileReader.read("""
                paseo: 1
                component: daylight-api
                versions: "1.{serial}"
                stages: {build: {steps: [make]}}
                """).value(), List.of(), List.of()));
    }

    @Test
    void whatIsCancelledIsToldToWhoeverListensAndMayStartWhatWaits() {
        runs.cancel(run, "anna");
        verify(announcements).runFinished("daylight-api", 12, 9, "cancelled", Optional.of("cancelled by anna"));
        verify(effects).add(any(), any(), eq(RunStarts.ENDED), eq("4"));
        verify(effects).add(any(), any(), eq(Lines.KIND), eq("3"));
        verify(noon.audit).record(AuditTrail.Entry.of("anna", "run cancel asked", "daylight-api#12"));
        verify(notices, never()).tellPushers(any(Long.class), any(), any());
    }

    @Test
    void whatHasEndedIsNotCancelled() {
        run = run(RunStatus.PASSED);
        Refused.by(Kind.CONFLICT, () -> runs.cancel(run, "anna"));
        verify(mapper, never()).move(any());
        verify(noon.audit, never()).record(any());
    }

    @Test
    void whatMovedOnMeanwhileIsALostRace() {
        when(mapper.move(any())).thenReturn(0);
        assertThrows(Transactions.LostRace.class, () -> runs.apply(run, new RunEvent.CancelAsked("cancelled by anna")));
        verify(announcements, never()).runFinished(any(), any(Long.class), any(Long.class), any(), any());
    }

    @Test
    void aRunIsNamedByItsNumber() {
        when(mapper.numbered("daylight-api", 13)).thenReturn(Optional.empty());
        assertEquals("There is no run daylight-api#13",
                Refused.by(Kind.NOT_FOUND, () -> runs.numbered("daylight-api", 13)));
    }

    @Test
    void aLogIsOfAStageThatThereIs() {
        when(mapper.stages(4)).thenReturn(List.of());
        StageViews stages = new StageViews(mapper, mock(StepLog.class), mock(Agents.class), mock(Takes.class),
                mock(Absences.class));
        assertEquals("daylight-api#12 has no stage test UTC in attempt 2",
                Refused.by(Kind.NOT_FOUND, () -> stages.logged(run, "test", "UTC", Optional.of(2))));
    }
}
