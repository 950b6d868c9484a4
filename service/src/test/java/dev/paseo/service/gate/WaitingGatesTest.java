package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Evaluation.WaitsFor;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.outside.OutsideAsking;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What waits at a gate is listed with why, and told to those who are asked, once. */
class WaitingGatesTest {

    private static final Instant DUE = Rows.NOON.plusSeconds(3600);

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final Notices notices = mock(Notices.class);
    private final OutsideAsking asking = mock(OutsideAsking.class);
    private final WaitMapper mapper = database.mapper(WaitMapper.class);
    private final WaitingGates waits = new WaitingGates(mapper, notices, asking, noon.changes);
    private final Rows.Place row = database.rows().place();
    private final long version = database.rows().version(row.component(), database.rows().line(row.component()), 1);
    private final long deployment = database.rows().deployment(row.id(), version);
    private final long account = database.rows().account();
    private final String anna = database.name("account", account);
    private final Evaluation gate = mock(Evaluation.class);

    @BeforeEach
    void nothingWasVoided() {
        when(gate.outside()).thenReturn(List.of());
        when(gate.voided()).thenReturn(Set.of());
    }

    private Gates.AtGate at() {
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.id()).thenReturn(version);
        when(sealed.component()).thenReturn("path-board");
        when(sealed.number()).thenReturn("1.4.2");
        Environments.Place place = SomePlace.of(row, "path-board");
        return new Gates.AtGate(Gates.Standing.ofDeployment(deployment), place, new Environments.Environment(
                row.environment(), "production", "UTC", Rules.NONE, 1), sealed, Optional.empty(), "ben", Rows.NOON,
                Kind.PROMOTION, Optional.empty());
    }

    private Evaluation.Unmet unmet(WaitsFor what, String sentence, boolean nobody, String... people) {
        return new Evaluation.Unmet(what, "0 of 1 approvals", sentence, Optional.of(DUE), nobody,
                new Evaluation.Asked(Set.of(people), Set.of()));
    }

    private void judged(Evaluation.Unmet unmet) {
        when(gate.unmet()).thenReturn(Optional.ofNullable(unmet));
        noon.changes.run(() -> waits.keep(at(), gate));
    }

    private WaitingGates.Waiting waiting() {
        List<WaitingGates.Waiting> all = waits.forPerson(account, 9);
        assertEquals(1, all.size());
        return all.getFirst();
    }

    @Test
    void whatAsksSomebodyIsToldAndListed() {
        judged(unmet(WaitsFor.DECISION, "Two may say it.", false, anna));
        WaitingGates.Waiting kept = waiting();
        assertEquals("decision", kept.kind());
        assertEquals("0 of 1 approvals", kept.name());
        assertEquals("Two may say it.", kept.sentence());
        assertEquals(Optional.of(DUE), kept.due());
        assertEquals(Optional.of(new WaitingGates.Stand("0 of 1 approvals", true)), waits.stand(deployment, account));
        ArgumentCaptor<Notices.Said> said = ArgumentCaptor.captor();
        verify(notices).tell(eq(List.of(anna)), said.capture());
        assertEquals("Your decision: path-board 1.4.2 into production", said.getValue().title());
    }

    @Test
    void whoWasToldIsNotToldAgainAndWhoeverIsAskedNowIs() {
        String bert = database.name("account", database.rows().account());
        judged(unmet(WaitsFor.CHECKLIST, "", false, anna));
        judged(unmet(WaitsFor.CHECKLIST, "", false, anna, bert));
        judged(unmet(WaitsFor.CHECKLIST, "", false, anna, bert));
        verify(notices, times(1)).tell(eq(List.of(anna)), any());
        verify(notices, times(1)).tell(eq(List.of(bert)), any());
        assertEquals("checklist", waiting().kind());
    }

    @Test
    void whereNobodyIsLeftWhoMayItIsToldToAdministratorsOnce() {
        judged(unmet(WaitsFor.DECISION, "Nobody may.", true));
        judged(unmet(WaitsFor.DECISION, "Nobody may.", true));
        verify(notices, times(1)).tellAdministrators(any());
        assertEquals(true, waits.forNobody(500).stream()
                .anyMatch(each -> each.deployment().equals(Optional.of(deployment))));
    }

    @Test
    void whoeverApprovedWhatIsNoLongerItIsTold() {
        when(gate.voided()).thenReturn(Set.of("carl"));
        when(gate.whyVoided()).thenReturn(Optional.of("Carl's no longer counts."));
        judged(unmet(WaitsFor.DECISION, "", false, anna));
        ArgumentCaptor<Notices.Said> said = ArgumentCaptor.captor();
        verify(notices).tell(eq(Set.of("carl", "ben")), said.capture());
        assertEquals("Carl's no longer counts.", said.getValue().body());
    }

    @Test
    void whoIsOutsideIsAskedAndWhatIsOpenWaitsNoMore() {
        Criterion.Outside scan = new Criterion.Outside("scan", "http://127.0.0.1:1/", Optional.empty());
        when(gate.outside()).thenReturn(List.of(scan));
        judged(unmet(WaitsFor.DECISION, "", false, anna));
        verify(asking).ask(deployment, scan);
        assertEquals(1, waits.count(account));
        judged(null);
        assertEquals(0, waits.count(account));
        verify(notices, never()).tellAdministrators(any());
    }
}
