package dev.paseo.core.run;

import dev.paseo.core.decision.Decision;
import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Assertions;

/** Whatever happens in whatever order, these hold. */
class RunPropertiesTest {

    private record Plan(RunState run, List<RunEvent> events) {}

    @Provide
    Arbitrary<Plan> plans() {
        Arbitrary<Integer> stages = Arbitraries.integers().between(1, 6);
        return stages
                .flatMap(count -> Combinators.combine(graph(count), events(count).list().ofMaxSize(40)).as(Plan::new));
    }

    /**
     * Each stage waits, in one of three ways, for some of the others that stand before it; it may be tolerated or not
     * wanted.
     */
    private static Arbitrary<RunState> graph(int count) {
        return Arbitraries.integers().between(0, (1 << 3 * count) - 1).list().ofSize(count).map(masks -> {
            List<StageState> stages = new ArrayList<>();
            for (int at = 0; at < count; at++) {
                List<List<StageKey>> waits = List.of(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
                for (int before = 0; before < at; before++) {
                    int how = masks.get(at) >> 2 * before & 3;
                    if (how < 3) {
                        waits.get(how).add(key(before));
                    }
                }
                StageState stage = StageState.waiting(key(at),
                        new StageDependencies(waits.get(0), waits.get(1), waits.get(2)),
                        List.of("artifact-" + at));
                int more = masks.get(at) >> 2 * count & 7;
                stages.add(more == 1 ? stage.tolerated() : more == 2 ? stage.notWanted("it is not") : stage);
            }
            return RunState.planned(stages, List.of());
        });
    }

    private static StageKey key(int at) {
        return StageKey.of("stage-" + at);
    }

    private static Arbitrary<RunEvent> events(int count) {
        Arbitrary<StageKey> keys = Arbitraries.integers().between(0, count - 1).map(RunPropertiesTest::key);
        Arbitrary<Integer> attempts = Arbitraries.of(1, 1, 2);
        Arbitrary<StageOutcome> outcomes = Arbitraries.of(new StageOutcome.Passed(), new StageOutcome.Passed(),
                new StageOutcome.Passed(),
                new StageOutcome.Failed("exit status 1"), new StageOutcome.Lost("gone"), new StageOutcome.Stopped());
        return Arbitraries.oneOf(
                Arbitraries.of(new RunEvent.Prepared(true), new RunEvent.Prepared(false), new RunEvent.TurnCame()),
                keys.flatMap(key -> attempts.map(attempt -> new RunEvent.StageTaken(key, attempt))),
                Combinators.combine(keys, attempts, outcomes).as(RunEvent.StageEnded::new),
                Arbitraries.frequency(net.jqwik.api.Tuple.of(1, true), net.jqwik.api.Tuple.of(12, false))
                        .map(cancel -> cancel ? new RunEvent.CancelAsked("enough") : new RunEvent.ResumeAsked()));
    }

    @Property
    void noStageRunsBeforeWhatItWaitsForAndNothingChangesAfterTheEnd(@ForAll("plans") Plan plan) {
        RunState now = plan.run();
        boolean sealed = false;
        for (RunEvent event : plan.events()) {
            boolean ended = now.status().ended();
            if (RunDecider.decide(now,
                    event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                Assertions.assertTrue(!ended || event instanceof RunEvent.ResumeAsked && !sealed, "an ended run moved");
                long seals = effects.stream().filter(RunEffect.SealVersion.class::isInstance).count();
                Assertions.assertTrue(seals == 0
                        || !sealed && (next.status() == RunStatus.PASSED || next.status() == RunStatus.WARNED));
                sealed |= seals > 0;
                now = next;
                checkOrder(now);
            }
        }
    }

    private static void checkOrder(RunState run) {
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.READY || stage.status() == StageStatus.RUNNING
                    || stage.status() == StageStatus.PASSED) {
                Assertions.assertTrue(stage.notWanted().isEmpty());
                stage.waits().after()
                        .forEach(before -> Assertions.assertTrue(run.stage(before).orElseThrow().letsGoOn(),
                                stage.key() + " is " + stage.status() + " before " + before + " lets it go on"));
                stage.waits().afterAny()
                        .forEach(before -> Assertions.assertTrue(run.stage(before).orElseThrow().status().ended()));
                Assertions.assertTrue(stage.waits().ifFailed().isEmpty()
                        || stage.waits().ifFailed().stream()
                                .anyMatch(before -> run.stage(before).orElseThrow().status() == StageStatus.FAILED));
            }
            if (stage.status() == StageStatus.WAITING && run.status() == RunStatus.RUNNING) {
                Assertions.assertInstanceOf(Attainable.NotYet.class, Attainable.of(run.byKey(), stage),
                        "skipped or offered at once");
            }
        }
    }

    @Property
    void everyRunEnds(@ForAll("plans") Plan plan) {
        RunState now = plan.run();
        for (RunEvent event : plan.events()) {
            if (RunDecider.decide(now,
                    event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                now = next;
            }
        }
        // Agents that take what is offered and finish what they took bring any run to its end.
        for (int round = 0; round < 20 && !now.status().ended(); round++) {
            List<RunEvent> helpful = new ArrayList<>(List.of(new RunEvent.Prepared(true), new RunEvent.TurnCame()));
            now.stages().forEach(stage -> {
                helpful.add(new RunEvent.StageTaken(stage.key(), stage.attempt()));
                helpful.add(new RunEvent.StageEnded(stage.key(), stage.attempt(), new StageOutcome.Passed()));
            });
            for (RunEvent event : helpful) {
                if (RunDecider.decide(now,
                        event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                    now = next;
                }
            }
        }
        Assertions.assertTrue(now.status().ended(), "it hangs: " + now);
        Assertions.assertTrue(now.allEnded());
    }
}
