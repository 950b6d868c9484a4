package dev.paseo.core.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.gate.Criterion;
import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.gate.Criterion.Checklist;
import dev.paseo.core.gate.Criterion.Exclusion;
import dev.paseo.core.gate.Criterion.Fact;
import dev.paseo.core.gate.Criterion.Follows;
import dev.paseo.core.gate.Criterion.LiveFor;
import dev.paseo.core.gate.Criterion.Open;
import dev.paseo.core.gate.Criterion.Origin;
import dev.paseo.core.gate.Criterion.Outside;
import dev.paseo.core.gate.GateRules;
import dev.paseo.core.gate.Hours;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class LooseningTest {

    private static final Approvals TWO = new Approvals(List.of("approvers"), 2, List.of(Exclusion.AUTHORS), true,
            Optional.of(Duration.ofHours(48)), Optional.empty());
    private static final GateRules APPROVED = gate(List.of(TWO), Optional.of(Duration.ofHours(2)));

    private static GateRules gate(List<Approvals> approvals, Optional<Duration> liveFor) {
        return new GateRules(approvals, List.of(), liveFor, Optional.empty(), List.of(), List.of());
    }

    private static Rules rules(GateRules toEnter, GateRules toGoOn, GateRules rollback, boolean takesOver,
            Map<String, Rules.Gates> own) {
        return new Rules(Rules.FORMAT, Optional.of(new Follows(List.of("staging"), false)), Origin.TRUSTED,
                new Rules.Gates(toEnter, toGoOn), rollback, takesOver, false, own, Optional.empty(), Optional.empty());
    }

    private static Hours hours(String zone, Set<DayOfWeek> days, Map<LocalDate, List<Hours.Span>> exceptions) {
        return new Hours(ZoneId.of(zone),
                List.of(new Hours.Window(days, new Hours.Span(LocalTime.of(9, 0), LocalTime.of(16, 0)))), exceptions);
    }

    private static Approvals approvals(List<String> from, int count, List<Exclusion> notBy, boolean comment,
            Integer hours, Criterion.Escalation more) {
        return new Approvals(from, count, notBy, comment, Optional.ofNullable(hours).map(Duration::ofHours),
                Optional.ofNullable(more));
    }

    static Stream<Arguments> criteria() {
        List<Exclusion> authors = List.of(Exclusion.AUTHORS);
        LocalDate eve = LocalDate.of(2026, 12, 24);
        Set<DayOfWeek> week = EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY);
        Open open = new Open(hours("Europe/Madrid", week, Map.of(eve, List.of())));
        return Stream.of(
                Arguments.of(TWO,
                        approvals(List.of("approvers"), 3, List.of(Exclusion.AUTHORS, Exclusion.REQUESTER), true, 24,
                                null),
                        true),
                Arguments.of(TWO, approvals(List.of("approvers"), 1, authors, true, 48, null), false),
                Arguments.of(TWO, approvals(List.of("approvers", "developers"), 2, authors, true, 48, null), false),
                Arguments.of(TWO, approvals(List.of("approvers"), 2, List.of(), true, 48, null), false),
                Arguments.of(TWO, approvals(List.of("approvers"), 2, authors, false, 48, null), false),
                Arguments.of(TWO, approvals(List.of("approvers"), 2, authors, true, 72, null), false),
                Arguments.of(TWO, approvals(List.of("approvers"), 2, authors, true, null, null), false),
                Arguments.of(TWO,
                        approvals(List.of("approvers"), 2, authors, true, 48,
                                new Criterion.Escalation(Duration.ofHours(1), "developers")),
                        false),
                Arguments.of(new LiveFor(Duration.ofHours(2)), new LiveFor(Duration.ofHours(3)), true),
                Arguments.of(new LiveFor(Duration.ofHours(2)), new LiveFor(Duration.ofHours(1)), false),
                Arguments.of(new Checklist(List.of("testers"), List.of("a")),
                        new Checklist(List.of("testers"), List.of("a", "b")), true),
                Arguments.of(new Checklist(List.of("testers"), List.of("a", "b")),
                        new Checklist(List.of("testers"), List.of("a")), false),
                Arguments.of(new Checklist(List.of("testers"), List.of("a")),
                        new Checklist(List.of("testers", "developers"), List.of("a")), false),
                Arguments.of(open,
                        new Open(hours("Europe/Madrid", week, Map.of(eve, List.of(), eve.plusDays(7), List.of()))),
                        true),
                Arguments.of(open, new Open(hours("Europe/Madrid", week, Map.of())), false),
                Arguments.of(open, new Open(hours("UTC", week, Map.of(eve, List.of()))), false),
                Arguments.of(open,
                        new Open(hours("Europe/Madrid", EnumSet.allOf(DayOfWeek.class), Map.of(eve, List.of()))),
                        false),
                Arguments.of(new Fact("tests.failed == 0"), new Fact("tests.failed <= 0"), false),
                Arguments.of(new Fact("tests.failed == 0"), new Fact("tests.failed == 0", "No test has failed"), true),
                Arguments.of(new Outside("desk", "http://a", Optional.empty()),
                        new Outside("desk", "http://a", Optional.of(Duration.ofHours(1))), true),
                Arguments.of(new Outside("desk", "http://a", Optional.empty()),
                        new Outside("desk", "http://b", Optional.empty()), false),
                Arguments.of(new Follows(List.of("staging"), false), new Follows(List.of("test", "staging"), false),
                        true),
                Arguments.of(new Follows(List.of("test", "staging"), false),
                        new Follows(List.of("test", "staging"), true), false),
                Arguments.of(new Follows(List.of("a", "b"), true), new Follows(List.of("a"), true), true),
                Arguments.of(new Follows(List.of("a"), false), new Follows(List.of("a"), true), true),
                Arguments.of(new Follows(List.of("a"), true), new Follows(List.of("a", "b"), true), false),
                Arguments.of(Origin.TRUSTED, new Origin(List.of("main"), List.of(), false), false),
                Arguments.of(new Origin(List.of("main", "season/*"), List.of(), false),
                        new Origin(List.of("main"), List.of(), false), true),
                Arguments.of(new Origin(List.of("main"), List.of(), false), Origin.TRUSTED, false),
                Arguments.of(new Origin(List.of("main"), List.of(), false),
                        new Origin(List.of("main"), List.of("v*"), false), false),
                Arguments.of(Origin.TRUSTED, new Origin(List.of(), List.of(), true), false));
    }

    @ParameterizedTest
    @MethodSource("criteria")
    void whatIsSurelyAsStrictCoversWhatWasAsked(Criterion before, Criterion now, boolean covers) {
        assertEquals(covers, Loosening.covers(now, before));
    }

    @Test
    void aFileThatNamesAnEnvironmentWithoutItsGateSaysWhatIsNoLongerAsked() {
        Rules before = rules(APPROVED, GateRules.NONE, APPROVED, false, Map.of("path-board",
                new Rules.Gates(GateRules.NONE, gate(List.of(), Optional.of(Duration.ofMinutes(30))))));
        Rules bare = rules(GateRules.NONE, GateRules.NONE, GateRules.NONE, true, Map.of());
        assertEquals(List.of(
                "To enter: “2 of approvers approve, not an author, with a comment, within 2 d of the request.” is "
                        + "no longer asked",
                "To enter: “It has been live and healthy for 2 h in one stretch.” is no longer asked",
                "path-board, to go on: “It has been live and healthy for 30 min in one stretch.” is no longer asked",
                "To roll back: “2 of approvers approve, not an author, with a comment, within 2 d of the request.” "
                        + "is no longer asked",
                "To roll back: “It has been live and healthy for 2 h in one stretch.” is no longer asked",
                "Closed periods are missing or have changed",
                "A newer version no longer waits until the one before it has gone on"),
                Loosening.of(before, bare, false));
    }

    @Test
    void whatIsWeakerSaysWhatItBecomesAndWhatIsStricterSaysNothing() {
        Rules before = rules(APPROVED, GateRules.NONE, GateRules.NONE, false, Map.of());
        Rules weaker = rules(gate(List.of(TWO), Optional.of(Duration.ofMinutes(30))), GateRules.NONE, GateRules.NONE,
                false, Map.of());
        assertEquals(List.of(
                "To enter: “It has been live and healthy for 2 h in one stretch.” becomes “It has been live and "
                        + "healthy for 30 min in one stretch.”"),
                Loosening.of(before, weaker, true));
        assertEquals(List.of(), Loosening.of(weaker, before, true));
        assertEquals(List.of(), Loosening.of(before, before, true));
        assertEquals(List.of(), Loosening.of(Rules.NONE, before, true), "rules for what had none");
    }

    @Test
    void aComponentsOwnGateThatReplacesTheEnvironmentsCountsAsWhatHoldsForIt() {
        GateRules own = gate(List.of(), Optional.of(Duration.ofHours(2)));
        Rules before = rules(APPROVED, GateRules.NONE, GateRules.NONE, false,
                Map.of("path-board", new Rules.Gates(own, GateRules.NONE)));
        Rules replacing = new Rules(Rules.FORMAT, before.follows(), before.origin(), before.gates(), before.rollback(),
                false, true, before.components(), Optional.empty(), Optional.empty());
        assertEquals(List.of(
                "path-board, to enter: “2 of approvers approve, not an author, with a comment, within 2 d of the "
                        + "request.” is no longer asked"),
                Loosening.of(before, replacing, true));
    }

    @Test
    void whoAgreesToALooseningIsNotTrailExportUnseen() {
        Rules none = rules(APPROVED, GateRules.NONE, GateRules.NONE, false, Map.of());
        Rules two = agreedBy(none, "approvers", "wardens");
        Rules one = agreedBy(none, "approvers");
        assertEquals(List.of(), Loosening.of(none, two, true));
        assertEquals(List.of(), Loosening.of(two, one, true), "fewer may agree");
        assertEquals(List.of(
                "That one of approvers agrees before its rules are loosened becomes that one of approvers, "
                        + "wardens does"),
                Loosening.of(one, two, true));
        assertEquals(List.of("That one of approvers agrees before its rules are loosened is no longer asked"),
                Loosening.of(one, none, true));
    }

    private static Rules agreedBy(Rules rules, String... names) {
        return new Rules(Rules.FORMAT, rules.follows(), rules.origin(), rules.gates(), rules.rollback(),
                rules.takesOver(), rules.replaceable(), rules.components(), rules.closed(),
                Optional.of(List.of(names)));
    }
}
