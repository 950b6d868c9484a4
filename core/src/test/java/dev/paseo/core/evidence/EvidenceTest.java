package dev.paseo.core.evidence;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.evidence.FindingsSummary.Finding;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class EvidenceTest {

    /** Reports as commit and result of one test: p passed, f failed. */
    @ParameterizedTest
    @CsvSource({
            "a-p b-p c-p, false",
            "a-p b-f c-f, false",
            "a-f b-p c-p, false",
            "a-p b-f c-p, true",
            "a-f a-p, true",
            "a-p a-p b-f, false"})
    void aFlakyTest(String reports, boolean flaky) {
        List<Flakiness.Report> all = Arrays.stream(reports.split(" "))
                .map(word -> new Flakiness.Report(word.substring(0, 1),
                        word.endsWith("f") ? Set.of("light") : Set.<String>of()))
                .toList();
        assertEquals(flaky, Flakiness.flaky(all).contains("light"));
    }

    private static Finding finding(String fingerprint) {
        return new Finding("unused", "warning", "unused " + fingerprint, "Sun.java", Optional.of(3), fingerprint);
    }

    @Test
    void findingsAreNewGoneOrStillThere() {
        FindingsSummary before = new FindingsSummary(2, 0, 2, 0, List.of(finding("a"), finding("b")));
        FindingsSummary now = new FindingsSummary(3, 0, 3, 0, List.of(finding("b"), finding("c"), finding("d")));
        FindingsSummary.Change change = now.since(before);
        assertEquals(List.of(finding("c"), finding("d")), change.appeared());
        assertEquals(List.of(finding("a")), change.gone());
        assertEquals(1, change.still());
    }

    @Test
    void aTestFailsNewlyWhenItDidNotFailBefore() {
        TestSummary now = new TestSummary(3, 1, 2, 0, 1, List.of(new TestSummary.Failure("a", "", "", Optional.empty()),
                new TestSummary.Failure("b", "", "", Optional.empty())), List.of(), List.of());
        assertEquals(List.of("b"), now.newlyFailing(Set.of("a", "c")));
    }

    @Test
    void nothingToCoverIsCovered() {
        assertEquals(Optional.empty(), new CoverageSummary.Counted(0, 0).share(), "of nothing there is no share");
        assertEquals(Optional.of(0.75),
                new CoverageSummary.Counted(1, 2).plus(new CoverageSummary.Counted(2, 2)).share());
    }

    @Test
    void whatSeveralVariantsOfAStageFoundCountsOnce() {
        FindingsSummary utc = new FindingsSummary(2, 1, 1, 0,
                List.of(new Finding("a", "error", "a", "Sun.java", Optional.of(1), "one"),
                        new Finding("b", "warning", "b", "Sun.java", Optional.of(2), "two")));
        FindingsSummary madrid = new FindingsSummary(2, 0, 1, 1,
                List.of(new Finding("b", "warning", "b", "Sun.java", Optional.of(2), "two"),
                        new Finding("c", "note", "c", "Sun.java", Optional.of(3), "three")));
        FindingsSummary both = FindingsSummary.ofVariants(List.of(utc, madrid));
        assertEquals(List.of(3L, 1L, 1L, 1L), List.of(both.total(), both.errors(), both.warnings(), both.notes()));
        assertEquals(utc, FindingsSummary.ofVariants(List.of(utc, utc, utc)));
        FindingsSummary cut = new FindingsSummary(9000, 9000, 0, 0, utc.results());
        assertEquals(cut, FindingsSummary.ofVariants(List.of(utc, cut)),
                "what is not kept cannot be told apart: the larger one stands");
        assertEquals(4, utc.plus(madrid).total(), "two stages add up");
    }
}
