package dev.paseo.core.run;

import dev.paseo.core.decision.Decision;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** A run goes on from what failed: what passed stands, what failed and all that waits for it gets another attempt. */
final class Resuming {

    private Resuming() {}

    static Decision<RunState, RunEffect> resume(RunState run) {
        if (run.status() != RunStatus.FAILED && run.status() != RunStatus.CANCELLED) {
            return Decision.refused("only a run that failed or was cancelled can be resumed; this one is "
                    + RunDecider.word(run.status()));
        }
        if (!run.prepared()) {
            return Decision.refused("the run never began; start it again");
        }
        if (run.stages().stream()
                .noneMatch(stage -> stage.status() == StageStatus.FAILED || stage.status() == StageStatus.CANCELLED)) {
            return Decision.refused(
                    "no stage of the run failed, so there is nothing to try again: " + run.reason().orElse(""));
        }
        Map<StageKey, StageState> stages = run.byKey();
        again(run).forEach(key -> stages.computeIfPresent(key, (same, stage) -> stage.again()));
        return Decision.moved(run.with(stages).waitingAgain(), List.of());
    }

    private static Set<StageKey> again(RunState run) {
        Set<StageKey> again = new HashSet<>();
        run.stages().stream().filter(Resuming::didNotPass).map(StageState::key).forEach(again::add);
        boolean more = true;
        while (more) {
            more = false;
            for (StageState stage : run.stages()) {
                more |= stage.waits().all().anyMatch(again::contains) && again.add(stage.key());
            }
        }
        return again;
    }

    private static boolean didNotPass(StageState stage) {
        return switch (stage.status()) {
            case FAILED, CANCELLED -> true;
            case SKIPPED -> stage.skip().equals(Optional.of(StageState.Skip.UNATTAINABLE));
            case WAITING, READY, RUNNING, PASSED, WARNED -> false;
        };
    }
}
