package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Work is taken once, held by its lease alone, and ended once; whoever it belongs to hears of it at that moment. */
class WorkBoardTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final WorkMapper mapper = database.mapper(WorkMapper.class);
    private final Nudge nudge = mock(Nudge.class);
    private final Settings settings = mock(Settings.class);
    private final WorkBoard board = new WorkBoard(mapper, noon.changes, nudge, settings, database.json());
    private final WorkOwner owner = mock(WorkOwner.class);
    private final WorkOwner.Held held = mock(WorkOwner.Held.class);
    private final Rows.Place place = database.rows().place();
    private final long host = database.rows().host(place.id());
    private final long deployment = database.rows().deployment(place.id(),
            database.rows().version(place.component(), database.rows().line(place.component()), 1));
    private final Agents.Agent agent = agent();
    private Owners owners;

    private Agents.Agent agent() {
        return new Agents.Agent(database.rows().agent(), "agent", Optional.of(host), Optional.empty(), List.of(), false,
                Optional.empty(), true, new Agents.Walls(Optional.empty(), false, true));
    }

    @BeforeEach
    void somethingIsToBeInstalled() {
        when(settings.leaseSeconds()).thenReturn(60);
        when(settings.takeWithin()).thenReturn(Duration.ofMinutes(5));
        when(owner.kinds()).thenReturn(Set.of(Assignment.Kind.INSTALL));
        when(owner.lock(any())).thenReturn(held);
        when(held.taken(anyString())).thenReturn(true);
        owners = new Owners(List.of(owner));
        board.offerOnHost(Assignment.Kind.INSTALL, deployment, host);
    }

    private WorkBoard.Taken take() {
        return board.take(agent, owners).orElseThrow();
    }

    private void later(long seconds) {
        when(noon.clock.now()).thenReturn(Rows.NOON.plusSeconds(seconds));
    }

    @Test
    void whatIsTakenIsHeldByItsLeaseAndByNobodyElse() {
        WorkBoard.Taken taken = take();
        assertEquals(1, taken.work().fence());
        assertEquals(Rows.NOON.plusSeconds(60), taken.work().leaseUntil());
        assertEquals(taken.work().id(), board.held(taken.leaseToken()).id());
        assertEquals(Optional.empty(), board.take(agent(), owners), "it is taken");
        assertEquals("This lease has ended", Refused.by(Kind.GONE, () -> board.held("paseo-lease_other")));
        verify(held).taken("agent");
    }

    /** It was cancelled while it was on offer: it is over, and nothing is done. */
    @Test
    void whatIsNoLongerWantedIsNotGivenOut() {
        when(held.taken(anyString())).thenReturn(false);
        assertEquals(Optional.empty(), board.take(agent, owners));
        when(held.taken(anyString())).thenReturn(true);
        assertEquals(Optional.empty(), board.take(agent, owners));
    }

    @Test
    void itEndsOnceAndSayingItAgainIsFine() {
        WorkBoard.Taken taken = take();
        Lease.Result passed = new Lease.Result(1, Lease.Outcome.PASSED, "", true);
        assertTrue(board.end(taken.leaseToken(), passed, owners));
        assertTrue(board.end(taken.leaseToken(), passed, owners), "its answer was lost, and it says it again");
        verify(held, times(1)).ended(Lease.Outcome.PASSED, "", true);
    }

    @Test
    void whoHoldsAnOlderLeaseEndsNothing() {
        WorkBoard.Taken lost = take();
        WorkBoard.Taken again = board.sendAgain(agent, List.of()).orElseThrow();
        assertEquals(2, again.work().fence());
        assertFalse(board.end(lost.leaseToken(), new Lease.Result(1, Lease.Outcome.PASSED, "", true), owners));
        assertFalse(board.end(again.leaseToken(), new Lease.Result(1, Lease.Outcome.PASSED, "", true), owners));
        assertEquals(Optional.empty(), board.heartbeat(lost.work(), 1));
        verify(held, never()).ended(any(), anyString(), anyBoolean());
        assertEquals(Optional.empty(), board.sendAgain(agent, List.of(again.work().id())), "it has that");
    }

    @Test
    void aHeartbeatHearsWhatIsWantedOfIt() {
        WorkBoard.Taken taken = take();
        later(30);
        assertEquals(Optional.of(Lease.Stop.NO), board.heartbeat(taken.work(), 1));
        assertEquals(Rows.NOON.plusSeconds(90), mapper.byId(taken.work().id()).orElseThrow().leaseUntil());
        board.stopOnHost(deployment, host, false);
        assertEquals(Optional.of(Lease.Stop.GENTLY), board.heartbeat(taken.work(), 1));
    }

    @Test
    void whoseAgentIsNotHeardOfIsGivenUpOnlyOnceItsTimeIsOver() {
        WorkBoard.Taken taken = take();
        later(60);
        board.giveUp(taken.work(), owners);
        verify(held, never()).ended(any(), anyString(), anyBoolean());
        later(61);
        board.giveUp(taken.work(), owners);
        board.giveUp(taken.work(), owners);
        verify(held, times(1)).ended(Lease.Outcome.LOST, "its agent was not heard of for 60 s", true);
    }

    @Test
    void whatNobodyTookEndsWithWhy() {
        Work offered = mapper.offered(agent.id(), host, "[]", true).getFirst();
        board.notTaken(offered, owners);
        board.notTaken(offered, owners);
        verify(held, times(1)).ended(Lease.Outcome.FAILED,
                "its agent did not take the work within 300 s; is it running?", false);
    }

    @Test
    void whatWasStoppedBeforeItWasTakenSaysSo() {
        Work offered = mapper.offered(agent.id(), host, "[]", true).getFirst();
        board.stopOnHost(deployment, host, false);
        assertEquals(Optional.empty(), board.take(agent, owners), "it is offered to nobody any more");
        board.notTaken(mapper.byId(offered.id()).orElseThrow(), owners);
        verify(held).ended(Lease.Outcome.STOPPED, "stopped before its agent took it", false);
    }

    @Test
    void whatIsOfferedOnAHostCanBeTakenBack() {
        assertTrue(board.installOffered(place.id(), host));
        board.withdrawInstall(deployment, host);
        assertFalse(board.installOffered(place.id(), host));
        assertEquals(Optional.empty(), board.take(agent, owners));
    }
}
