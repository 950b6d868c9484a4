package dev.paseo.service.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.RollbackTarget;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.request.Requests;
import dev.paseo.service.request.Wanted;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** Which version is gone back to, and what is said where there is none. */
class WaysBackTest {

    private static final Place PLACE = SomePlace.with(12, "path-board");
    private static final Person ANNA = new Person(1, "anna", Set.of(), List.of());

    private final Requests requests = mock(Requests.class);
    private final Places places = mock(Places.class);
    private final Deployments deployments = mock(Deployments.class);
    private final Versions versions = mock(Versions.class);
    private final AuditTrail audit = mock(AuditTrail.class);
    private final WaysBack ways = new WaysBack(requests, places, deployments, versions);
    private final Interventions interventions = new Interventions(deployments, places, audit);

    private Versions.Version version(long id, String number) {
        Versions.Version version = mock(Versions.Version.class);
        when(version.id()).thenReturn(id);
        when(version.number()).thenReturn(number);
        when(versions.byId(id)).thenReturn(version);
        when(versions.numbered(7, "path-board", number)).thenReturn(version);
        return version;
    }

    private static Deployments.Past past(long deployment, long version, String number) {
        return new Deployments.Past(new RollbackTarget.Past(deployment, number, Kind.PROMOTION, Optional.empty(),
                false, false, 1, version), version);
    }

    @BeforeEach
    void oneIsLive() {
        Versions.Version live = version(2, "1.4.2");
        when(places.live(PLACE)).thenReturn(Optional.of(live));
        when(places.requireLive(PLACE)).thenReturn(live);
        when(versions.noWayBack(any())).thenReturn(Optional.empty());
    }

    private Wanted asked() {
        ArgumentCaptor<Wanted> wanted = ArgumentCaptor.captor();
        verify(requests).request(wanted.capture());
        return wanted.getValue();
    }

    @Test
    void itGoesBackToWhatWasLiveBefore() {
        Versions.Version before = version(1, "1.4.1");
        when(deployments.past(3)).thenReturn(List.of(past(12, 2, "1.4.2"), past(11, 1, "1.4.1")));
        ways.rollback(PLACE, ANNA, Optional.empty(), "it flickers", true);
        assertEquals(before, asked().version());
        assertEquals(Kind.ROLLBACK, asked().kind());
        assertEquals(Optional.of("it flickers"), asked().emergency());
    }

    @Test
    void whereThereIsNoneOneIsTold() {
        when(deployments.past(3)).thenReturn(List.of(past(12, 2, "1.4.2")));
        assertEquals("There is no version to roll back to: no other version that is neither blocked, undone nor rolled "
                + "back from was live in production before 1.4.2",
                Refused.by(Refusal.Kind.CONFLICT,
                        () -> ways.rollback(PLACE, ANNA, Optional.empty(), "it flickers", false)));
    }

    @Test
    void whatWasNeverLiveIsNoWayBack() {
        version(3, "1.5.0");
        when(deployments.past(3)).thenReturn(List.of(past(12, 2, "1.4.2")));
        assertEquals("1.5.0 was never live in production: that is no rollback but a promotion",
                Refused.by(Refusal.Kind.CONFLICT,
                        () -> ways.rollback(PLACE, ANNA, Optional.of("1.5.0"), "it flickers", false)));
        verify(requests, never()).request(any());
    }

    @Test
    void whatIsLiveIsDeployedAgain() {
        ways.redeploy(PLACE, ANNA, Optional.empty(), Optional.empty());
        assertEquals("1.4.2", asked().version().number());
        assertEquals(Kind.REDEPLOY, asked().kind());
    }

    @Test
    void whereThePlaceSaysNoToACancelOrAnAnswerItIsToldWhy() {
        Deployment row = mock(Deployment.class);
        when(row.placeId()).thenReturn(3L);
        when(deployments.get(12)).thenReturn(row);
        doAnswer(call -> {
            throw call.<Function<String, Refusal>>getArgument(2).apply("it is live");
        }).when(places).require(anyLong(), any(), any());
        assertEquals("Deployment 12 cannot be cancelled: it is live",
                Refused.by(Refusal.Kind.CONFLICT, () -> interventions.cancel(12, ANNA)));
        assertEquals("Nothing was decided: it is live",
                Refused.by(Refusal.Kind.CONFLICT, () -> interventions.answer(12, ANNA, true)));
        verify(audit, never()).record(any());
    }
}
