package dev.paseo.service.run;

import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.run.RunMapper.RunRow;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Runs as people look at them. */
@Component
class RunViews {

    /** A run in a list. */
    record RunSummary(String component, long number, String status, String branch, String commit, String commitSummary, String commitAuthor,
            String version, boolean sealed, Optional<String> reason, Instant createdAt, Optional<Instant> startedAt, Optional<Instant> endedAt) {}

    record StageView(String name, int attempt, String status, Optional<String> reason, Optional<Instant> startedAt, Optional<Instant> endedAt,
            Optional<Long> work, List<StepLog.Step> steps) {}

    record OutputView(String name, String fileName, String digest, long size) {}

    /** A run, whole; {@code route} is the walk that its version would have. */
    record RunView(RunSummary run, List<StageView> stages, List<OutputView> outputs, List<Causes.Link> causes, List<Map<String, String>> route) {}

    private final RunMapper mapper;
    private final Runs runs;
    private final StepLog steps;
    private final Causes causes;
    private final Versions versions;

    RunViews(RunMapper mapper, Runs runs, StepLog steps, Causes causes, Versions versions) {
        this.mapper = mapper;
        this.runs = runs;
        this.steps = steps;
        this.causes = causes;
        this.versions = versions;
    }

    RunSummary summary(RunRow row) {
        return new RunSummary(row.component(), row.number(), row.status(), row.branch(), row.commitId(), row.commitSummary(), row.commitAuthor(),
                row.versionNumber(), versions.exists(row.componentId(), row.versionNumber()), Optional.ofNullable(row.reason()), row.createdAt(),
                Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()));
    }

    RunView whole(RunRow row) {
        List<StageView> stages = mapper.stages(row.id()).stream().map(stage -> {
            Optional<Long> work = steps.workOfStage(stage.id());
            return new StageView(stage.name(), stage.attempt(), stage.status(), Optional.ofNullable(stage.reason()),
                    Optional.ofNullable(stage.startedAt()), Optional.ofNullable(stage.endedAt()), work, work.map(steps::steps).orElse(List.of()));
        }).toList();
        List<OutputView> outputs = mapper.outputs(row.id()).stream()
                .map(output -> new OutputView(output.name(), output.fileName(), output.digest(), output.size())).toList();
        List<Map<String, String>> route = row.trusted() ? runs.file(row).route().stream().map(step -> {
            Map<String, String> words = new java.util.LinkedHashMap<String, String>();
            step.forEach((environment, entry) -> words.put(environment, Runs.word(entry).replace('_', '-')));
            return words;
        }).toList() : List.<Map<String, String>>of();
        return new RunView(summary(row), stages, outputs, causes.chain(row.causeId()), List.copyOf(route));
    }
}
