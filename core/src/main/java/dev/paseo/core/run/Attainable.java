package dev.paseo.core.run;

import java.util.List;
import java.util.Map;

/** Whether a waiting stage may start. */
sealed interface Attainable {

    record Now() implements Attainable {}

    record NotYet() implements Attainable {}

    record Never(String why) implements Attainable {}

    record NotWanted(String why) implements Attainable {}

    static Attainable of(Map<StageKey, StageState> stages, StageState stage) {
        if (stage.notWanted().isPresent()) {
            return new NotWanted(stage.notWanted().get());
        }
        for (StageKey key : stage.waits().after()) {
            StageState earlier = stages.get(key);
            if (earlier.status().ended() && !earlier.letsGoOn()) {
                return new Never(key + " " + (earlier.status() == StageStatus.SKIPPED ? "was skipped"
                        : RunDecider.word(earlier.status())));
            }
        }
        boolean nothingFailed = !stage.waits().ifFailed().isEmpty()
                && !any(stages, stage.waits().ifFailed(), StageStatus.FAILED);
        if (nothingFailed && allEnded(stages, stage.waits().ifFailed())) {
            return new Never(
                    String.join(", ", stage.waits().ifFailed().stream().map(StageKey::name).distinct().toList())
                            + " did not fail");
        }
        boolean free = stage.waits().after().stream().allMatch(key -> stages.get(key).letsGoOn())
                && allEnded(stages, stage.waits().afterAny()) && !nothingFailed;
        return free ? new Now() : new NotYet();
    }

    private static boolean any(Map<StageKey, StageState> stages, List<StageKey> keys, StageStatus status) {
        return keys.stream().anyMatch(key -> stages.get(key).status() == status);
    }

    private static boolean allEnded(Map<StageKey, StageState> stages, List<StageKey> keys) {
        return keys.stream().allMatch(key -> stages.get(key).status().ended());
    }
}
