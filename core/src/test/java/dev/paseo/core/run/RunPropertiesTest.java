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
        return stages.flatMap(count -> Combinators.combine(graph(count), events(count).list().ofMaxSize(40)).as(Plan::new));
    }

    /** Each stage comes after some of those before it. */
    private static Arbitrary<RunState> graph(int count) {
        return Arbitraries.integers().between(0, (1 << count) - 1).list().ofSize(count).map(masks -> {
            List<StageState> stages = new ArrayList<>();
            for (int at = 0; at < count; at++) {
                List<StageKey> after = new ArrayList<>();
                for (int before = 0; before < at; before++) {
                    if ((masks.get(at) >> before & 1) == 1) {
                        after.add(key(before));
                    }
                }
                stages.add(StageState.waiting(key(at), after, List.of("artifact-" + at)));
            }
            return RunState.planned(stages, List.of("artifact-0"));
        });
    }

    private static StageKey key(int at) {
        return StageKey.of("stage-" + at);
    }

    private static Arbitrary<RunEvent> events(int count) {
        Arbitrary<StageKey> keys = Arbitraries.integers().between(0, count - 1).map(RunPropertiesTest::key);
        Arbitrary<StageOutcome> outcomes = Arbitraries.of(new StageOutcome.Passed(), new StageOutcome.Passed(), new StageOutcome.Passed(),
                new StageOutcome.Failed("exit status 1"), new StageOutcome.Lost("gone"), new StageOutcome.Stopped());
        return Arbitraries.oneOf(Arbitraries.just(new RunEvent.Prepared()), keys.map(key -> new RunEvent.StageTaken(key, 1)),
                Combinators.combine(keys, outcomes).as((key, outcome) -> new RunEvent.StageEnded(key, 1, outcome)),
                Arbitraries.frequency(net.jqwik.api.Tuple.of(1, true), net.jqwik.api.Tuple.of(12, false))
                        .map(cancel -> cancel ? new RunEvent.CancelAsked("developer") : new RunEvent.Prepared()));
    }

    @Property
    void noStageRunsBeforeWhatItWaitsForAndNothingChangesAfterTheEnd(@ForAll("plans") Plan plan) {
        RunState now = plan.run();
        boolean sealed = false;
        for (RunEvent event : plan.events()) {
            boolean ended = now.status().ended();
            if (RunDecider.decide(now, event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                Assertions.assertFalse(ended, "an ended run moved");
                long seals = effects.stream().filter(RunEffect.SealVersion.class::isInstance).count();
                Assertions.assertTrue(seals == 0 || !sealed && next.status() == RunStatus.PASSED || next.status() == RunStatus.WARNED);
                sealed |= seals > 0;
                now = next;
                checkOrder(now);
            }
        }
    }

    private static void checkOrder(RunState run) {
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.READY || stage.status() == StageStatus.RUNNING || stage.status() == StageStatus.PASSED) {
                stage.after().forEach(before -> Assertions.assertTrue(run.stage(before).orElseThrow().status().good(),
                        stage.key() + " is " + stage.status() + " before " + before + " is good"));
            }
        }
    }

    @Property
    void everyRunEnds(@ForAll("plans") Plan plan) {
        RunState now = plan.run();
        for (RunEvent event : plan.events()) {
            if (RunDecider.decide(now, event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                now = next;
            }
        }
        // Agents that take what is offered and finish what they took bring any run to its end.
        for (int round = 0; round < 20 && !now.status().ended(); round++) {
            List<RunEvent> helpful = new ArrayList<>(List.of(new RunEvent.Prepared()));
            now.stages().forEach(stage -> {
                helpful.add(new RunEvent.StageTaken(stage.key(), 1));
                helpful.add(new RunEvent.StageEnded(stage.key(), 1, new StageOutcome.Passed()));
            });
            for (RunEvent event : helpful) {
                if (RunDecider.decide(now, event) instanceof Decision.Moved<RunState, RunEffect>(RunState next, List<RunEffect> effects)) {
                    now = next;
                }
            }
        }
        Assertions.assertTrue(now.status().ended(), "it hangs: " + now);
        Assertions.assertTrue(now.allEnded());
    }
}
