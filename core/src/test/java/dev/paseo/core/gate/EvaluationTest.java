package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Checklist;
import dev.paseo.core.gate.Criterion.Exclusion;
import dev.paseo.core.gate.Evaluation.WaitsFor;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** All that a gate is asked, over facts that were loaded once. */
class EvaluationTest {

    private static final Instant NOW = Facts.ASKED.plus(Duration.ofHours(1));
    private static final Approvals APPROVAL = new Approvals(List.of("approvers"), 1,
            List.of(Exclusion.AUTHORS, Exclusion.REQUESTER), true, Optional.of(Duration.ofHours(48)), Optional.empty());
    private static final Approvals ANOTHER = new Approvals(List.of("testers"), 1, List.of(), false,
            Optional.of(Duration.ofHours(8)), Optional.empty());
    private static final Checklist LIST = new Checklist(List.of("testers"),
            List.of("Old links still work", "Board shows the time"));
    private static final Criterion.LiveFor FOUR_HOURS = new Criterion.LiveFor(Duration.ofHours(4));

    private final Facts given = new Facts();

    private Evaluation gate(Criterion... asked) {
        return new Evaluation(new GateInput("production", false, List.of(asked), given.facts(), List.of()), NOW);
    }

    private void approved(String who, Subject subject) {
        given.decisions.add(new GateDecision(who, true, "because", subject, Facts.ASKED.plusSeconds(60)));
    }

    /** What nobody wrote into the rules is asked where it is so, and only there. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "       |        |        |       | ",
            "a race |        |        |       | Not held",
            "       | frozen |        |       | Not closed",
            "       |        | 1.4.2  |       | Nothing is being tested there",
            "       |        |        | model | Requires model 2.x",
            "a race | frozen | 1.4.2  | model | Not held, Not closed, Nothing is being tested there, Requires "
                    + "model 2.x"})
    void whatFollowsFromHowThingsStandIsAskedBeside(String held, String closed, String tested, String needs,
            String names) {
        given.requester = "";
        given.around = new GateFacts.Around(false, Optional.ofNullable(held),
                Optional.ofNullable(closed).map(why -> new GateFacts.Closed(why, Optional.empty())),
                Stream.ofNullable(needs)
                        .map(component -> new GateFacts.Requirement(component, "2.x", Optional.empty(), false))
                        .toList(),
                Optional.ofNullable(tested));
        List<Judgement> judgements = gate().verdict().judgements();
        assertEquals(Optional.ofNullable(names).orElse(""),
                String.join(", ", judgements.stream().map(Judgement::name).toList()));
        assertTrue(judgements.stream().allMatch(judgement -> judgement.state() == Judgement.State.NOT_MET));
    }

    @Test
    void whoFollowsTheFirstOfItsSetWaitsForNothing() {
        assertTrue(new Evaluation(new GateInput("production", true, List.of(APPROVAL), given.facts(), List.of()), NOW)
                .verdict().open());
        assertFalse(gate(APPROVAL).verdict().open());
    }

    /**
     * People decide once about all members; what time brings about has to hold for each, and a member that is blocked
     * stops all.
     */
    @Test
    void aSetIsJudgedByAllItsMembers() {
        approved("approver-1", given.subject);
        GateInput.Member fresh = new GateInput.Member("path-board", "0.9.4", false, List.of(ANOTHER, LIST, FOUR_HOURS),
                new Facts().facts());
        GateInput.Member blocked = new GateInput.Member("sun-model", "2.8.4", true, List.of(), new Facts().facts());
        Verdict verdict = new Evaluation(
                new GateInput("production", false, List.of(APPROVAL), given.facts(), List.of(fresh, blocked)), NOW)
                .verdict();
        assertEquals(List.of("1 of 1 approval", "path-board: Live for 4 h", "sun-model: Not blocked"),
                verdict.judgements().stream().map(Judgement::name).toList());
        assertEquals("2.8.4 is blocked.", verdict.judgements().getLast().sentence());
        assertFalse(verdict.open());
    }

    @Test
    void whatExpiresFirstEndsIt() {
        assertEquals(Optional.of(Facts.ASKED.plus(Duration.ofHours(8))), gate(APPROVAL, ANOTHER).expiry());
        assertEquals(Optional.empty(), gate(LIST, FOUR_HOURS).expiry());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "approver-1       | ",
            "tester           | tester is not in the group approvers, which decides here",
            "release-engineer | release-engineer requested this deployment, and the requester may not decide about it"})
    void whoMayDecideByNoneOfItsCriteriaHearsTheFirstReason(String person, String why) {
        assertEquals(Optional.ofNullable(why), gate(LIST, APPROVAL).refusal(person));
    }

    @Test
    void whoMayByOneOfThemMay() {
        assertEquals(Optional.empty(), gate(APPROVAL, ANOTHER).refusal("tester"));
        assertEquals(Optional.of("production asks nobody to decide"), gate(LIST).refusal("approver-1"));
        assertEquals(Optional.of("production asks nobody to decide"), gate(LIST).handOnRefusal("approver-1"));
        assertEquals(Optional.of("production has no checklist"), gate(APPROVAL).tickRefusal("tester"));
        assertEquals(Optional.empty(), gate(LIST).tickRefusal("Old links still work", "tester"));
        assertEquals(Optional.of("approver-1 is not in the group testers, which ticks this list"),
                gate(LIST).tickRefusal("Old links still work", "approver-1"));
        assertEquals(Optional.of("\"New links\" is not on the list"), gate(LIST).tickRefusal("New links", "tester"));
    }

    @Test
    void aCommentIsWantedWhereOneOfThemWantsIt() {
        assertTrue(gate(ANOTHER, APPROVAL).needsComment());
        assertFalse(gate(ANOTHER, LIST).needsComment());
    }

    /** Never an author, never the requester, never who has said it already. */
    @Test
    void askedAreThoseWhoCouldSayItNow() {
        assertEquals(new Evaluation.Asked(Set.of("approver-1", "approver-2"), Set.of("tester")),
                gate(APPROVAL, LIST).asked());
        given.standIns.put("deputy", Set.of("approver-2"));
        assertEquals(Set.of("approver-1", "approver-2", "deputy"), gate(APPROVAL).asked().deciders());
        assertEquals(Optional.of("approver-2"), gate(APPROVAL).inPlaceOf("deputy"));
        assertEquals(Optional.empty(), gate(APPROVAL).inPlaceOf("approver-1"));
        approved("approver-1", given.subject);
        assertEquals(Set.of(), gate(APPROVAL).asked().deciders(), "it is met");
        LIST.items().forEach(item -> given.tick(item, Tick.Outcome.DONE));
        assertEquals(Set.of(), gate(LIST).asked().tickers());
    }

    /** What asks somebody stands first; what only takes time is said beside it. */
    @Test
    void allThatIsNotMetIsToldAsOne() {
        Evaluation.Unmet asks = gate(FOUR_HOURS, APPROVAL).unmet().orElseThrow();
        assertEquals(WaitsFor.DECISION, asks.what());
        assertEquals("0 of 1 approval", asks.name());
        assertEquals(gate(FOUR_HOURS, APPROVAL).expiry(), asks.due());
        assertEquals(gate(FOUR_HOURS, APPROVAL).asked(), asks.people());
        assertEquals(String.join(" ", gate(FOUR_HOURS, APPROVAL).verdict().judgements().stream()
                .map(Judgement::sentence).toList()), asks.sentence());
        assertFalse(asks.nobody());
        assertEquals(WaitsFor.CHECKLIST, gate(APPROVAL, LIST).unmet().orElseThrow().what());
        approved("approver-1", given.subject);
        assertEquals(Optional.empty(), gate(APPROVAL).unmet());
        assertEquals(WaitsFor.TIME, gate(FOUR_HOURS, APPROVAL).unmet().orElseThrow().what());
    }

    @Test
    void whatOnlyTakesTimeIsDueWhenThatIsOver() {
        given.stretch = new GateFacts.Stretch("staging", Duration.ZERO, Optional.of(Facts.ASKED));
        Evaluation.Unmet waits = gate(FOUR_HOURS).unmet().orElseThrow();
        assertEquals(WaitsFor.TIME, waits.what());
        assertEquals(Optional.of(Facts.ASKED.plus(Duration.ofHours(4))), waits.due());
        assertEquals(new Evaluation.Asked(Set.of(), Set.of()), waits.people());
    }

    @Test
    void whereNobodyIsLeftWhoMayThatIsSaid() {
        given.members.put("approvers", Set.of("developer"));
        assertTrue(gate(APPROVAL).unmet().orElseThrow().nobody());
    }

    @Test
    void whyApprovalsNoLongerCountIsSaid() {
        assertEquals(Optional.empty(), gate(APPROVAL).whyVoided());
        given.decisions.add(new GateDecision("approver-1", Optional.empty(), true, "because",
                new Subject("digest", 9, 2, 3, 4).digest(), Optional.of(new Subject("digest", 9, 2, 3, 4)),
                Facts.ASKED.plusSeconds(60)));
        assertTrue(gate(FOUR_HOURS, APPROVAL).whyVoided().orElseThrow()
                .contains("What approver-1 approved no longer counts: the variables changed since."));
    }

    @Test
    void approvalsOfSomethingElseAreVoid() {
        approved("approver-1", new Subject("digest", 9, 2, 3, 4));
        approved("approver-2", given.subject);
        assertEquals(Set.of("approver-1"), gate(APPROVAL).voided());
        given.decisions
                .add(new GateDecision("approver-1", true, "once more", given.subject, Facts.ASKED.plusSeconds(120)));
        assertEquals(Set.of(), gate(APPROVAL).voided(), "who has approved this since is not told");
        assertEquals(given.subject.digest(), gate(APPROVAL).digest());
    }

    /** Hours of the longest stretch that ended, and of the one under way, of two environments that are followed. */
    @ParameterizedTest
    @CsvSource({
            "1, 2, 3, 1, true,  staging",
            "1, 2, 3, 1, false, test",
            "6, 2, 3, 5, true,  test",
            "6, 2, 3, 5, false, staging",
            "1, 2, 1, 4, true,  staging",
            "1, 2, 1, 4, false, test",
    })
    void ofWhatIsFollowedOneStretchCounts(int testLongest, int testNow, int stagingLongest, int stagingNow, boolean any,
            String counts) {
        List<GateFacts.Stretch> all = List.of(stretch("test", testLongest, testNow),
                stretch("staging", stagingLongest, stagingNow));
        assertEquals(counts, GateFacts.Stretch.counting(all, any, NOW).where());
        assertEquals(GateFacts.Stretch.NOT_AT_ALL, GateFacts.Stretch.counting(List.of(), any, NOW));
    }

    private static GateFacts.Stretch stretch(String where, int longest, int now) {
        return new GateFacts.Stretch(where, Duration.ofHours(longest), Optional.of(NOW.minus(Duration.ofHours(now))));
    }
}
