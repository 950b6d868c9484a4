package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.access.Accounts;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What is known at a gate: what its criteria are judged on, and nothing that none of them asks. */
class FactsOfGatesTest {

    private static final Criterion.Approvals APPROVALS = new Criterion.Approvals(List.of("leads"), 1,
            List.of(Criterion.Exclusion.AUTHORS), false, Optional.empty(), Optional.empty());
    private static final Criterion.Follows FOLLOWS = new Criterion.Follows(List.of("test", "staging"), false);
    private static final Subject SUBJECT = new Subject("digest", 1, 2, 3, 4);

    private final AtNoon noon = new AtNoon();
    private final GateDecisionMapper mapper = mock(GateDecisionMapper.class);
    private final Accounts accounts = mock(Accounts.class);
    private final Authorship authorship = mock(Authorship.class);
    private final Environments environments = mock(Environments.class);
    private final Versions versions = mock(Versions.class);
    private final Evidence evidence = mock(Evidence.class);
    private final Stretches stretches = mock(Stretches.class);
    private final FactsOfGates facts = new FactsOfGates(mapper,
            new PeopleAtGates(mapper, accounts, authorship, noon.clock),
            new FactsOfVersions(environments, versions, evidence, stretches, noon.clock),
            RealDatabase.get().json());

    private static Gates.AtGate at(Gates.Standing standing, long version, boolean any) {
        Versions.Version sealed = mock(Versions.Version.class);
        when(sealed.id()).thenReturn(version);
        when(sealed.component()).thenReturn("path-board");
        when(sealed.number()).thenReturn("1.4.2");
        when(sealed.branch()).thenReturn("main");
        when(sealed.trusted()).thenReturn(true);
        when(sealed.commit()).thenReturn(Optional.of("commit of " + version));
        Rules rules = new Rules(Rules.FORMAT, Optional.of(new Criterion.Follows(FOLLOWS.environments(), any)),
                Criterion.Origin.TRUSTED, Rules.Gates.NONE, Rules.NONE.rollback(), false, false, Map.of(),
                Optional.empty(), Optional.empty());
        return new Gates.AtGate(standing, SomePlace.of("path-board"),
                new Environments.Environment(5, "production", "UTC", rules, 8), sealed, Optional.empty(), "ben",
                Rows.NOON, Kind.PROMOTION, Optional.empty());
    }

    private final Gates.AtGate before = at(Gates.Standing.ofDeployment(1), 9, false);

    private GateFacts load(Gates.AtGate at, Criterion... criteria) {
        return facts.load(at, List.of(criteria), SUBJECT, GateFacts.Around.PLAIN);
    }

    @BeforeEach
    void annaIsALead() {
        when(accounts.meant(Set.of("leads"))).thenReturn(Map.of("leads", Set.of("anna")));
        doReturn(Optional.of(new Authorship.Behind(Set.of("ben"), Set.of("away@huts.example")))).when(authorship)
                .behind(anyLong(), any(), anyString());
        when(evidence.factsOfVersion(anyLong(), any())).thenAnswer(call -> new HashMap<String, Object>());
    }

    @Test
    void nothingIsAskedForThatNoCriterionNeeds() {
        load(before, new Criterion.NotHeld());
        verify(mapper, never()).ticks(any(), any());
        verify(mapper, never()).answers(any());
        verify(mapper, never()).standIns(any(), any());
        verify(accounts, never()).meant(any());
        verify(authorship, never()).behind(anyLong(), any(), anyString());
        verify(environments, never()).passed(anyLong());
        verify(versions, never()).names(anyLong());
        verify(evidence, never()).factsOfVersion(anyLong(), any());
        verify(mapper).of(1L, null);
    }

    @Test
    void whoIsAskedAndWhoWroteItIsKnown() {
        GateFacts known = load(before, APPROVALS);
        assertEquals(Map.of("leads", Set.of("anna")), known.people().members());
        assertEquals(Set.of("ben"), known.authors());
        assertEquals(Set.of("away@huts.example"), known.unknown());
    }

    /** A gate is not open because nobody has asked git yet. */
    @Test
    void whereTheAuthorsAreNotKnownTheGateIsNotJudged() {
        when(authorship.behind(anyLong(), any(), anyString())).thenReturn(Optional.empty());
        assertThrows(Gates.AuthorsUnknown.class, () -> load(before, APPROVALS));
    }

    @Test
    void nobodyDecidesAboutWhatTheyWroteInAnyMemberOfASet() {
        doReturn(Optional.of(new Authorship.Behind(Set.of("carl"), Set.of()))).when(authorship).behind(anyLong(),
                any(), org.mockito.ArgumentMatchers.eq("commit of 10"));
        GateFacts known = load(before.with(List.of(at(Gates.Standing.ofDeployment(1), 10, false))), APPROVALS);
        assertEquals(Set.of("ben", "carl"), known.authors());
        assertEquals(Set.of("away@huts.example"), known.unknown());
    }

    @Test
    void whatAnEnvironmentThatIsNoMoreReportedIsNotThere() {
        GateFacts known = load(before, new Criterion.Fact("trusted && component == 'path-board'"),
                new Criterion.Fact("at.old_hut.tests.failed == 0"));
        assertEquals(Optional.of(true), known.version().conditions()
                .get("trusted && component == 'path-board'").holds());
        assertEquals(Optional.empty(), known.version().conditions().get("at.old_hut.tests.failed == 0").holds());
    }

    /** Of what is followed the shortest counts where all have to do, the longest where any does. */
    @Test
    void howLongItHasLivedIsCountedWhereItIsFollowed() {
        when(stretches.in(FOLLOWS.environments(), 9)).thenReturn(
                List.of(new GateFacts.Stretch("test", Duration.ofHours(3), Optional.empty()),
                        new GateFacts.Stretch("staging", Duration.ofHours(1), Optional.empty())));
        Criterion.LiveFor liveFor = new Criterion.LiveFor(Duration.ofHours(2));
        assertEquals("staging", load(before, liveFor).version().stretch().where());
        assertEquals("test", load(at(Gates.Standing.ofDeployment(1), 9, true), liveFor).version().stretch().where());
    }

    @Test
    void atTheGateOnwardItIsCountedWhereItIs() {
        GateFacts.Stretch here = new GateFacts.Stretch("production", Duration.ofHours(1), Optional.empty());
        Gates.AtGate onward = at(Gates.Standing.ofPassage(4), 9, false);
        when(stretches.of(onward.place(), 9)).thenReturn(here);
        assertEquals(here, load(onward, new Criterion.LiveFor(Duration.ofHours(2)),
                new Criterion.Outside("scan", "", Optional.empty())).version().stretch());
        verify(mapper, never()).answers(any());
    }
}
