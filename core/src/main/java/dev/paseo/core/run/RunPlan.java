package dev.paseo.core.run;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Turns the stages of a file into those of a run: one for each variant, each waiting for every variant of what it
 * names.
 */
public final class RunPlan {

    private RunPlan() {}

    /**
     * A stage as its file has it.
     *
     * @param variants at least one; {@code ""} for a stage without variants
     */
    public record Planned(String name, List<String> after, List<String> afterAny, List<String> ifFailed,
            List<Variant> variants, boolean mayFail) {}

    /**
     * @param name      empty where the stage has no variants
     * @param notWanted why not, where it is not
     */
    public record Variant(String name, List<String> keeps, java.util.Optional<String> notWanted) {}

    public static RunState of(List<Planned> stages, List<String> needs) {
        Map<String, List<StageKey>> keys = new LinkedHashMap<>();
        stages.forEach(stage -> keys.put(stage.name(),
                stage.variants().stream().map(variant -> new StageKey(stage.name(), variant.name())).toList()));
        List<StageState> states = new ArrayList<>();
        for (Planned stage : stages) {
            StageDependencies waits = new StageDependencies(all(keys, stage.after()), all(keys, stage.afterAny()),
                    all(keys, stage.ifFailed()));
            for (Variant variant : stage.variants()) {
                StageState state = StageState.waiting(new StageKey(stage.name(), variant.name()), waits,
                        variant.keeps());
                StageState tolerant = stage.mayFail() ? state.tolerated() : state;
                states.add(variant.notWanted().map(tolerant::notWanted).orElse(tolerant));
            }
        }
        return RunState.planned(states, needs);
    }

    private static List<StageKey> all(Map<String, List<StageKey>> keys, List<String> names) {
        return names.stream().flatMap(name -> keys.get(name).stream()).toList();
    }
}
