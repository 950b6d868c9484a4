package dev.paseo.service.run;

import dev.paseo.core.run.RunStatus;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.text.Word;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.Used;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.engine.Absences;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Runs as people look at them. */
@Component
public class RunViews {

    /** A run in a list; {@code away}: for how many seconds of it the service was not at work. */
    public record RunSummary(String component, long number, RunStatus status, String branch, String commit,
            String commitSummary,
            String commitAuthor,
            String version, boolean sealed, Optional<String> reason, Instant createdAt, Optional<Instant> startedAt,
            Optional<Instant> endedAt, long away) {}

    /** Something that a stage took from another component. */
    public record TakenView(String component, String version, String artifact, String fileName, String digest,
            long size,
            String into, String because) {}

    /** Files that a stage left for those after it. */
    public record LeftView(String stage, String digest, long size, List<String> paths) {}

    /**
     * An attempt of a stage.
     *
     * @param waitsFor what it waits for now, as a sentence
     * @param reused   which state of its folders it began with
     * @param readyAt  from when on it waited for an agent alone; absent: it did not get so far, or was resumed
     * @param critical whether the run would have ended earlier had it been faster
     */
    public record StageView(String name, String variant, int attempt, StageStatus status, Optional<String> reason,
            Optional<String> waitsFor, Optional<String> reused,
            List<String> after, List<String> afterAny, List<String> ifFailed, Optional<Instant> readyAt,
            boolean critical, Optional<Instant> startedAt, Optional<Instant> endedAt, long away, Optional<Long> work,
            List<StepLog.Step> steps, List<TakenView> takes) {}

    public record OutputView(String name, String fileName, String digest, long size) {}

    /**
     * A run, whole.
     *
     * @param route  the walk that its version would have
     * @param pieces that its pipeline file was put together from when it started
     */
    public record RunView(RunSummary run, List<StageView> stages, List<OutputView> outputs, List<LeftView> left,
            Map<String, String> answers, Optional<Long> waitsForRun,
            List<Causes.Link> causes, List<Map<String, String>> route, List<Used> pieces) {}

    private static final int MOST_PATHS = 500;

    private final Runs runs;
    private final StageViews stages;
    private final RunOutputs outputs;
    private final RunReasons reasons;
    private final Absences absences;

    RunViews(Runs runs, StageViews stages, RunOutputs outputs, RunReasons reasons, Absences absences) {
        this.runs = runs;
        this.stages = stages;
        this.outputs = outputs;
        this.reasons = reasons;
        this.absences = absences;
    }

    public RunSummary summary(Run row) {
        return new RunSummary(row.component(), row.number(), row.status(), row.branch(), row.commitId(),
                row.commitSummary(), row.commitAuthor(),
                row.versionNumber(), row.versionSealed(),
                Optional.ofNullable(row.reason()), row.createdAt(),
                Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()),
                absences.secondsWithin(row.startedAt(), row.endedAt()));
    }

    public RunView whole(Run row) {
        PipelineFile file = runs.file(row);
        List<OutputView> made = runs.outputs(row.id()).stream()
                .map(output -> new OutputView(output.name(), output.fileName(), output.digest(), output.size()))
                .toList();
        List<LeftView> left = outputs.left(row.id()).stream()
                .map(files -> new LeftView(files.stage().toString(), files.bytes().digest(), files.bytes().size(),
                        files.paths().stream().limit(MOST_PATHS).toList()))
                .toList();
        return new RunView(summary(row), stages.of(row, file), made, left, runs.answers(row),
                reasons.waitsFor(row), reasons.causes(row), row.trusted() ? route(file) : List.of(), runs.pieces(row));
    }

    private static List<Map<String, String>> route(PipelineFile file) {
        return file.route().stream().map(step -> {
            Map<String, String> words = new LinkedHashMap<>();
            step.forEach((environment, entry) -> words.put(environment, Word.of(entry).replace('_', '-')));
            return Map.copyOf(words);
        }).toList();
    }
}
