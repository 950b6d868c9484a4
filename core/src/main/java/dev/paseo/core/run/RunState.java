package dev.paseo.core.run;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * All that deciding about a run needs.
 *
 * @param needs    the artifacts that the recipe deploys; a run that ends without them fails
 * @param prepared whether its commit is pinned and its files are kept, so that it may begin
 * @param reason   why it failed or was cancelled
 */
public record RunState(RunStatus status, List<StageState> stages, List<String> needs, boolean prepared,
        Optional<String> reason) {

    public RunState {
        stages = List.copyOf(stages);
        needs = List.copyOf(needs);
    }

    /** A run that has not begun. */
    public static RunState planned(List<StageState> stages, List<String> needs) {
        return new RunState(RunStatus.WAITING, stages, needs, false, Optional.empty());
    }

    public Optional<StageState> stage(StageKey key) {
        return stages.stream().filter(stage -> stage.key().equals(key)).findFirst();
    }

    boolean allEnded() {
        return stages.stream().allMatch(stage -> stage.status().ended());
    }

    Set<String> missing() {
        Set<String> missing = new HashSet<>(needs);
        stages.stream().filter(StageState::letsGoOn).filter(stage -> stage.skip().isEmpty())
                .forEach(stage -> stage.keeps().forEach(missing::remove));
        return missing;
    }

    /** The stages by key, in their order, to be changed and given to {@link #with(Map)}. */
    Map<StageKey, StageState> byKey() {
        Map<StageKey, StageState> stages = LinkedHashMap.newLinkedHashMap(this.stages.size());
        this.stages.forEach(stage -> stages.put(stage.key(), stage));
        return stages;
    }

    RunState with(Map<StageKey, StageState> changed) {
        return new RunState(status, List.copyOf(changed.values()), needs, prepared, reason);
    }

    RunState with(StageState changed) {
        Map<StageKey, StageState> stages = byKey();
        stages.put(changed.key(), changed);
        return with(stages);
    }

    RunState ready() {
        return new RunState(status, stages, needs, true, reason);
    }

    RunState to(RunStatus next) {
        return new RunState(next, stages, needs, prepared, reason);
    }

    RunState to(RunStatus next, String why) {
        return new RunState(next, stages, needs, prepared, reason.or(() -> Optional.of(why)));
    }

    RunState waitingAgain() {
        return new RunState(RunStatus.WAITING, stages, needs, prepared, Optional.empty());
    }
}
