package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.argThat;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.DeploymentState;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.HostState;
import dev.paseo.core.deployment.HostTask;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEffect;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.PlaceSnapshot;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.place.PlaceRepository.LoadedPlace;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The shell does what the core decides, and keeps how each gate stands and when to look again. */
class PlacesTest {

    private static final Place PLACE = SomePlace.of("path-board");

    private final PlaceRepository repository = mock(PlaceRepository.class);
    private final Gates gates = mock(Gates.class);
    private final WaitingGates waits = mock(WaitingGates.class);
    private final Planner planner = mock(Planner.class);
    private final AtGates atGates = mock(AtGates.class);
    private final Beginnings beginnings = mock(Beginnings.class);
    private final Outcomes outcomes = mock(Outcomes.class);
    private final Places places = new Places(repository,
            new JudgedGates(gates, waits, atGates, planner, mock(Versions.class)), beginnings, outcomes,
            new AtNoon().changes);
    private final Deployment row = mock(Deployment.class);
    private final Evaluation gate = mock(Evaluation.class);

    @BeforeEach
    void oneWaits() {
        when(row.id()).thenReturn(11L);
        when(repository.place(3)).thenReturn(PLACE);
        when(repository.aheadAndBlocked(3)).thenReturn(List.of());
        DeploymentState waiting = new DeploymentState(11, "1.4.2", 1, 2, Kind.PROMOTION, false,
                DeploymentStatus.WAITING, List.of(HostState.ahead("north-hut")), DeploymentState.OnFailure.UNDO,
                DeploymentState.WayBack.NONE, Optional.empty(), null,
                new DeploymentState.Terms(false, Optional.empty(), false, Optional.of(true)));
        LoadedPlace loaded = new LoadedPlace(PLACE,
                new PlaceSnapshot(Optional.empty(), List.of(waiting), Map.of(), Map.of()), Map.of(11L, row),
                Map.of("north-hut", 9L));
        when(repository.load(PLACE)).thenReturn(loaded);
        when(repository.save(any(), any(), any())).thenAnswer(call -> new LoadedPlace(PLACE, call.getArgument(1),
                Map.of(11L, row), Map.of("north-hut", 9L)));
        when(planner.plan(any(), any(), any(), any())).thenAnswer(call -> call.getArgument(0));
        when(gates.evaluate(any())).thenReturn(gate);
    }

    private void judged(Judgement... judgements) {
        when(gate.verdict()).thenReturn(new Verdict(List.of(judgements), Optional.empty(), Optional.empty()));
        assertEquals(Optional.empty(), places.change(3, place -> Optional.empty()));
    }

    @Test
    void whatMayBeginBeginsAsItWasApproved() {
        judged();
        verify(beginnings).begins(PLACE, row);
        verify(outcomes).carryOut(any(), eq(
                new PlaceEffect.OfferTask(11, "north-hut", HostTask.INSTALL)));
        verify(waits, atLeastOnce()).gone(Gates.Standing.ofDeployment(11));
        verify(waits, never()).keep(any(), any());
    }

    @Test
    void whatWaitsIsKeptForTheListsAndLookedAtWhenTimeChangesIt() {
        Instant later = Rows.NOON.plusSeconds(60);
        judged(new Judgement(Judgement.State.NOT_YET, "Hours", "From 12:01.", Optional.of(later)));
        verify(beginnings, never()).begins(any(), any());
        verify(waits).keep(any(), eq(gate));
        verify(repository).wakeAt(3, Optional.of(later));
    }

    @Test
    void whereItsAuthorsAreNotKnownTheGateIsShutAndItIsLookedAtAgainAtOnce() {
        when(gates.evaluate(any())).thenThrow(mock(Gates.AuthorsUnknown.class));
        places.change(3, place -> Optional.empty());
        verify(beginnings, never()).begins(any(), any());
        verify(repository).wakeAt(3, Optional.of(Rows.NOON));
    }

    @Test
    void whatWasBlockedMeanwhileIsWithdrawn() {
        when(repository.aheadAndBlocked(3)).thenReturn(List.of(11L));
        judged();
        verify(beginnings, never()).begins(any(), any());
        verify(outcomes).moved(any(), any(), argThat(
                deployment -> deployment.status() == DeploymentStatus.WITHDRAWN));
    }

    @Test
    void whatIsRefusedLeavesThePlaceAsItWas() {
        assertEquals("no: it asks nothing", Refused.by(Refusal.Kind.CONFLICT, () -> places.require(3,
                place -> Optional.of(new PlaceEvent.Answered(11, "anna", true)),
                why -> Refusal.conflict("no: it asks nothing"))));
        verify(repository, never()).save(any(), any(), any());
        verify(repository, never()).wakeAt(anyLong(), any());
    }
}
