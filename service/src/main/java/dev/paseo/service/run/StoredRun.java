package dev.paseo.service.run;

import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageState.Skip;
import dev.paseo.core.run.StageState;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.StageDependencies;
import dev.paseo.service.database.Json;
import java.util.List;
import java.util.Optional;

/** Reads runs as every release has stored them; writes the newest format. */
final class StoredRun {

    private StoredRun() {}

    /** Format 1: a stage had only what it comes after. */
    private record Run1(RunStatus status, List<Stage1> stages, List<String> needs, Optional<String> reason) {}

    private record Stage1(StageKey key, List<StageKey> after, int attempt, List<String> keeps, StageStatus status,
            Optional<String> reason) {}

    static RunState read(Json json, int format, String text) {
        return switch (format) {
            case 1 -> upgrade(json.read(text, Run1.class));
            case 2 -> json.read(text, RunState.class);
            default -> throw new IllegalStateException(
                    "a run is stored in the unknown format " + format + "; a newer release wrote it");
        };
    }

    private static RunState upgrade(Run1 run) {
        List<StageState> stages = run.stages().stream()
                .map(stage -> new StageState(stage.key(), new StageDependencies(stage.after(), List.of(), List.of()),
                        stage.attempt(), stage.keeps(), false, Optional.empty(), stage.status(),
                        stage.status() == StageStatus.SKIPPED ? Optional.of(Skip.UNATTAINABLE) : Optional.empty(),
                        stage.reason()))
                .toList();
        return new RunState(run.status(), stages, run.needs(), run.status() != RunStatus.WAITING, run.reason());
    }
}
