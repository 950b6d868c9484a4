package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.trigger.TriggerDryRun.Past;
import dev.paseo.core.trigger.TriggerDryRun.Result;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class TriggerDryRunTest {

    private static final Instant NOON = Instant.parse("2026-05-04T12:00:00Z");
    private static final BranchRules RULES = BranchRules.of(List.of("*"), List.of("main"));

    private static Matching.InForce inForce(Trigger trigger) {
        return new Matching.InForce("daylight-api", 0, trigger, RULES, "main", Optional.empty());
    }

    private static Trigger push(String branch, String... paths) {
        return new Trigger.Push(List.of(new BranchPattern(branch)),
                List.of(paths).stream().map(BranchPattern::new).toList());
    }

    private static Past pushed(String branch, String... changed) {
        return new Past(new Event.Pushed("daylight-api", branch, "c0ffee",
                changed.length == 0 ? Optional.empty() : Optional.of(List.of(changed))), "push to " + branch, NOON,
                changed.length > 0);
    }

    private static Past ended(Trigger.RunEnd end) {
        return new Past(new Event.RunEnded("sun-model", 3, "main", true, end, Optional.empty()), "sun-model#3", NOON,
                true);
    }

    private static Trigger upstream(Trigger.Novelty novelty) {
        return new Trigger.Upstream(List.of("sun-model"), List.of(), Set.of(Trigger.RunEnd.PASSED), false, novelty);
    }

    private static String told(Result result) {
        return result.events() + " " + result.now() + " " + result.then() + " " + result.unknown() + " "
                + result.differing().stream().map(each -> each.past().sentence() + " " + each.now() + " " + each.then())
                        .toList();
    }

    @Test
    void whatWouldNoLongerStartAndWhatWouldIsNamed() {
        Result result = TriggerDryRun.of(List.of(pushed("main", "a"), pushed("feature", "a"), pushed("docs", "a")),
                List.of(inForce(push("main")), inForce(push("docs"))),
                List.of(inForce(push("main")), inForce(push("feature"))));
        assertEquals("3 2 2 0 [push to feature STARTS_NOTHING STARTS, push to docs STARTS STARTS_NOTHING]",
                told(result));
        assertEquals(List.of("push to main: the push was to docs", "push to feature: the push was to docs"),
                result.differing().getLast().why());
    }

    @Test
    void pathsAreJudgedWhereItIsKnownWhatChanged() {
        Result result = TriggerDryRun.of(List.of(pushed("main", "docs/a"), pushed("main", "src/a"), pushed("main")),
                List.of(inForce(push("main"))), List.of(inForce(push("main", "src/**"))));
        assertEquals("3 3 1 1 [push to main STARTS STARTS_NOTHING, push to main STARTS UNKNOWN]", told(result));
    }

    @Test
    void whatHasToBeNewOfSeveralCannotBeToldLater() {
        List<Past> events = List.of(ended(Trigger.RunEnd.PASSED), ended(Trigger.RunEnd.FAILED));
        assertEquals("2 0 1 0 [sun-model#3 STARTS_NOTHING STARTS]",
                told(TriggerDryRun.of(events, List.of(), List.of(inForce(upstream(Trigger.Novelty.ANY))))));
        assertEquals("2 0 0 1 [sun-model#3 STARTS_NOTHING UNKNOWN]",
                told(TriggerDryRun.of(events, List.of(), List.of(inForce(upstream(Trigger.Novelty.ALL))))));
    }

    @Test
    void theSameTriggersChangeNothingAndClocksAreEachTakenOnce() {
        Matching.InForce clock = inForce(new Trigger.Clock("0 6 * * *", "UTC"));
        List<Past> fired = List.of(new Past(new Event.Fired("daylight-api", "0 6 * * *", "UTC", NOON, false), "clock",
                NOON, true));
        assertEquals("1 1 1 0 []", told(TriggerDryRun.of(fired, List.of(clock), List.of(clock))));
        assertEquals("1 1 0 0 [clock STARTS STARTS_NOTHING]",
                told(TriggerDryRun.of(fired, List.of(clock), List.of(inForce(push("main"))))));
        assertEquals(List.of(clock.trigger()),
                TriggerDryRun.clocks(List.of(clock), List.of(clock, inForce(push("main")))));
    }
}
