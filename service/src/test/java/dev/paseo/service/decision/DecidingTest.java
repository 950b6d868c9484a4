package dev.paseo.service.decision;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Action;
import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.GateDecisions;
import dev.paseo.service.gate.Gates;
import dev.paseo.service.notice.Notices;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What people say at a gate is about what they saw, and theirs to say. */
class DecidingTest {

    private static final Place PLACE = SomePlace.of("path-board");
    private static final Person ANNA = new Person(1, "anna", Set.of(), List.of());

    private final AtNoon noon = new AtNoon();
    private final Deployments deployments = mock(Deployments.class);
    private final Places places = mock(Places.class);
    private final PlaceGates gates = mock(PlaceGates.class);
    private final GateDecisions decisions = mock(GateDecisions.class);
    private final Accounts accounts = mock(Accounts.class);
    private final Deciding deciding = new Deciding(deployments, places, gates, decisions, noon.changes);
    private final HandingOn handingOn = new HandingOn(deciding, decisions, accounts, mock(Notices.class),
            noon.changes);
    private final Deployment row = mock(Deployment.class);
    private final Evaluation gate = mock(Evaluation.class);

    @BeforeEach
    void itWaitsForADecision() {
        Versions.Version version = mock(Versions.Version.class);
        when(version.number()).thenReturn("1.4.2");
        when(row.placeId()).thenReturn(3L);
        when(row.status()).thenReturn(DeploymentStatus.WAITING);
        when(deployments.get(11)).thenReturn(row);
        when(gates.atGate(PLACE, row)).thenReturn(new Gates.AtGate(Gates.Standing.ofDeployment(11), PLACE,
                new Environments.Environment(1, "production", "UTC", Rules.NONE, 1), version, Optional.empty(),
                "ben", Rows.NOON, Kind.PROMOTION, Optional.empty()));
        when(gates.evaluate(any())).thenReturn(gate);
        when(places.change(anyLong(), any())).thenAnswer(
                call -> call.<Function<Place, Object>>getArgument(1).apply(PLACE));
        when(gate.refusal(anyString())).thenReturn(Optional.empty());
        when(gate.handOnRefusal(anyString())).thenReturn(Optional.empty());
        when(gate.digest()).thenReturn("what-was-seen");
        when(decisions.decide(any(), any(), any(), anyBoolean(), anyString())).thenReturn(Optional.empty());
        when(decisions.stating(any(), any())).thenAnswer(call -> call.getArgument(0));
    }

    private void decide(boolean yes, String comment, String seen) {
        deciding.decide(11, ANNA, yes, comment, Optional.of(seen).filter(digest -> !digest.isEmpty()));
    }

    private void nothingWasDecided() {
        verify(decisions, never()).decide(any(), any(), any(), anyBoolean(), anyString());
        verify(noon.audit, never()).record(any());
    }

    @Test
    void whatWasSeenIsApprovedAndSaidInTheTrail() {
        decide(true, " good ", "what-was-seen");
        verify(decisions).decide(any(), eq(gate), eq(ANNA), eq(true), eq("good"));
        ArgumentCaptor<AuditTrail.Entry> entry = ArgumentCaptor.captor();
        verify(noon.audit).record(entry.capture());
        assertEquals("approved", entry.getValue().what());
        assertEquals("what-was-seen", entry.getValue().details().get("subject"));
        inOrder(gates, places).verify(gates).learn(3);
    }

    @Test
    void nobodyApprovesWhatWasNotShownOrHasChanged() {
        Refused.field("/subject", () -> decide(true, "good", ""));
        assertEquals("What would be deployed has changed since you looked at it: look again, then decide",
                Refused.by(Refusal.Kind.CONFLICT, () -> decide(true, "good", "something-else")));
        nothingWasDecided();
    }

    @Test
    void whoMayNotIsToldWhy() {
        when(gate.refusal("anna")).thenReturn(Optional.of("anna wrote what is proposed"));
        assertEquals("anna wrote what is proposed",
                Refused.by(Refusal.Kind.NOT_ALLOWED, () -> decide(true, "good", "what-was-seen")));
        nothingWasDecided();
    }

    @Test
    void aCommentIsGivenWhereOneIsWantedAndWithEveryNo() {
        assertEquals("Say why it is rejected", Refused.field("/comment", () -> decide(false, "  ", "what-was-seen")));
        when(gate.needsComment()).thenReturn(true);
        assertEquals("production wants a comment with every decision",
                Refused.field("/comment", () -> decide(true, "", "what-was-seen")));
        nothingWasDecided();
    }

    @Test
    void whatDoesNotWaitIsNotDecidedAbout() {
        when(row.status()).thenReturn(DeploymentStatus.WITHDRAWN);
        when(row.reason()).thenReturn("by ben");
        assertEquals("deployment 11 no longer waits for a decision: it is withdrawn (by ben)",
                Refused.by(Refusal.Kind.CONFLICT, () -> decide(true, "good", "what-was-seen")));
        nothingWasDecided();
    }

    @Test
    void onlyWhatWasGivenIsTakenBack() {
        assertEquals("anna has no approval of deployment 11 to take back",
                Refused.by(Refusal.Kind.CONFLICT, () -> deciding.takeBack(11, ANNA)));
        verify(noon.audit, never()).record(any());
    }

    @Test
    void aReviewIsBySomebodyElseOnceAndSaysSomething() {
        when(deployments.toReview(11)).thenReturn(Optional.empty());
        assertEquals("Deployment 11 needs no review: it was no emergency, and no loosened rule let it go live",
                Refused.by(Refusal.Kind.CONFLICT, () -> deciding.review(11, ANNA, "all good")));
        when(deployments.toReview(11)).thenReturn(
                Optional.of(new Deployments.ToReview(Rows.NOON, Optional.empty(), Optional.of("anna"), false)));
        Refused.by(Refusal.Kind.NOT_ALLOWED, () -> deciding.review(11, ANNA, "all good"));
        when(deployments.toReview(11)).thenReturn(
                Optional.of(new Deployments.ToReview(Rows.NOON, Optional.empty(), Optional.empty(), false)));
        Refused.field("/comment", () -> deciding.review(11, ANNA, ""));
        assertEquals("Deployment 11 was reviewed already",
                Refused.by(Refusal.Kind.CONFLICT, () -> deciding.review(11, ANNA, "all good")));
        verify(noon.audit, never()).record(any());
    }

    private String handedOn(String to, Refusal.Kind kind) {
        return Refused.by(kind, () -> handingOn.handOn(11, ANNA, to));
    }

    @Test
    void aDecisionIsHandedOnByWhoIsAskedToWhoCouldDecide() {
        Person carla = mock(Person.class);
        when(accounts.idOf("carla")).thenReturn(2L);
        when(accounts.idOf("anna")).thenReturn(1L);
        when(accounts.named("carla")).thenReturn(carla);
        assertEquals("carla has no role that decides in production", handedOn("carla", Refusal.Kind.CONFLICT));
        when(carla.may(Action.DECIDE, Optional.of("path-board"), Optional.of("production"))).thenReturn(true);
        when(gate.handOnRefusal("carla")).thenReturn(Optional.of("carla wrote it"));
        assertEquals("carla could not decide either: carla wrote it", handedOn("carla", Refusal.Kind.CONFLICT));
        Refused.field("/to", () -> handingOn.handOn(11, ANNA, "anna"));
        verify(decisions, never()).standIn(anyLong(), anyLong(), anyLong());
        when(gate.handOnRefusal("carla")).thenReturn(Optional.empty());
        handingOn.handOn(11, ANNA, "carla");
        verify(decisions).standIn(1, 2, 11);
        when(gate.refusal("anna")).thenReturn(Optional.of("anna is not asked"));
        assertEquals("anna is not asked, so there is nothing to hand on",
                handedOn("carla", Refusal.Kind.NOT_ALLOWED));
    }
}
