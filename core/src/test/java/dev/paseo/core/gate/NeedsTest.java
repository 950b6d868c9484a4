package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;

import dev.paseo.core.gate.Needs.What;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is not needed changes nothing; what is needed does. */
class NeedsTest {

    private static final Instant NOW = Facts.ASKED.plusSeconds(3600);
    private static final Map<String, Criterion> CRITERIA = Map.of(
            "approvals", new Criterion.Approvals(List.of("approvers"), 1, List.of(Criterion.Exclusion.AUTHORS), false,
                    Optional.empty(), Optional.of(new Criterion.Escalation(Duration.ofMinutes(30), "testers"))),
            "checklist", new Criterion.Checklist(List.of("testers"), List.of("one")),
            "fact", new Criterion.Fact("trusted"),
            "outside", new Criterion.Outside("scan", "http://127.0.0.1:1/", Optional.empty()),
            "follows", new Criterion.Follows(List.of("staging"), false),
            "origin", new Criterion.Origin(List.of("hotfix"), List.of("v*"), false),
            "live for", new Criterion.LiveFor(Duration.ofMinutes(1)),
            "not held", new Criterion.NotHeld());

    private final Facts given = new Facts();

    @BeforeEach
    void allIsKnown() {
        given.decisions.add(new GateDecision("approver-1", true, "good", GateTest.SUBJECT, NOW));
        given.standIns.put("tester-2", Set.of("tester"));
        given.tick("one", Tick.Outcome.DONE);
        given.answers.put("scan", new GateFacts.Answer(Optional.of(true), "clean", NOW));
        given.conditions.put("trusted", new GateFacts.Held(Optional.of(true), "trusted is true"));
        given.stretch = new GateFacts.Stretch("staging", Duration.ofHours(2), Optional.empty());
    }

    @ParameterizedTest
    @ValueSource(strings = {"approvals", "checklist", "fact", "outside", "follows", "origin", "live for", "not held"})
    void whatACriterionDoesNotNeedChangesNothing(String name) {
        List<Criterion> only = List.of(CRITERIA.get(name));
        assertEquals(judged(only, given.facts()), judged(only, without(Needs.of(only), given.facts())));
    }

    @ParameterizedTest
    @ValueSource(strings = {"approvals", "checklist", "fact", "outside", "follows", "origin", "live for"})
    void whatItNeedsIsNeeded(String name) {
        List<Criterion> only = List.of(CRITERIA.get(name));
        Needs nothing = new Needs(Set.of(), Set.of(), Set.of());
        assertNotEquals(judged(only, given.facts()), judged(only, without(nothing, given.facts())));
    }

    private static Object judged(List<Criterion> criteria, GateFacts facts) {
        Evaluation gate = new Evaluation(new GateInput("production", false, criteria, facts, List.of()), NOW);
        return List.of(gate.verdict(), gate.asked(), gate.refusal("developer"), gate.refusal("tester-2"));
    }

    /** As if nothing but what is needed had been asked for. */
    private static GateFacts without(Needs needs, GateFacts facts) {
        Map<String, Set<String>> members = new HashMap<>(facts.people().members());
        members.keySet().retainAll(needs.people());
        Map<String, GateFacts.Held> conditions = new HashMap<>(facts.version().conditions());
        conditions.keySet().retainAll(needs.conditions());
        GateFacts.OfVersion version = facts.version();
        return new GateFacts(facts.subject(), facts.requester(),
                needs.has(What.AUTHORS) ? facts.authors() : Set.of(), facts.unknown(),
                new GateFacts.People(members, needs.people().isEmpty() ? Map.of() : facts.people().standIns()),
                new GateFacts.OfVersion(needs.has(What.PASSED) ? version.passed() : Set.of(), version.branch(),
                        version.trusted(), needs.has(What.TAGS) ? version.tags() : List.of(), version.uploaded(),
                        needs.has(What.STRETCH) ? version.stretch() : GateFacts.Stretch.NOT_AT_ALL, conditions),
                facts.requestedAt(),
                new GateFacts.Said(facts.said().decisions(),
                        needs.has(What.TICKS) ? facts.said().ticks() : List.of(),
                        needs.has(What.ANSWERS) ? facts.said().answers() : Map.of()),
                facts.around());
    }
}
