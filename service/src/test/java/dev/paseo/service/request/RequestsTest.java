package dev.paseo.service.request;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.Judgement;
import dev.paseo.core.gate.Verdict;
import dev.paseo.core.secret.Lack;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.passage.WalkStays;
import dev.paseo.service.place.Deployment;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.place.HostContents;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.place.Places;
import dev.paseo.service.place.Planner;
import dev.paseo.service.place.SetMembership;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What is asked for, and what is refused to whoever asks. */
class RequestsTest {

    private static final Recipe RECIPE = PipelineFileReader.read("""
            paseo: 1
            component: path-board
            versions: "1.{serial}"
            stages:
              build: {steps: ['true'], keep: {app: out/app}}
            deployment:
              on-each-host: [deploy/install.sh]
              secrets: [BOARD_KEY]
            """).value().orElseThrow().deployment().orElseThrow();
    private static final Person ANNA = new Person(1, "anna", Set.of(), List.of());

    private final Places places = mock(Places.class);
    private final PlaceGates gates = mock(PlaceGates.class);
    private final Deployments deployments = mock(Deployments.class);
    private final Environments environments = mock(Environments.class);
    private final Secrets secrets = mock(Secrets.class);
    private final Planner planner = mock(Planner.class);
    private final HostContents contents = mock(HostContents.class);
    private final Causes causes = mock(Causes.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final Holds holds = mock(Holds.class);
    private final AuditTrail audit = mock(AuditTrail.class);
    private final WalkStays stays = mock(WalkStays.class);
    private final Preparation preparation = new Preparation(environments, secrets, planner, contents,
            mock(Versions.class));
    private final Requests requests = new Requests(places, new RequestGate(gates, deployments), preparation,
            new NewDeployments(deployments, causes, mock(SetMembership.class), clock),
            new RequestTrail(audit, holds, places));
    private final WalkRequests walk = new WalkRequests(requests, preparation, stays);
    private final Versions.Version version = mock(Versions.Version.class);

    private static Place place(@Nullable Instant retired) {
        return new Place(3, 5, "production", "UTC", 1, 7, "path-board", Optional.empty(), 1, Optional.empty(),
                Optional.empty(),
                Optional.empty(), Optional.ofNullable(retired));
    }

    @BeforeEach
    void aVersionThatMayBeAskedFor() {
        when(version.component()).thenReturn("path-board");
        when(version.number()).thenReturn("1.4.2");
        when(version.recipe()).thenReturn(Optional.of(RECIPE));
        when(version.runNumber()).thenReturn(Optional.empty());
        when(version.cause()).thenReturn(40L);
        Environments.PlaceHost host = mock(Environments.PlaceHost.class);
        when(host.name()).thenReturn("north-hut");
        when(environments.hosts(3)).thenReturn(List.of(host));
        when(environments.of(any())).thenReturn(new Environments.Environment(5, "production", "UTC", Rules.NONE, 1));
        when(planner.reasonAgainst(any(), any())).thenReturn(Optional.empty());
        when(planner.plan(any(), any(), any(), any())).thenAnswer(call -> call.getArgument(0));
        when(contents.lacks(any(), any(), anyString(), anyLong())).thenReturn(Optional.empty());
        when(deployments.ask(any())).thenReturn(11L);
        when(deployments.get(11)).thenReturn(mock(Deployment.class));
        when(clock.now()).thenReturn(Rows.NOON);
        when(holds.held(any())).thenReturn(Optional.empty());
        when(places.live(any())).thenReturn(Optional.empty());
        when(gates.knowing(anyLong(), any(), any())).thenAnswer(call -> call.<Supplier<Object>>getArgument(2).get());
        doAnswer(call -> call.<Function<Place, Optional<PlaceEvent>>>getArgument(1).apply(place(null))).when(places)
                .require(anyLong(), any(), any());
        unmet();
    }

    private void unmet(String... names) {
        Evaluation gate = mock(Evaluation.class);
        when(gate.verdict()).thenReturn(new Verdict(List.of(names).stream()
                .map(name -> new Judgement(Judgement.State.NOT_MET, name, "It was not built on main.",
                        Optional.empty()))
                .toList(), Optional.empty(), Optional.empty()));
        when(gates.evaluate(any())).thenReturn(gate);
    }

    private Wanted wanted(Place place, Kind kind, Optional<String> emergency) {
        return new Wanted(place, version, kind, Optional.of(ANNA), new Cause.Asked("anna", Optional.of("it flickers")),
                emergency);
    }

    private String refused(Place place) {
        return Refused.by(Refusal.Kind.CONFLICT,
                () -> requests.request(wanted(place, Kind.PROMOTION, Optional.empty())));
    }

    private AuditTrail.Entry recorded() {
        ArgumentCaptor<AuditTrail.Entry> entry = ArgumentCaptor.captor();
        verify(audit).record(entry.capture());
        return entry.getValue();
    }

    @Test
    void whatCouldNotBeDeployedAtAllIsNotAskedFor() {
        assertEquals("path-board in production is retired: nothing is deployed there", refused(place(Rows.NOON)));
        when(contents.lacks(any(), any(), eq("north-hut"), anyLong())).thenReturn(Optional.of("north-hut has no key"));
        assertEquals("north-hut has no key", refused(place(null)));
        when(planner.reasonAgainst(any(), any())).thenReturn(Optional.of("it has no host"));
        assertEquals("path-board 1.4.2 cannot be deployed to production: it has no host", refused(place(null)));
        when(secrets.lacks(List.of("BOARD_KEY"), 7, 5)).thenReturn(List.of(new Lack("BOARD_KEY", false)));
        assertEquals("The recipe of path-board 1.4.2 uses what it may not have: BOARD_KEY was not given to path-board: "
                + "paseo secret grant path-board BOARD_KEY", refused(place(null)));
        when(version.blocked()).thenReturn(true);
        assertEquals("path-board 1.4.2 is blocked", refused(place(null)));
        when(version.recipe()).thenReturn(Optional.empty());
        assertEquals("path-board 1.4.2 has no deployment in its pipeline file: nothing says how to deploy it",
                refused(place(null)));
        verify(deployments, never()).ask(any());
    }

    @Test
    void whatNobodyCanBringAboutIsToldToAPersonAtOnce() {
        unmet("Branch");
        assertEquals("production does not take it: Branch. It was not built on main.", refused(place(null)));
    }

    @Test
    void theWalkWaitsAtTheGateInstead() {
        unmet("Branch");
        walk.into(place(null), version, "staging");
        verify(stays).goesOn(version, "production");
    }

    @Test
    void anEmergencyGoesPastItAndIsReviewed() {
        unmet("Branch");
        assertEquals(11, requests.request(wanted(place(null), Kind.PROMOTION, Optional.of("the sun board is dark"))));
        verify(deployments).toReview(eq(11L), any());
        assertEquals("the sun board is dark", recorded().details().get("emergency"));
    }

    @Test
    void whatIsNoEmergencyIsNotReviewed() {
        requests.request(wanted(place(null), Kind.PROMOTION, Optional.empty()));
        verify(deployments, never()).toReview(anyLong(), any());
        assertEquals("promotion requested", recorded().what());
    }

    @Test
    void aRollbackHoldsThePlace() {
        requests.request(wanted(place(null), Kind.ROLLBACK, Optional.empty()));
        verify(holds).hold(any(), eq(ANNA), eq("rolled back: it flickers"));
    }

    @Test
    void whatIsHeldAlreadyKeepsItsHoldAndSaysThatItWasGonePast() {
        when(holds.held(any())).thenReturn(Optional.of(new Restraints.Hold("fair", "ben", Rows.NOON)));
        requests.request(wanted(place(null), Kind.ROLLBACK, Optional.empty()));
        verify(holds, never()).hold(any(), any(), anyString());
        assertEquals("ben: fair", recorded().details().get("past the hold"));
    }

    @Test
    void theWalkComesFromTheDeploymentBefore() {
        Deployment before = mock(Deployment.class);
        when(before.environment()).thenReturn("staging");
        when(before.causeId()).thenReturn(77L);
        when(deployments.ofVersion(anyLong())).thenReturn(List.of(before));
        walk.into(place(null), version, "staging");
        verify(causes).add(new Cause.Walk("path-board", "1.4.2", "staging"), OptionalLong.of(77));
    }

    @Test
    void whereSomethingIsMissingTheWalkStays() {
        when(version.recipe()).thenReturn(Optional.empty());
        walk.into(place(null), version, "staging");
        verify(stays).stays(version, "production", "staging",
                "path-board 1.4.2 has no deployment in its pipeline file: nothing says how to deploy it");
    }

    @Test
    void whereThePlaceSaysNoTheWalkEnds() {
        doAnswer(call -> {
            throw call.<Function<String, Refusal>>getArgument(2).apply("1.4.3 is live there");
        }).when(places).require(anyLong(), any(), any());
        walk.into(place(null), version, "staging");
        verify(stays).ends(version, "production",
                "path-board 1.4.2 is not requested into production: 1.4.3 is live there");
    }

    @Test
    void whatMayPassIsNoEndOfTheWalk() {
        doAnswer(call -> {
            throw Refusal.unavailable("What is live there keeps changing: try again");
        }).when(places).require(anyLong(), any(), any());
        Refused.by(Refusal.Kind.UNAVAILABLE, () -> walk.into(place(null), version, "staging"));
        verify(stays, never()).ends(any(), anyString(), anyString());
    }
}
