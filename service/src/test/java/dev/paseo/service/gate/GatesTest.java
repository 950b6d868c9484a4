package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.environment.Rules;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Evaluation;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Subject;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** What is asked at a gate, of what stands there alone and of a set. */
class GatesTest {

    private static final Criterion.Checklist LIST = new Criterion.Checklist(List.of("testers"), List.of("one"));
    private static final GateRules ONWARD = new GateRules(List.of(), List.of(), Optional.of(Duration.ofHours(1)),
            Optional.empty(), List.of(), List.of());
    private static final Rules RULES = rules(new GateRules(List.of(), List.of(LIST), Optional.empty(),
            Optional.empty(), List.of("trusted"), List.of()));

    private final FactsOfGates facts = mock(FactsOfGates.class);
    private final Restraints restraints = mock(Restraints.class);
    private final Secrets secrets = mock(Secrets.class);
    private final Gates gates = new Gates(facts, restraints, secrets, new AtNoon().clock);

    private static Rules rules(GateRules toEnter) {
        return new Rules(Rules.FORMAT, Optional.empty(), Criterion.Origin.TRUSTED, new Rules.Gates(toEnter, ONWARD),
                GateRules.NONE, false, false, Map.of(), Optional.empty(), Optional.empty());
    }

    private static Gates.AtGate at(Gates.Standing standing, String component, Rules rules) {
        Versions.Version version = mock(Versions.Version.class);
        when(version.component()).thenReturn(component);
        when(version.number()).thenReturn("1.4.2");
        when(version.digest()).thenReturn("digest of " + component);
        when(version.recipe()).thenReturn(Optional.empty());
        Environments.Place place = new Environments.Place(3, 5, "production", "UTC", 8, 7, component,
                Optional.empty(), 2, Optional.of(40L), Optional.empty(), Optional.empty(), Optional.empty());
        return new Gates.AtGate(standing, place, new Environments.Environment(5, "production", "UTC", rules, 8),
                version, Optional.empty(), "ben", Rows.NOON, Kind.PROMOTION, Optional.empty());
    }

    @BeforeEach
    void nothingIsKnown() {
        when(secrets.revisionsWithHosts(any(), anyLong(), anyLong())).thenReturn(Map.of("A", 4L, "A@hut", 9L));
        when(restraints.around(any(), any(), any(), any(), any())).thenReturn(GateFacts.Around.PLAIN);
        when(facts.load(any(), any(), any(), any())).thenAnswer(call -> new GateFacts(call.getArgument(2), "ben",
                Set.of(), Set.of(), new GateFacts.People(Map.of(), Map.of()), new GateFacts.OfVersion(Set.of(), "main",
                        true, List.of(), false, GateFacts.Stretch.NOT_AT_ALL, Map.of()),
                Rows.NOON, new GateFacts.Said(List.of(), List.of(), Map.of()), call.getArgument(3)));
    }

    @Test
    void whatWouldBeApprovedIsAllThatWouldBeDeployed() {
        assertEquals(new Subject("digest of path-board", 2, 9, 8, 40),
                gates.subject(at(Gates.Standing.ofDeployment(1), "path-board", RULES)));
    }

    @Test
    void atTheGateOnwardItsOwnCriteriaAreAskedAndNothingThatIsAroundThePlace() {
        Evaluation gate = gates.evaluate(at(Gates.Standing.ofPassage(1), "path-board", RULES));
        assertEquals(List.of(new Criterion.LiveFor(Duration.ofHours(1))), gate.gate().asked());
        verify(restraints, never()).around(any(), any(), any(), any(), any());
    }

    /** People decide once about a whole set; what is found out by itself has to hold for each of its members. */
    @Test
    void theFirstOfASetAsksAllPeopleAndEachMemberTheRest() {
        Criterion.Checklist theirs = new Criterion.Checklist(List.of("keepers"), List.of("two"));
        Rules others = rules(new GateRules(List.of(), List.of(theirs), Optional.empty(), Optional.empty(),
                List.of("branch == 'main'"), List.of()));
        Gates.AtGate other = at(Gates.Standing.ofDeployment(1), "hut-map", others);
        Gates.AtGate first = at(Gates.Standing.ofDeployment(1), "path-board", RULES).with(List.of(other));
        Evaluation gate = gates.evaluate(first);
        assertEquals(List.of(LIST, new Criterion.Fact("trusted"), Criterion.Origin.TRUSTED, theirs),
                gate.gate().asked());
        assertEquals(1, gate.gate().members().size());
        ArgumentCaptor<List<Criterion>> asked = ArgumentCaptor.captor();
        verify(facts).load(eq(other), asked.capture(), any(), any());
        assertEquals(List.of(new Criterion.Fact("branch == 'main'"), Criterion.Origin.TRUSTED), asked.getValue());
        verify(restraints).around(eq(first.place()), any(), any(), any(), eq(Map.of("hut-map", "1.4.2")));
    }

    @Test
    void whoApprovesASetApprovesAllOfIt() {
        Gates.AtGate first = at(Gates.Standing.ofDeployment(1), "path-board", RULES);
        String alone = gates.digest(first);
        String two = gates.digest(first.with(List.of(at(Gates.Standing.ofDeployment(1), "hut-map", RULES))));
        String others = gates.digest(first.with(List.of(at(Gates.Standing.ofDeployment(1), "hut-planner", RULES))));
        assertNotEquals(alone, two);
        assertNotEquals(two, others);
    }
}
