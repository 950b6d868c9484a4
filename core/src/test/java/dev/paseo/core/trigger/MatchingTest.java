package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.trigger.Matching.Finding;
import dev.paseo.core.trigger.Matching.InForce;
import dev.paseo.core.trigger.Trigger.Novelty;
import dev.paseo.core.trigger.Trigger.RunEnd;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MatchingTest {

    private static final BranchRules RULES = BranchRules.of(List.of("feature/*"), List.of("main", "season/*"));

    private static List<BranchPattern> patterns(String... texts) {
        return Arrays.stream(texts).map(BranchPattern::new).toList();
    }

    private static InForce of(Trigger trigger) {
        return new InForce("daylight-api", 0, trigger, RULES, "main", Optional.of("file:///one"));
    }

    /** What comes of one trigger, in a word or the reason; "-" where it was not considered. */
    private static String find(Event event, Trigger trigger) {
        return Matching.match(event, List.of(of(trigger))).stream().map(each -> switch (each.finding()) {
            case Finding.Starts(String branch, boolean trusted) -> "starts on " + branch
                    + (trusted ? "" : ", not trusted");
            case Finding.Weighs(String branch, boolean trusted) -> "weighs on " + branch
                    + (trusted ? "" : ", not trusted");
            case Finding.StartsNothing(String reason) -> reason;
        }).findFirst().orElse("-");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "main          | starts on main",
            "feature/night | starts on feature/night, not trusted",
            "season/spring | the push was to season/spring",
            "try/metres    | the service allows runs on main, season/*, feature/*; this is try/metres"})
    void fileAndServiceMustAgreeOnAPush(String branch, String expected) {
        assertEquals(expected, find(new Event.Pushed("daylight-api", branch, "c1", Optional.empty()),
                new Trigger.Push(patterns("main", "feature/*", "try/*"), List.of())));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "service/App.java         | starts on main",
            "README                   | none of service/**, **/pom.xml changed since the last started commit, but "
                    + "README",
            "pom.xml                  | starts on main",
            "deep/down/pom.xml        | starts on main",
            "a b c d                  | none of service/**, **/pom.xml changed since the last started commit, but "
                    + "a, b, c and 1 more",
            "''                       | none of service/**, **/pom.xml changed since the last started commit, but "
                    + "nothing did"})
    void pathsNarrowAPush(String changed, String expected) {
        List<String> paths = changed.isBlank() ? List.of() : List.of(changed.strip().split(" "));
        assertEquals(expected, find(new Event.Pushed("daylight-api", "main", "c1", Optional.of(paths)),
                new Trigger.Push(patterns("main"), patterns("service/**", "**/pom.xml"))));
    }

    @Test
    void withNothingStartedBeforeEverythingHasChanged() {
        assertEquals("starts on main", find(new Event.Pushed("daylight-api", "main", "c1", Optional.empty()),
                new Trigger.Push(patterns("main"), patterns("service/**"))));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "v1.4.3  | main | ''    | starts on main",
            "v1.4.3  | main | 1.4.3 | its commit is sealed already: v1.4.3 is a second name of daylight-api 1.4.3",
            "v1.4.3  | ''   | ''    | its commit is on no branch that may start runs",
            "nightly | main | ''    | the tag is nightly"})
    void aTagBuildsNothingTwice(String tag, String branch, String sealed, String expected) {
        assertEquals(expected,
                find(new Event.Tagged("daylight-api", tag, "c1", Optional.of(branch).filter(text -> !text.isEmpty()),
                        Optional.of(sealed).filter(text -> !text.isEmpty())),
                        new Trigger.Tag(new BranchPattern("v*"))));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "sun-model  | main          | PASSED    | PASSED        | weighs on main",
            "sun-model  | main          | WARNED    | PASSED        | weighs on main",
            "sun-model  | main          | PASSED    | WARNED        | the run ended passed",
            "sun-model  | main          | FAILED    | PASSED        | the run ended failed",
            "sun-model  | main          | FAILED    | FAILED        | starts on main",
            "sun-model  | main          | CANCELLED | FAILED        | the run ended cancelled",
            "sun-model  | feature/night | PASSED    | PASSED        | 'the run was on feature/night, not on its "
                    + "main branch'",
            "map-tiles | main          | PASSED    | PASSED        | -"})
    void runsUpstream(String component, String branch, RunEnd end, RunEnd wanted, String expected) {
        assertEquals(expected.replace("'", ""),
                find(new Event.RunEnded(component, 3, branch, branch.equals("main"), end, Optional.of("file:///two")),
                        new Trigger.Upstream(List.of("sun-model"), List.of(), EnumSet.of(wanted), false, Novelty.ANY)));
    }

    @Test
    void theSameCommitNeedsTheSameRepository() {
        Trigger same = new Trigger.Upstream(List.of("sun-model"), List.of(), EnumSet.of(RunEnd.PASSED), true,
                Novelty.ANY);
        assertEquals("weighs on main", find(
                new Event.RunEnded("sun-model", 1, "main", true, RunEnd.PASSED, Optional.of("file:///one")), same));
        Trigger onFeatures = new Trigger.Upstream(List.of("sun-model"),
                List.of(new BranchPattern("*"), new BranchPattern("feature/*")), EnumSet.of(RunEnd.PASSED), true,
                Novelty.ANY);
        assertEquals("weighs on feature/sun, not trusted",
                find(new Event.RunEnded("sun-model", 1, "feature/sun", false, RunEnd.PASSED,
                        Optional.of("file:///one")), onFeatures),
                "the commit is of a branch that is not trusted, and so is its run");
        assertEquals("it wants the same commit, but sun-model and daylight-api are not of one repository",
                find(new Event.RunEnded("sun-model", 1, "main", true, RunEnd.PASSED, Optional.of("file:///two")),
                        same));
    }

    @Test
    void otherKinds() {
        Trigger live = new Trigger.Live("sun-model", "staging");
        assertEquals("starts on main", find(new Event.WentLive("sun-model", "2.8.1", "staging"), live));
        assertEquals("it went live in test", find(new Event.WentLive("sun-model", "2.8.1", "test"), live));
        assertEquals("starts on main", find(new Event.Arrived("daylight-api", "1"), new Trigger.Arrival()));
        assertEquals("this was a push",
                find(new Event.Pushed("daylight-api", "main", "c", Optional.empty()), new Trigger.Arrival()));
        Trigger clock = new Trigger.Clock("0 2 * * *", "UTC");
        assertEquals("starts on main",
                find(new Event.Fired("daylight-api", "0 2 * * *", "UTC", Instant.EPOCH, false), clock));
        assertEquals("the service was away at that time, and it is too long ago to be made up for",
                find(new Event.Fired("daylight-api", "0 2 * * *", "UTC", Instant.EPOCH, true), clock));
        assertEquals("-", find(new Event.Fired("daylight-api", "0 3 * * *", "UTC", Instant.EPOCH, false), clock));
        assertEquals("starts on feature/night, not trusted",
                find(new Event.Pushed("daylight-api", "feature/night", "c", Optional.empty()),
                        new Trigger.Preview(patterns("feature/*"))));
    }

    @ParameterizedTest
    @CsvSource({"main, main, true", "season/*, season/spring, true", "season/*, season/a/b, false",
            "season/**, season/a/b, true",
            "v?, v1, true", "v?, v12, false", "a.c, abc, false", "*, a/b, false", "'[a]', a, false",
            "**/pom.xml, pom.xml, true",
            "**/pom.xml, a/b/pom.xml, true", "**/pom.xml, apom.xml, false", "a/**/b, a/b, true",
            "a/**/b, a/x/y/b, true"})
    void patterns(String pattern, String name, boolean matches) {
        assertEquals(matches, new BranchPattern(pattern).matches(name));
    }

    /** Whatever a branch is called, nothing breaks, and what starts is allowed by both the file and the service. */
    @Property(tries = 300)
    void whatStartsIsAllowedTwice(@ForAll String branch) {
        Trigger.Push push = new Trigger.Push(patterns("main", "feature/*", "try/*"), List.of());
        List<Matching.Considered> found = Matching
                .match(new Event.Pushed("daylight-api", branch, "c", Optional.empty()), List.of(of(push)));
        boolean starts = found.getFirst().finding() instanceof Finding.Starts;
        assertEquals(starts, push.branches().stream().anyMatch(pattern -> pattern.matches(branch))
                && RULES.refusal(branch).isEmpty());
    }

    @Test
    void everyTriggerThatAnEventConcernsHasAnAnswer() {
        List<InForce> many = java.util.stream.IntStream.range(0, 500).mapToObj(at -> new InForce("c" + at, 0,
                new Trigger.Upstream(List.of(at % 2 == 0 ? "sun-model" : "map-tiles"), List.of(), Set.of(RunEnd.PASSED),
                        false, Novelty.ANY),
                RULES, "main", Optional.empty())).toList();
        List<Matching.Considered> found = Matching
                .match(new Event.RunEnded("sun-model", 1, "main", true, RunEnd.FAILED, Optional.empty()), many);
        assertEquals(250, found.size());
        assertTrue(found.stream().allMatch(each -> each.finding() instanceof Finding.StartsNothing));
    }

    /** What came while the service was away is made up for within an hour. */
    @Test
    void aClockIsMissedAfterAnHour() {
        Instant at = Instant.parse("2026-11-28T02:00:00Z");
        assertFalse(Event.Fired.noticed("daylight-api", "0 2 * * *", "UTC", at, at).missed());
        assertFalse(Event.Fired.noticed("daylight-api", "0 2 * * *", "UTC", at, at.plusSeconds(3600)).missed());
        assertTrue(Event.Fired.noticed("daylight-api", "0 2 * * *", "UTC", at, at.plusSeconds(3600).plusMillis(1))
                .missed());
    }
}
