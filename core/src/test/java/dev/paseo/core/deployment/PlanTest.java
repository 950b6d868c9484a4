package dev.paseo.core.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.deployment.Movement.What;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

class PlanTest {

    private static final List<String> HUTS = List.of("north-hut", "ridge-hut", "valley-house");

    private static List<Plan.Host> plain() {
        return HUTS.stream().map(name -> new Plan.Host(name, Optional.empty(), false)).toList();
    }

    private static List<Plan.Host> sided(boolean greenHasIt) {
        return List.of(new Plan.Host("north-hut", Optional.of("blue"), false),
                new Plan.Host("ridge-hut", Optional.of("green"), greenHasIt));
    }

    private static String words(List<Movement> plan) {
        return plan.stream().map(movement -> switch (movement.what()) {
            case INSTALL, VERIFY, CLEAR -> movement.what() + String.join("+", movement.hosts());
            case PAUSE, WATCH -> movement.what() + movement.length().orElseThrow().toString();
            case TRAFFIC -> movement.what() + Integer.toString(movement.share());
            case TEST, FACTS -> movement.what() + movement.name().orElseThrow();
            default -> movement.what().toString();
        }).map(word -> word.replace("PT", " ")).collect(Collectors.joining(", "));
    }

    static Stream<Arguments> plans() {
        Plan.Recipe full = new Plan.Recipe(new Strategy.Rolling(2, Duration.ofSeconds(10), false, 0), true, true, true,
                Optional.of(Duration.ofMinutes(5)), List.of("acceptance"));
        Strategy canary = new Strategy.Canary(
                List.of(new Strategy.Share(10, Duration.ofMinutes(5), Optional.of("tests.failed == 0"), false),
                        new Strategy.Share(50, Duration.ZERO, Optional.empty(), true)),
                Duration.ofHours(1));
        Strategy blueGreen = new Strategy.BlueGreen(Duration.ofHours(1));
        return Stream.of(
                Arguments.of(Plan.Recipe.PLAIN, plain(), Optional.empty(),
                        "INSTALLnorth-hut+ridge-hut+valley-house, LIVE, SETTLED"),
                Arguments.of(full, plain(), Optional.empty(),
                        "ONCE_BEFORE, INSTALLnorth-hut+ridge-hut, PAUSE 10S, INSTALLvalley-house, ONCE_AFTER, "
                                + "WHOLE, LIVE, "
                                + "WATCH 5M, TESTacceptance, SETTLED"),
                Arguments.of(only(new Strategy.Rolling(1, Duration.ZERO, true, 1)), plain(), Optional.empty(),
                        "INSTALLvalley-house, INSTALLridge-hut, INSTALLnorth-hut, LIVE, SETTLED"),
                Arguments.of(only(new Strategy.Rolling(100, Duration.ofSeconds(1), false, 0)), plain(),
                        Optional.empty(),
                        "INSTALLnorth-hut+ridge-hut+valley-house, LIVE, SETTLED"),
                Arguments.of(only(blueGreen), sided(false), Optional.of("blue"),
                        "INSTALLridge-hut, TRAFFIC100, LIVE, SETTLED, PAUSE 1H, CLEARnorth-hut"),
                Arguments.of(only(blueGreen), sided(false), Optional.empty(),
                        "INSTALLnorth-hut, TRAFFIC100, LIVE, SETTLED"),
                Arguments.of(only(blueGreen), sided(true), Optional.of("blue"),
                        "VERIFYridge-hut, TRAFFIC100, LIVE, SETTLED, PAUSE 1H, CLEARnorth-hut"),
                Arguments.of(only(canary), sided(false), Optional.of("green"),
                        "INSTALLnorth-hut, TRAFFIC10, WATCH 5M, FACTStests.failed == 0, TRAFFIC50, QUESTION, "
                                + "TRAFFIC100, LIVE, SETTLED, "
                                + "PAUSE 1H, CLEARridge-hut"),
                Arguments.of(only(canary), sided(false), Optional.empty(),
                        "INSTALLnorth-hut, TRAFFIC100, LIVE, SETTLED"));
    }

    private static Plan.Recipe only(Strategy strategy) {
        return new Plan.Recipe(strategy, false, false, false, Optional.empty(), List.of());
    }

    @ParameterizedTest
    @MethodSource("plans")
    void aPlanSaysEverythingThatWillHappen(Plan.Recipe recipe, List<Plan.Host> hosts, Optional<String> live,
            String expected) {
        assertEquals(expected, words(Plan.of(recipe, hosts, live)));
    }

    @Test
    void sidedStrategiesNeedTwoSides() {
        Strategy blueGreen = new Strategy.BlueGreen(Duration.ZERO);
        assertEquals(Optional.empty(), Plan.reasonAgainst(blueGreen, plain()),
                "without sides they are deployed to together");
        assertEquals("INSTALLnorth-hut+ridge-hut+valley-house, LIVE, SETTLED",
                words(Plan.of(only(blueGreen), plain(), Optional.empty())));
        assertTrue(Plan.reasonAgainst(blueGreen, List.of(new Plan.Host("a", Optional.of("blue"), false))).orElseThrow()
                .contains("only blue"));
        assertTrue(Plan.reasonAgainst(blueGreen,
                List.of(new Plan.Host("a", Optional.of("blue"), false), new Plan.Host("b", Optional.empty(), false)))
                .isPresent());
        assertEquals(Optional.empty(), Plan.reasonAgainst(blueGreen, sided(false)));
        assertEquals(Optional.empty(), Plan.reasonAgainst(new Strategy.Together(), plain()));
        assertEquals(What.INSTALL, Plan.of(Plan.Recipe.PLAIN, plain(), Optional.empty()).getFirst().what());
    }

    @Test
    void neverMayAllHostsFail() {
        Strategy lenient = new Strategy.Rolling(1, Duration.ZERO, false, 2);
        assertEquals(2, Plan.mayFail(lenient, plain()));
        assertEquals(0, Plan.mayFail(lenient, plain().subList(0, 1)));
        assertEquals(0, Plan.mayFail(new Strategy.Together(), plain()));
    }

    private static RollbackTarget.Past past(long id, String version, Kind kind, Long replaced) {
        return new RollbackTarget.Past(id, version, kind, Optional.ofNullable(replaced), false, false, 1,
                Long.parseLong(version.substring(4)));
    }

    @Test
    void aRollbackGoesToTheLastGoodVersion() {
        List<RollbackTarget.Past> walked = List.of(past(3, "1.4.3", Kind.PROMOTION, 2L),
                past(2, "1.4.2", Kind.PROMOTION, 1L), past(1, "1.4.1", Kind.PROMOTION, null));
        assertEquals("1.4.2", RollbackTarget.choose(walked, "1.4.3", Optional.empty()).orElseThrow().version());
        List<RollbackTarget.Past> rolledBack = Stream
                .concat(Stream.of(past(4, "1.4.2", Kind.ROLLBACK, 3L)), walked.stream()).toList();
        assertEquals("1.4.1", RollbackTarget.choose(rolledBack, "1.4.2", Optional.empty()).orElseThrow().version(),
                "not to what was rolled back from");
        List<RollbackTarget.Past> forward = Stream
                .concat(Stream.of(past(5, "1.4.5", Kind.PROMOTION, 4L)), rolledBack.stream()).toList();
        assertEquals("1.4.2", RollbackTarget.choose(forward, "1.4.5", Optional.empty()).orElseThrow().version());
        List<RollbackTarget.Past> redeployed = Stream
                .concat(Stream.of(past(4, "1.4.3", Kind.REDEPLOY, 3L)), walked.stream()).toList();
        assertEquals("1.4.2", RollbackTarget.choose(redeployed, "1.4.3", Optional.empty()).orElseThrow().version());
        List<RollbackTarget.Past> blocked = List.of(walked.getFirst(),
                new RollbackTarget.Past(2, "1.4.2", Kind.PROMOTION, Optional.of(1L), false, true, 1, 2),
                walked.getLast());
        assertEquals("1.4.1", RollbackTarget.choose(blocked, "1.4.3", Optional.empty()).orElseThrow().version());
        List<RollbackTarget.Past> undone = List.of(walked.getFirst(),
                new RollbackTarget.Past(2, "1.4.2", Kind.PROMOTION, Optional.of(1L), true, false, 1, 2),
                walked.getLast());
        assertEquals("1.4.1", RollbackTarget.choose(undone, "1.4.3", Optional.empty()).orElseThrow().version());
        List<RollbackTarget.Past> takenBack = Stream.concat(
                Stream.of(new RollbackTarget.Past(4, "1.4.4", Kind.PROMOTION, Optional.of(3L), true, false, 1, 4)),
                walked.stream()).toList();
        assertEquals("1.4.2", RollbackTarget.choose(takenBack, "1.4.3", Optional.empty()).orElseThrow().version(),
                "not to what is live again since the newest was undone");
        assertEquals(Optional.empty(), RollbackTarget.choose(walked.subList(2, 3), "1.4.1", Optional.empty()));
        assertEquals(Optional.empty(), RollbackTarget.choose(List.of(), "1.4.1", Optional.empty()));
    }

    /** Before, a target was shown that the rollback itself then refused. */
    @Test
    void whatIsBarredIsNoTarget() {
        List<RollbackTarget.Past> walked = List.of(past(3, "1.4.3", Kind.PROMOTION, 2L),
                past(2, "1.4.2", Kind.PROMOTION, 1L), past(1, "1.4.1", Kind.PROMOTION, null));
        assertEquals("1.4.2",
                RollbackTarget.choose(walked, "1.4.3", Optional.of(new NoWayBack(1, 2))).orElseThrow().version());
        assertEquals(Optional.empty(), RollbackTarget.choose(walked, "1.4.3", Optional.of(new NoWayBack(1, 3))));
        assertEquals(Optional.empty(), RollbackTarget.choose(walked, "1.4.3", Optional.of(new NoWayBack(2, 1))),
                "another line is not gone back to");
    }

    @Test
    void whatIsLiveOrNeverWasOrLiesBehindAnIrreversibleChangeIsNotGoneBackTo() {
        assertEquals(Optional.empty(), RollbackTarget
                .refusal(new RollbackTarget.Wanted("1.4.3", "1.4.2", "production", true, Optional.empty())));
        assertEquals(Optional.of("1.4.3 is what is live there; to deploy it again, redeploy"),
                RollbackTarget
                        .refusal(new RollbackTarget.Wanted("1.4.3", "1.4.3", "production", true, Optional.empty())));
        assertEquals(Optional.of("1.4.4 was never live in production: that is no rollback but a promotion"),
                RollbackTarget.refusal(
                        new RollbackTarget.Wanted("1.4.3", "1.4.4", "production", false, Optional.of("1.4.3"))));
        assertEquals(Optional.of(
                "there is no way back from 1.4.3 to 1.4.1: an irreversible change came with 1.4.2; deploy a version "
                        + "with a fix to production"),
                RollbackTarget.refusal(
                        new RollbackTarget.Wanted("1.4.3", "1.4.1", "production", true, Optional.of("1.4.2"))));
    }
}
