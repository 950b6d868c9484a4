package dev.paseo.language.file;

import dev.paseo.core.run.RunPlan;
import dev.paseo.core.run.RunState;
import dev.paseo.language.condition.Condition;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Makes the plan of a run from its pipeline file and what is known at its start. */
public final class RunPlanning {

    private RunPlanning() {}

    /**
     * What is known of a run at its start.
     *
     * @param cause   in a word: {@code push}, {@code upstream}, {@code asked}
     * @param arrived whether a version that arrived started it; such a run seals nothing
     * @param answers to all that the file asks
     */
    public record Start(String branch, String commit, String version, String cause, boolean trusted, boolean arrived,
            Map<String, String> answers) {}

    public static RunState plan(PipelineFile file, Start start) {
        Map<String, Object> facts = new LinkedHashMap<>(
                Map.of("component", file.component(), "branch", start.branch(), "commit", start.commit(),
                        "version", start.version(), "cause", start.cause(), "trusted", start.trusted(), "asks",
                        identifiers(start.answers())));
        List<RunPlan.Planned> stages = file.stages().stream()
                .map(stage -> new RunPlan.Planned(stage.name(), stage.order().after(),
                        stage.order().afterAny(), stage.order().ifFailed(),
                        stage.variants().stream().map(variant -> variant(file, stage, variant, facts)).toList(),
                        stage.conditions().mayFail()))
                .toList();
        // What arrived has its artifacts already; its run looks at them and seals nothing.
        // Without stages the commit's files are the artifact, which is there once the run is prepared.
        List<String> needed = start.arrived() || stages.isEmpty() ? List.of()
                : file.deployment().map(Recipe::artifacts).orElse(List.of());
        return RunPlan.of(stages, needed);
    }

    private static RunPlan.Variant variant(PipelineFile file, PipelineFile.Stage stage, Map<String, String> variant,
            Map<String, Object> facts) {
        Optional<String> notWanted = stage.conditions().wantedIf().filter(condition -> {
            Map<String, Object> all = new LinkedHashMap<>(facts);
            all.put("each", identifiers(variant));
            return !Condition.overRuns(file.asks().keySet(), stage.each().keySet()).holds(condition, all).orElse(false);
        }).map(condition -> "wanted-if: " + condition);
        List<String> keeps = stage.keep().keySet().stream().map(name -> Variants.fill(name, variant, true)).toList();
        return new RunPlan.Variant(Variants.name(variant), keeps, notWanted);
    }

    private static Map<String, String> identifiers(Map<String, String> values) {
        Map<String, String> named = new LinkedHashMap<>();
        values.forEach((name, value) -> named.put(Condition.identifier(name), value));
        return named;
    }
}
