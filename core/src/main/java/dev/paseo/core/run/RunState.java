package dev.paseo.core.run;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * All that deciding about a run needs.
 *
 * @param needs  the artifacts that the recipe deploys; a run that ends without them fails
 * @param reason why it failed or was cancelled
 */
public record RunState(RunStatus status, List<StageState> stages, List<String> needs, Optional<String> reason) {

    public RunState {
        stages = List.copyOf(stages);
        needs = List.copyOf(needs);
    }

    /** A run that has not begun. */
    public static RunState planned(List<StageState> stages, List<String> needs) {
        return new RunState(RunStatus.WAITING, stages, needs, Optional.empty());
    }

    public Optional<StageState> stage(StageKey key) {
        return stages.stream().filter(stage -> stage.key().equals(key)).findFirst();
    }


    boolean allEnded() {
        return stages.stream().allMatch(stage -> stage.status().ended());
    }

    Set<String> missing() {
        Set<String> missing = new HashSet<>(needs);
        missing.removeAll(stages.stream().filter(stage -> stage.status().good())
                .flatMap(stage -> stage.keeps().stream()).collect(Collectors.toSet()));
        return missing;
    }

    RunState with(StageState changed) {
        return new RunState(status,
                stages.stream().map(stage -> stage.key().equals(changed.key()) ? changed : stage).toList(), needs, reason);
    }

    RunState to(RunStatus next) {
        return new RunState(next, stages, needs, reason);
    }

    RunState to(RunStatus next, String why) {
        return new RunState(next, stages, needs, reason.or(() -> Optional.of(why)));
    }
}
