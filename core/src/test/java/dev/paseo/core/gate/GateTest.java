package dev.paseo.core.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Exclusion;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GateTest {

    private static final Instant ASKED = Facts.ASKED;
    private static final Approvals ONE = new Approvals(List.of("approvers"), 1,
            List.of(Exclusion.AUTHORS, Exclusion.REQUESTER), true, Optional.of(Duration.ofHours(48)), Optional.empty());
    static final Subject SUBJECT = new Subject("digest", 1, 2, 3, 4);

    private final Facts given = new Facts();

    private GateFacts facts() {
        return given.facts();
    }

    private void says(String who, boolean yes, Subject subject, int minute) {
        given.decisions.add(new GateDecision(who, yes, "because", subject, ASKED.plusSeconds(60L * minute)));
    }

    private Verdict judged(Criterion criterion) {
        return Gate.judge(List.of(criterion), facts(), ASKED.plusSeconds(3600));
    }

    /** Who may decide, and why not. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "approver-1       |",
            "developer        | developer wrote or pushed a commit of what is proposed, and authors may not decide "
                    + "about it",
            "release-engineer | release-engineer requested this deployment, and the requester may not decide about it",
            "tester           | tester is not in the group approvers, which decides here"})
    void whoMayDecide(String person, String reason) {
        assertEquals(Optional.ofNullable(reason), Approving.refusal(ONE, facts(), ASKED, person));
    }

    @Test
    void nobodyApprovesTwice() {
        says("approver-1", true, SUBJECT, 1);
        assertEquals(Optional.of("approver-1 has approved this already"),
                Approving.refusal(ONE, facts(), ASKED, "approver-1"));
    }

    @Test
    void oneApprovalOnTheExactSubjectOpensIt() {
        assertFalse(judged(ONE).open());
        assertEquals(Judgement.State.ASKED, judged(ONE).judgements().getFirst().state());
        says("approver-1", true, SUBJECT, 1);
        assertTrue(judged(ONE).open());
    }

    @Test
    void anApprovalOfAnotherSubjectDoesNotCountAndThatIsSaid() {
        says("approver-1", true, new Subject("digest", 1, 2, 3, 9), 1);
        assertFalse(judged(ONE).open());
        String sentence = judged(ONE).judgements().getFirst().sentence();
        assertTrue(sentence.startsWith("Waits for approvers, not an author or the requester. "), sentence);
        assertTrue(sentence.contains("What approver-1 approved no longer counts: what is live changed since"),
                sentence);
    }

    @Test
    void approvalsOfThoseWhoMayNotDoNotCount() {
        says("developer", true, SUBJECT, 1);
        says("tester", true, SUBJECT, 2);
        assertFalse(judged(ONE).open());
    }

    @Test
    void twoAreNeededWhereTwoAreNeeded() {
        Approvals two = new Approvals(List.of("approvers"), 2, List.of(), false, Optional.empty(), Optional.empty());
        says("approver-1", true, SUBJECT, 1);
        says("approver-1", true, SUBJECT, 2);
        assertFalse(judged(two).open(), "one person counts once");
        says("approver-2", true, SUBJECT, 3);
        assertTrue(judged(two).open());
    }

    @Test
    void oneNoRejects() {
        says("approver-1", false, SUBJECT, 1);
        assertEquals(Optional.of("rejected by approver-1: \"because\""), judged(ONE).rejected());
    }

    @Test
    void itExpiresCountedFromTheRequest() {
        Verdict before = Gate.judge(List.of(ONE), facts(), ASKED.plus(Duration.ofHours(48)).minusMillis(1));
        Verdict after = Gate.judge(List.of(ONE), facts(), ASKED.plus(Duration.ofHours(48)));
        assertTrue(before.expired().isEmpty());
        assertTrue(
                after.expired().orElseThrow()
                        .matches("no decision by \\d+ \\w+ 2\\d{3} \\d\\d:\\d\\d UTC; request it again"),
                after.expired()::toString);
        assertEquals(Optional.of(ASKED.plus(Duration.ofHours(48))), before.again());
    }

    @Test
    void aGateThatWaitsForNobodySaysSo() {
        given.requester = "approver-1";
        given.members.put("approvers", Set.of("approver-1"));
        assertTrue(Gate.judge(List.of(ONE), facts(), ASKED).judgements().getFirst().nobody());
        String sentence = Gate.judge(List.of(ONE), facts(), ASKED).judgements().getFirst().sentence();
        assertTrue(sentence.contains("Nobody is left who may"), sentence);
    }

    @ParameterizedTest
    @CsvSource({"staging, MET", "showroom, NOT_MET"})
    void followsNeedsAPassageThatEnded(String environment, Judgement.State state) {
        assertEquals(state, judged(new Criterion.Follows(List.of(environment), false)).judgements().getFirst().state());
    }

    @ParameterizedTest
    @CsvSource({"'', MET", "main, MET", "season/*, NOT_MET"})
    void branches(String pattern, Judgement.State state) {
        List<String> patterns = pattern.isEmpty() ? List.of() : List.of(pattern);
        assertEquals(state, judged(new Criterion.Origin(patterns, List.of(), false)).judgements().getFirst().state());
    }

    @Test
    void everyPartOfASubjectMakesAnother() {
        Subject subject = new Subject("digest", 1, 2, 3, 4);
        assertEquals(subject.digest(), new Subject("digest", 1, 2, 3, 4).digest());
        for (Subject other : List.of(new Subject("other", 1, 2, 3, 4), new Subject("digest", 9, 2, 3, 4),
                new Subject("digest", 1, 9, 3, 4),
                new Subject("digest", 1, 2, 9, 4), new Subject("digest", 1, 2, 3, 9))) {
            assertNotEquals(subject.digest(), other.digest());
        }
    }

    @Test
    void aHoldStopsWhatIsAutomaticAndAClosureEverythingButARollback() {
        GateFacts.Closed closed = new GateFacts.Closed("production is closed.", Optional.of(ASKED.plusSeconds(60)));
        given.around = new GateFacts.Around(false, Optional.of("Held by release-engineer."), Optional.of(closed),
                List.of());
        assertEquals(Judgement.State.MET, judged(new Criterion.NotHeld()).judgements().getFirst().state(),
                "a person asked");
        assertEquals(Judgement.State.NOT_YET, judged(new Criterion.NotClosed()).judgements().getFirst().state());
        assertEquals(closed.until(), judged(new Criterion.NotClosed()).again());
        given.requester = "";
        assertEquals(Judgement.State.NOT_MET, judged(new Criterion.NotHeld()).judgements().getFirst().state());
        given.around = new GateFacts.Around(true, Optional.empty(),
                Optional.of(new GateFacts.Closed("closed.", Optional.empty())), List.of());
        assertEquals(Judgement.State.MET, judged(new Criterion.NotClosed()).judgements().getFirst().state(),
                "a rollback passes");
        given.around = new GateFacts.Around(false, Optional.empty(),
                Optional.of(new GateFacts.Closed("closed.", Optional.empty())), List.of());
        assertEquals(Judgement.State.NOT_MET, judged(new Criterion.NotClosed()).judgements().getFirst().state());
    }

    @Test
    void whatIsAutomaticWaitsWhileThePreviousIsTested() {
        given.around = new GateFacts.Around(false, Optional.empty(), Optional.empty(), List.of(), Optional.of("1.4.1"));
        assertTrue(judged(new Criterion.PreviousPassed()).open(), "a person asked");
        given.requester = "";
        assertTrue(judged(new Criterion.PreviousPassed()).judgements().getFirst().sentence()
                .startsWith("1.4.1 is being tested there"));
        given.around = GateFacts.Around.PLAIN;
        assertTrue(judged(new Criterion.PreviousPassed()).open());
    }

    @Test
    void whatItRequiresMustBeLiveBesideIt() {
        given.around = new GateFacts.Around(false, Optional.empty(), Optional.empty(),
                List.of(new GateFacts.Requirement("sun-model", ">=2.8", Optional.of("2.9.1"), true)));
        assertEquals(Judgement.State.MET, judged(new Criterion.Requires()).judgements().getFirst().state());
        given.around = new GateFacts.Around(false, Optional.empty(), Optional.empty(),
                List.of(new GateFacts.Requirement("sun-model", ">=2.8", Optional.empty(), false)));
        Judgement missing = judged(new Criterion.Requires()).judgements().getFirst();
        assertEquals(Judgement.State.NOT_MET, missing.state());
        assertTrue(missing.sentence().contains("none is live there"));
    }

    @Test
    void aDeputysDecisionStandsAsItWasMadeAsLongAsItsPrincipalIsAsked() {
        given.decisions.add(new GateDecision("deputy", Optional.of("approver-1"), true, "because", SUBJECT.digest(),
                Optional.of(SUBJECT), ASKED));
        assertTrue(judged(ONE).open(), "also once the deputyship has ended");
        assertTrue(judged(ONE).judgements().getFirst().sentence().contains("deputy said yes in place of approver-1"));
        given.members.put("approvers", Set.of("approver-2"));
        assertFalse(judged(ONE).open());
    }

    @Test
    void aDecisionIsHandedOnToThoseAloneWhoCouldBeAsked() {
        Approvals escalating = new Approvals(List.of("approvers"), 1, List.of(Exclusion.AUTHORS), false,
                Optional.empty(),
                Optional.of(new Criterion.Escalation(Duration.ofHours(4), "testers")));
        assertEquals(Optional.empty(), Approving.handOnRefusal(ONE, facts(), "approver-2"));
        assertEquals(
                Optional.of(
                        "tester is not in the group approvers, which decides here, and stands in for nobody who is"),
                Approving.handOnRefusal(ONE, facts(), "tester"));
        assertEquals(Optional.empty(), Approving.handOnRefusal(escalating, facts(), "tester"),
                "asked later, by escalation");
        given.standIns.put("guide", Set.of("approver-1"));
        assertEquals(Optional.empty(), Approving.handOnRefusal(ONE, facts(), "guide"));
        assertTrue(Approving.handOnRefusal(ONE, facts(), "developer").orElseThrow().contains("authors may not decide"));
    }

    @Test
    void whoStandsInGivesTheOthersVoiceAndTheTwoCountOnce() {
        Approvals two = new Approvals(List.of("approvers"), 2, List.of(Exclusion.AUTHORS), false, Optional.empty(),
                Optional.empty());
        given.standIns.put("deputy", Set.of("approver-1"));
        assertEquals(Optional.empty(), Approving.refusal(two, facts(), ASKED, "deputy"));
        says("deputy", true, SUBJECT, 1);
        assertTrue(judged(two).judgements().getFirst().sentence().contains("deputy said yes in place of approver-1"));
        assertEquals(Optional.of("deputy has approved this already in place of approver-1"),
                Approving.refusal(two, facts(), ASKED, "approver-1"));
        says("approver-1", true, SUBJECT, 2);
        assertFalse(judged(two).open());
        says("approver-2", true, SUBJECT, 3);
        assertTrue(judged(two).open());
        given.standIns.put("developer", Set.of("approver-2"));
        assertTrue(Approving.refusal(two, facts(), ASKED, "developer").orElseThrow().contains("authors may not decide"),
                "an author decides for nobody");
    }

    /** A member with a weaker gate does not lend it to the others. */
    @Test
    void aSetAsksWhateverItsMembersAsk() {
        Approvals two = new Approvals(List.of("approvers"), 2, List.of(), false, Optional.empty(), Optional.empty());
        Criterion.Checklist list = new Criterion.Checklist(List.of("testers"), List.of("Old links still work"));
        Criterion.LiveFor live = new Criterion.LiveFor(Duration.ofHours(2));
        assertEquals(List.of(live, ONE, two, list), Gate.ofSet(List.of(live, ONE),
                List.of(List.of(new Criterion.LiveFor(Duration.ofHours(9)), two, ONE), List.of(list))));
        assertFalse(Gate.judge(Gate.ofSet(List.of(), List.of(List.of(two))), facts(), ASKED).open());
    }

    private void yes(String by) {
        given.decisions
                .add(new GateDecision(by, Optional.empty(), true, "because", SUBJECT.digest(), Optional.of(SUBJECT),
                        ASKED));
    }

    /** An address that belongs to nobody may be that of one who approves. */
    @Test
    void whereAnAuthorIsNotKnownOneMoreApproves() {
        given.unknown = Set.of("lena@elsewhere.example");
        yes("approver-1");
        assertFalse(judged(ONE).open());
        String sentence = judged(ONE).judgements().getFirst().sentence();
        assertTrue(sentence.contains(
                "Who is lena@elsewhere.example? They belong to no account and wrote or pushed some of it, so one "
                        + "more approval is wanted"),
                sentence);
        yes("approver-2");
        assertTrue(judged(ONE).open());
    }

    /** What moved, and nobody told who pushed it. */
    @Test
    void whereAPusherIsNotKnownTheGateSaysHowThatIsTold() {
        given.unknown = Set.of(GateFacts.PUSHER + "4f1c2ab to main");
        yes("approver-1");
        String sentence = judged(ONE).judgements().getFirst().sentence();
        assertTrue(sentence.contains("Who is the pusher of 4f1c2ab to main? "), sentence);
        assertTrue(sentence.endsWith("(paseo component pushed COMPONENT COMMIT --by NAME)."), sentence);
        given.unknown = Set.of("a@x", GateFacts.PUSHER + "4f1c2ab to main");
        assertTrue(judged(ONE).judgements().getFirst().sentence().endsWith(
                "(paseo account change NAME --add-address ADDRESS; paseo component pushed COMPONENT COMMIT --by "
                        + "NAME)."));
        yes("approver-2");
        assertTrue(judged(ONE).open());
    }

    @Test
    void orItWaitsUntilSomebodySaysWhoThatIs() {
        Approvals ask = new Approvals(ONE.from(), 1, List.of(Criterion.Exclusion.AUTHORS), false, Optional.empty(),
                Optional.empty(), Optional.of(Criterion.UnknownAuthors.ASK));
        given.unknown = Set.of("a@x", "b@x", "c@x", "d@x");
        yes("approver-1");
        yes("approver-2");
        assertFalse(judged(ask).open());
        String sentence = judged(ask).judgements().getFirst().sentence();
        assertTrue(
                sentence.contains(
                        "Who is a@x, b@x, c@x and 1 others? It waits until an administrator says who that is"),
                sentence);
        given.unknown = Set.of();
        assertTrue(judged(ask).open());
    }

    @Test
    void whereAuthorsMayDecideItMattersToNobody() {
        given.unknown = Set.of("lena@elsewhere.example");
        yes("approver-1");
        assertTrue(judged(new Approvals(List.of("approvers"), 1, List.of(), false, Optional.empty(), Optional.empty()))
                .open());
    }

    /** Who may not decide does so neither through a deputy, nor by handing it on to one. */
    @Test
    void nobodyDecidesInPlaceOfOneWhoMayNot() {
        given.standIns.put("deputy", Set.of("developer"));
        String why = "deputy stands in for developer: developer wrote or pushed a commit of what is proposed, and "
                + "authors may not decide about it, nor may who stands in for them";
        assertEquals(Optional.of(why), Approving.refusal(ONE, facts(), ASKED, "deputy"));
        assertEquals(Optional.of(why), Approving.handOnRefusal(ONE, facts(), "deputy"));
        given.decisions.add(new GateDecision("deputy", Optional.of("developer"), true, "because", SUBJECT.digest(),
                Optional.of(SUBJECT), ASKED));
        assertFalse(judged(ONE).open());
        given.standIns.put("deputy", Set.of("developer", "approver-2"));
        assertEquals(Optional.empty(), Approving.refusal(ONE, facts(), ASKED, "deputy"),
                "who stands in for another too has that one's voice");
    }

    @Test
    void afterATimeOthersAreAskedToo() {
        Approvals later = new Approvals(List.of("approvers"), 1, List.of(), false, Optional.of(Duration.ofHours(8)),
                Optional.of(new Criterion.Escalation(Duration.ofHours(2), "operators")));
        given.members.put("operators", Set.of("operator"));
        assertTrue(Approving.refusal(later, facts(), ASKED.plus(Duration.ofHours(2)).minusMillis(1), "operator")
                .isPresent());
        assertEquals(Optional.of(ASKED.plus(Duration.ofHours(2))), Gate.judge(List.of(later), facts(), ASKED).again(),
                "it is judged again then");
        assertTrue(Approving.refusal(later, facts(), ASKED.plus(Duration.ofHours(2)), "operator").isEmpty());
        assertEquals(Optional.of(ASKED.plus(Duration.ofHours(8))),
                Gate.judge(List.of(later), facts(), ASKED.plus(Duration.ofHours(2))).again());
    }

    @Test
    void aChecklistIsMetByItsItemsAndRejectedByOne() {
        Criterion.Checklist list = new Criterion.Checklist(List.of("testers"),
                List.of("Board shows the day's turning time", "Old links still work"));
        assertEquals("0 of 2 ticked", judged(list).judgements().getFirst().name());
        given.tick("Board shows the day's turning time", Tick.Outcome.DONE);
        given.tick("An item of yesterday", Tick.Outcome.FAILED);
        assertEquals(Judgement.State.ASKED, judged(list).judgements().getFirst().state(),
                "what is no longer on the list does not count");
        assertEquals("Waits for testers: Old links still work.", judged(list).judgements().getFirst().sentence());
        given.tick("Old links still work", Tick.Outcome.FAILED);
        assertEquals(Optional.of("\"Old links still work\" failed, says tester: \"note\""), judged(list).rejected());
        given.tick("Old links still work", Tick.Outcome.CLEARED);
        assertEquals(Judgement.State.ASKED, judged(list).judgements().getFirst().state());
        given.tick("Old links still work", Tick.Outcome.DONE);
        assertTrue(judged(list).open());
        assertTrue(Ticking.refusal(list, facts(), "developer").isPresent());
        assertTrue(Ticking.refusal(list, facts(), "tester").isEmpty());
    }

    @ParameterizedTest
    @CsvSource({"0, 30, NOT_YET, 2026-11-23T11:30:00Z", "0, -60, MET,", "130, , MET,", "30, , NOT_MET,",
            "119, 59, NOT_YET, 2026-11-23T11:59:00Z"})
    void liveForCountsOneStretch(int longest, Integer since, Judgement.State state, Instant until) {
        given.stretch = new GateFacts.Stretch("staging", Duration.ofMinutes(longest),
                Optional.ofNullable(since).map(minute -> ASKED.plus(Duration.ofMinutes(minute))));
        Judgement judgement = judged(new Criterion.LiveFor(Duration.ofHours(2))).judgements().getFirst();
        assertEquals(state, judgement.state(), judgement::sentence);
        assertEquals(Optional.ofNullable(until), judgement.until());
    }

    @Test
    void aConditionSaysWhatItSaw() {
        given.conditions.put("tests.failed == 0", new GateFacts.Held(Optional.of(false), "tests.failed is 3"));
        assertEquals("It does not hold: tests.failed is 3.",
                judged(new Criterion.Fact("tests.failed == 0")).judgements().getFirst().sentence());
        Judgement named = judged(new Criterion.Fact("tests.failed == 0", "No test has failed")).judgements().getFirst();
        assertEquals("No test has failed", named.name());
        assertTrue(named.sentence().contains("(tests.failed == 0): "), named::sentence);
        assertEquals("No test has failed (tests.failed == 0)",
                InWords.of(new Criterion.Fact("tests.failed == 0", "No test has failed")));
        assertTrue(judged(new Criterion.Fact("coverage.lines > 0.5")).judgements().getFirst().sentence()
                .contains("never reported"));
    }

    @Test
    void somebodyOutsideAnswers() {
        Criterion.Outside desk = new Criterion.Outside("change-desk", "http://127.0.0.1/changes",
                Optional.of(Duration.ofHours(4)));
        assertEquals(Judgement.State.ASKED, judged(desk).judgements().getFirst().state());
        given.answers.put("change-desk", new GateFacts.Answer(Optional.of(true), "CHG-12", ASKED));
        assertTrue(judged(desk).open());
        given.answers.put("change-desk", new GateFacts.Answer(Optional.of(false), "freeze", ASKED));
        assertEquals(Optional.of("change-desk said no: \"freeze\""), judged(desk).rejected());
        given.answers.clear();
        assertTrue(Gate.judge(List.of(desk), facts(), ASKED.plus(Duration.ofHours(4))).expired().isPresent());
    }

    @ParameterizedTest
    @CsvSource({"staging showroom, true, MET", "staging showroom, false, NOT_MET", "test staging, false, MET",
            "showroom, true, NOT_MET"})
    void anyOrAllOfWhatItFollows(String environments, boolean any, Judgement.State state) {
        assertEquals(state,
                judged(new Criterion.Follows(List.of(environments.split(" ")), any)).judgements().getFirst().state());
    }

    @ParameterizedTest
    @CsvSource({"'', v*, false, MET", "'', w*, false, NOT_MET", "season/*, v1*, false, MET", "'', '', true, MET"})
    void whereAVersionComesFrom(String branches, String tags, boolean uploads, Judgement.State state) {
        Criterion origin = new Criterion.Origin(branches.isEmpty() ? List.of() : List.of(branches),
                tags.isEmpty() ? List.of() : List.of(tags), uploads);
        assertEquals(state, judged(origin).judgements().getFirst().state());
    }

    /** What was built elsewhere has no branch that could be trusted: the rule has to name it. */
    @ParameterizedTest
    @CsvSource({"'', false, NOT_MET, From a trusted branch", "'', true, MET, From a trusted branch or an upload",
            "main, false, NOT_MET, From main", "main, true, MET, From main or an upload"})
    void anUploadIsOfItsOwnOrigin(String branch, boolean uploads, Judgement.State state, String name) {
        Criterion origin = new Criterion.Origin(branch.isEmpty() ? List.of() : List.of(branch), List.of(), uploads);
        given.uploaded = true;
        Judgement judged = judged(origin).judgements().getFirst();
        assertEquals(state, judged.state());
        assertEquals(name, judged.name());
    }

    @Test
    void rulesInWords() {
        assertEquals(
                "One of approvers approves, not an author or the requester, with a comment, within 2 d of the request.",
                InWords.of(ONE));
        Hours hours = new Hours(java.time.ZoneId.of("Europe/Madrid"),
                List.of(new Hours.Window(
                        java.util.EnumSet.of(java.time.DayOfWeek.MONDAY, java.time.DayOfWeek.TUESDAY,
                                java.time.DayOfWeek.FRIDAY),
                        new Hours.Span(java.time.LocalTime.of(9, 0), java.time.LocalTime.of(16, 0)))),
                java.util.Map.of(java.time.LocalDate.of(2026, 12, 24), List.of()));
        assertEquals("It begins Monday to Tuesday, Friday from 09:00 to 16:00; 2026-12-24 not at all (Europe/Madrid).",
                InWords.of(new Criterion.Open(hours)));
        assertEquals("It was built from main or season/*, or is tagged v*, or was uploaded.",
                InWords.of(new Criterion.Origin(List.of("main", "season/*"), List.of("v*"), true)));
        assertEquals("It has passed staging or showroom.",
                InWords.of(new Criterion.Follows(List.of("staging", "showroom"), true)));
    }
}
