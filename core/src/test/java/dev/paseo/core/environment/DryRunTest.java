package dev.paseo.core.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.environment.DryRun.Outcome;
import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Fact;
import dev.paseo.core.gate.Criterion.Follows;
import dev.paseo.core.gate.Criterion.LiveFor;
import dev.paseo.core.gate.GateFacts;
import dev.paseo.core.gate.GateFacts.Held;
import dev.paseo.core.gate.GateFacts.Lived;
import dev.paseo.core.gate.GateFacts.Stretch;
import dev.paseo.core.gate.GateDecision;
import dev.paseo.core.gate.Subject;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class DryRunTest {

    private static final Instant ASKED = Instant.parse("2026-06-01T08:00:00Z");
    private static final Instant WENT = ASKED.plus(Duration.ofHours(2));
    private static final Subject SUBJECT = new Subject("digest", 1, 1, 1, 0);
    private static final Approvals ONE = approvals(1, Optional.empty());

    private static Approvals approvals(int count, Optional<Duration> within) {
        return new Approvals(List.of("approvers"), count, List.of(), false, within, Optional.empty());
    }

    private static GateFacts facts(Stretch stretch, List<GateDecision> decisions) {
        return new GateFacts(SUBJECT, "dev", Set.of(), Set.of(),
                new GateFacts.People(Map.of("approvers", Set.of("ana", "ben")), Map.of()),
                new GateFacts.OfVersion(Set.of("test", "staging"), "main", true, List.of(), false, stretch,
                        Map.of("tests.failed == 0", new Held(Optional.of(true), "tests.failed is 0"),
                                "coverage.lines > 80", new Held(Optional.of(false), "coverage.lines is 71"))),
                ASKED, new GateFacts.Said(decisions, List.of(), Map.of()), GateFacts.Around.PLAIN);
    }

    private static GateDecision yes(String by, Duration after) {
        return new GateDecision(by, true, "", SUBJECT, ASKED.plus(after));
    }

    private static GateFacts then(List<GateDecision> decisions) {
        return facts(Stretch.NOT_AT_ALL, decisions).asOf(WENT, Set.of("test"), new Stretch("test", Duration.ZERO,
                Optional.of(WENT.minus(Duration.ofMinutes(20)))));
    }

    static Stream<Arguments> whatWent() {
        List<GateDecision> early = List.of(yes("ana", Duration.ofHours(1)));
        List<GateDecision> both = List.of(yes("ana", Duration.ofHours(1)), yes("ben", Duration.ofHours(3)));
        return Stream.of(Arguments.of("what is asked already is not judged", ONE, early, Outcome.AS_IT_WAS),
                Arguments.of("two are asked, one had said yes", approvals(2, Optional.empty()), early, Outcome.WAITED),
                Arguments.of("what was said later does not count", approvals(2, Optional.empty()), both,
                        Outcome.WAITED),
                Arguments.of("a sooner end", approvals(2, Optional.of(Duration.ofHours(1))), early, Outcome.STOPPED),
                Arguments.of("a condition that held", new Fact("tests.failed == 0"), early, Outcome.AS_IT_WAS),
                Arguments.of("one that did not", new Fact("coverage.lines > 80"), early, Outcome.STOPPED),
                Arguments.of("one over what nobody reported", new Fact("findings.high == 0"), early, Outcome.STOPPED),
                Arguments.of("long enough", new LiveFor(Duration.ofMinutes(20)), early, Outcome.AS_IT_WAS),
                Arguments.of("not long enough yet", new LiveFor(Duration.ofMinutes(30)), early, Outcome.WAITED),
                Arguments.of("passed by then", new Follows(List.of("test"), false), early, Outcome.AS_IT_WAS),
                Arguments.of("passed later only", new Follows(List.of("staging"), false), early, Outcome.STOPPED),
                Arguments.of("an answer that was never asked", new Criterion.Outside("changes", "https://x.example",
                        Optional.empty()), early, Outcome.WAITED));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource
    void whatWent(String name, Criterion asked, List<GateDecision> decisions, Outcome outcome) {
        List<Criterion> more = DryRun.more(List.of(ONE), List.of(ONE, asked));
        DryRun.Finding finding = DryRun.went(more, then(decisions), WENT);
        assertEquals(outcome, finding.outcome(), finding::toString);
        assertEquals(outcome == Outcome.AS_IT_WAS, finding.sentences().isEmpty());
    }

    @Test
    void whatEndedIsLetThroughWhereAllThatIsAskedThenWasMet() {
        List<Criterion> before = List.of(approvals(2, Optional.empty()));
        List<Criterion> after = List.of(ONE);
        assertEquals(before, DryRun.less(before, after));
        List<GateDecision> one = List.of(yes("ana", Duration.ofHours(1)));
        assertEquals(Outcome.LET_THROUGH, DryRun.ended(after, then(one), WENT).outcome());
        assertEquals(Outcome.AS_IT_WAS, DryRun.ended(after, then(List.of()), WENT).outcome());
        List<GateDecision> no = List.of(new GateDecision("ben", false, "no", SUBJECT, ASKED), one.getFirst());
        assertEquals(Outcome.AS_IT_WAS, DryRun.ended(after, then(no), WENT).outcome(), "a no stays a no");
    }

    @Test
    void peopleAreNotAskedOfAMemberThatFollows() {
        Fact fact = new Fact("tests.failed == 0");
        assertEquals(List.of(fact), DryRun.ofMember(List.of(ONE, fact), true));
        assertEquals(List.of(ONE, fact), DryRun.ofMember(List.of(ONE, fact), false));
    }

    static Stream<Arguments> stretches() {
        Duration ten = Duration.ofMinutes(10);
        Lived ended = new Lived(WENT.minusSeconds(7200), Optional.of(WENT.minusSeconds(3600)));
        Lived later = new Lived(WENT.plusSeconds(60), Optional.empty());
        Lived under = new Lived(WENT.minusSeconds(300), Optional.of(WENT.plusSeconds(9000)));
        Duration day = Duration.ofDays(1);
        return Stream.of(
                Arguments.of(day, List.of(), new Stretch("test", Duration.ZERO, Optional.empty())),
                Arguments.of(day, List.of(later), new Stretch("test", Duration.ZERO, Optional.empty())),
                Arguments.of(day, List.of(ended), new Stretch("test", Duration.ofHours(1), Optional.empty())),
                Arguments.of(day, List.of(ended, under),
                        new Stretch("test", Duration.ofHours(1), Optional.of(under.from()))),
                Arguments.of(ten, List.of(ended), new Stretch("test", ten, Optional.empty())),
                Arguments.of(Duration.ofMinutes(2), List.of(under),
                        new Stretch("test", Duration.ZERO, Optional.of(WENT.minusSeconds(120)))));
    }

    @ParameterizedTest
    @MethodSource
    void stretches(Duration healthy, List<Lived> lived, Stretch wanted) {
        Stretch then = new Stretch("test", healthy, Optional.empty()).asOf(lived, WENT);
        assertEquals(wanted, then);
        assertTrue(then.longest().compareTo(healthy) <= 0);
    }
}
