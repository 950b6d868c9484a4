package dev.paseo.service.host;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.api.agent.Watch;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.host.HostReportMapper.ReportRow;
import dev.paseo.service.host.HostReportMapper.WatchedRow;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refused;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What agents report of hosts is taken of those that they watch, and of no other. */
class HostWatchTest {

    private static final String DIGEST = "0".repeat(64);

    private final AtNoon noon = new AtNoon();
    private final HostReportMapper mapper = mock(HostReportMapper.class);
    private final Environments environments = mock(Environments.class);
    private final Stretches stretches = mock(Stretches.class);
    private final Deployments deployments = mock(Deployments.class);
    private final HostTrail trail = new HostTrail(environments, noon.changes);
    private final HostWatch watch = new HostWatch(mapper,
            new HostHealths(mapper, environments, stretches, trail, noon.clock),
            new HostFindings(environments, mock(HostTasks.class), deployments, mock(Places.class), trail),
            noon.changes);

    @BeforeEach
    void oneHostIsWatched() {
        when(mapper.watched(4, 9L)).thenReturn(List.of(new WatchedRow(3, 9, 11)));
        when(mapper.of(anyLong(), anyLong())).thenReturn(Optional.empty());
        when(environments.hostName(9)).thenReturn("north-hut");
        when(environments.placeById(3)).thenReturn(SomePlace.of("path-board"));
    }

    private void report(long host, Optional<String> failing, Map<String, String> differing) {
        watch.report(4, Optional.of(9L),
                new Watch.Report(List.of(new Watch.Seen(3, host, 11, differing, failing)), 0, 0));
    }

    private ReportRow kept() {
        ArgumentCaptor<ReportRow> row = ArgumentCaptor.captor();
        verify(mapper).keep(row.capture());
        return row.getValue();
    }

    @Test
    void ofAnotherHostNothingIsTaken() {
        report(10, Optional.of("no answer"), Map.of());
        verify(mapper, never()).keep(any());
        verify(noon.audit, never()).record(any());
    }

    @Test
    void theThirdFailureInARowEndsItsStretchAndIsRecorded() {
        when(mapper.of(3, 9)).thenReturn(
                Optional.of(new ReportRow(3, 9, "north-hut", 11, Rows.NOON, 2, "no answer", null, null, null)));
        report(9, Optional.of("no answer"), Map.of());
        assertEquals(3, kept().failures());
        verify(stretches).end(3);
        verify(noon.audit).record(
                AuditTrail.Entry.of("north-hut", "unhealthy", "path-board").in("production").because("no answer"));
        verify(noon.live).publish("whereabouts", "path-board");
    }

    @Test
    void whatWasReportedOfAnotherDeploymentDoesNotCount() {
        when(mapper.of(3, 9)).thenReturn(
                Optional.of(new ReportRow(3, 9, "north-hut", 10, Rows.NOON, 2, "no answer", null, null, null)));
        report(9, Optional.of("no answer"), Map.of());
        assertEquals(1, kept().failures());
        verify(stretches, never()).end(anyLong());
    }

    @Test
    void filesThatDifferAreDriftWhichSaysWhich() {
        Map<String, String> differing = new LinkedHashMap<>(Map.of("etc/board.conf", DIGEST));
        differing.put("bin/board", "");
        report(9, Optional.empty(), differing);
        String sentence = "bin/board is not there; etc/board.conf has other bytes, sha256 " + DIGEST;
        assertEquals(sentence, kept().drift());
        verify(noon.audit).record(
                AuditTrail.Entry.of("north-hut", "drift", "path-board").in("production").because(sentence));
    }

    @Test
    void whatIsNoDigestIsRefused() {
        for (String wrong : List.of("x", DIGEST + "0", DIGEST.replace('0', 'A'))) {
            Refused.field("/seen/differing", () -> report(9, Optional.empty(), Map.of("etc/board.conf", wrong)));
        }
        Refused.field("/seen/differing", () -> report(9, Optional.empty(), Map.of("x".repeat(4097), DIGEST)));
        verify(mapper, never()).keep(any());
    }

    @Test
    void whereNobodyKnowsWhatAHostHasAReportIsNoHealth() {
        when(deployments.isUnknown(3, 9)).thenReturn(true);
        Environments.PlaceHost host = mock(Environments.PlaceHost.class);
        when(environments.host(3, 9)).thenReturn(Optional.of(host));
        HostTasks tasks = mock(HostTasks.class);
        when(tasks.watched(any(), any())).thenReturn(new HostTasks.Watched(Map.of(), List.of(), Optional.empty()));
        new HostWatch(mapper, new HostHealths(mapper, environments, stretches, trail, noon.clock),
                new HostFindings(environments, tasks, deployments, mock(Places.class), trail), noon.changes)
                .report(4, Optional.of(9L), new Watch.Report(
                        List.of(new Watch.Seen(3, 9, 11, Map.of(), Optional.of("no answer"))), 0, 0));
        verify(mapper, never()).keep(any());
    }
}
