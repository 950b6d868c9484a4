package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Exclusion;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GateTest {

    private static final Instant ASKED = Instant.parse("2026-11-23T09:00:00Z");
    private static final Approvals ONE = new Approvals("approvers", 1, List.of(Exclusion.AUTHORS, Exclusion.REQUESTER), true, Optional.of(Duration.ofHours(48)));

    private final List<Ruling> rulings = new ArrayList<>();

    private GateFacts.Around around = GateFacts.Around.PLAIN;

    private GateFacts facts() {
        return new GateFacts("subject", "release-engineer", Set.of("developer"),
                Map.of("approvers", Set.of("approver-1", "approver-2", "developer", "release-engineer")), Set.of("test", "staging"), "main", true, ASKED, rulings, around);
    }

    private void says(String who, boolean yes, String subject, int minute) {
        rulings.add(new Ruling(who, yes, "because", subject, ASKED.plusSeconds(60L * minute)));
    }

    private Verdict judged(Criterion criterion) {
        return Gate.judge(List.of(criterion), facts(), ASKED.plusSeconds(3600));
    }

    /** Who may decide, and why not. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "approver-1       |",
        "developer        | developer wrote or pushed a commit of what is proposed, and authors may not decide about it",
        "release-engineer | release-engineer requested this deployment, and the requester may not decide about it",
        "tester           | tester is not in the group approvers, which decides here"})
    void whoMayDecide(String person, String reason) {
        assertEquals(Optional.ofNullable(reason), Gate.refusal(ONE, facts(), person));
    }

    @Test
    void nobodyApprovesTwice() {
        says("approver-1", true, "subject", 1);
        assertEquals(Optional.of("approver-1 has approved this already"), Gate.refusal(ONE, facts(), "approver-1"));
    }

    @Test
    void oneApprovalOnTheExactSubjectOpensIt() {
        assertFalse(judged(ONE).open());
        assertEquals(Judgement.State.ASKED, judged(ONE).judgements().getFirst().state());
        says("approver-1", true, "subject", 1);
        assertTrue(judged(ONE).open());
    }

    @Test
    void anApprovalOfAnotherSubjectDoesNotCountAndThatIsSaid() {
        says("approver-1", true, "an older subject", 1);
        assertFalse(judged(ONE).open());
        assertTrue(judged(ONE).judgements().getFirst().sentence().contains("1 given before no longer counts"));
    }

    @Test
    void approvalsOfThoseWhoMayNotDoNotCount() {
        says("developer", true, "subject", 1);
        says("tester", true, "subject", 2);
        assertFalse(judged(ONE).open());
    }

    @Test
    void twoAreNeededWhereTwoAreNeeded() {
        Approvals two = new Approvals("approvers", 2, List.of(), false, Optional.empty());
        says("approver-1", true, "subject", 1);
        says("approver-1", true, "subject", 2);
        assertFalse(judged(two).open(), "one person counts once");
        says("approver-2", true, "subject", 3);
        assertTrue(judged(two).open());
    }

    @Test
    void oneNoRejects() {
        says("approver-1", false, "subject", 1);
        assertEquals(Optional.of("rejected by approver-1: \"because\""), judged(ONE).rejected());
    }

    @Test
    void itExpiresCountedFromTheRequest() {
        Verdict before = Gate.judge(List.of(ONE), facts(), ASKED.plus(Duration.ofHours(48)).minusMillis(1));
        Verdict after = Gate.judge(List.of(ONE), facts(), ASKED.plus(Duration.ofHours(48)));
        assertTrue(before.expired().isEmpty());
        assertTrue(after.expired().isPresent());
        assertEquals(Optional.of(ASKED.plus(Duration.ofHours(48))), before.again());
    }

    @Test
    void aGateThatWaitsForNobodySaysSo() {
        GateFacts nobody = new GateFacts("subject", "approver-1", Set.of(), Map.of("approvers", Set.of("approver-1")), Set.of(), "main", true, ASKED, List.of(), GateFacts.Around.PLAIN);
        String sentence = Gate.judge(List.of(ONE), nobody, ASKED).judgements().getFirst().sentence();
        assertTrue(sentence.contains("Nobody is left who may"), sentence);
    }

    @ParameterizedTest
    @CsvSource({"staging, MET", "showroom, NOT_MET"})
    void followsNeedsAPassageThatEnded(String environment, Judgement.State state) {
        assertEquals(state, judged(new Criterion.Follows(List.of(environment))).judgements().getFirst().state());
    }

    @ParameterizedTest
    @CsvSource({"'', MET", "main, MET", "season/*, NOT_MET"})
    void branches(String pattern, Judgement.State state) {
        List<String> patterns = pattern.isEmpty() ? List.of() : List.of(pattern);
        assertEquals(state, judged(new Criterion.Branches(patterns)).judgements().getFirst().state());
    }

    @Test
    void everyPartOfASubjectMakesAnother() {
        Subject subject = new Subject("digest", 1, 2, 3, 4);
        assertEquals(subject.digest(), new Subject("digest", 1, 2, 3, 4).digest());
        for (Subject other : List.of(new Subject("other", 1, 2, 3, 4), new Subject("digest", 9, 2, 3, 4), new Subject("digest", 1, 9, 3, 4),
                new Subject("digest", 1, 2, 9, 4), new Subject("digest", 1, 2, 3, 9))) {
            assertNotEquals(subject.digest(), other.digest());
        }
    }

    @Test
    void aHoldStopsWhatIsAutomaticAndAClosureEverythingButARollback() {
        GateFacts.Closed closed = new GateFacts.Closed("production is closed.", Optional.of(ASKED.plusSeconds(60)));
        around = new GateFacts.Around(false, Optional.of("Held by release-engineer."), Optional.of(closed), List.of());
        assertEquals(Judgement.State.MET, judged(new Criterion.NotHeld()).judgements().getFirst().state(), "a person asked");
        assertEquals(Judgement.State.NOT_YET, judged(new Criterion.NotClosed()).judgements().getFirst().state());
        assertEquals(closed.until(), judged(new Criterion.NotClosed()).again());
        GateFacts plain = facts();
        GateFacts automatic = new GateFacts(plain.subject(), "", plain.authors(), plain.members(), plain.passed(), plain.branch(), true, ASKED, List.of(), around);
        assertEquals(Judgement.State.NOT_MET, Gate.judge(List.of(new Criterion.NotHeld()), automatic, ASKED).judgements().getFirst().state());
        around = new GateFacts.Around(true, Optional.empty(), Optional.of(new GateFacts.Closed("closed.", Optional.empty())), List.of());
        assertEquals(Judgement.State.MET, judged(new Criterion.NotClosed()).judgements().getFirst().state(), "a rollback passes");
        around = new GateFacts.Around(false, Optional.empty(), Optional.of(new GateFacts.Closed("closed.", Optional.empty())), List.of());
        assertEquals(Judgement.State.NOT_MET, judged(new Criterion.NotClosed()).judgements().getFirst().state());
    }

    @Test
    void whatItRequiresMustBeLiveBesideIt() {
        around = new GateFacts.Around(false, Optional.empty(), Optional.empty(), List.of(new GateFacts.Requirement("tide-model", ">=2.8", Optional.of("2.9.1"), true)));
        assertEquals(Judgement.State.MET, judged(new Criterion.Requires()).judgements().getFirst().state());
        around = new GateFacts.Around(false, Optional.empty(), Optional.empty(), List.of(new GateFacts.Requirement("tide-model", ">=2.8", Optional.empty(), false)));
        Judgement missing = judged(new Criterion.Requires()).judgements().getFirst();
        assertEquals(Judgement.State.NOT_MET, missing.state());
        assertTrue(missing.sentence().contains("none is live there"));
    }
}
