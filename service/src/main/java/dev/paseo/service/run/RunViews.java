package dev.paseo.service.run;

import dev.paseo.core.text.Word;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.TimeAxis;
import dev.paseo.core.run.RunStatus;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.Used;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.log.LogViews;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
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

    private final RunMapper mapper;
    private final Runs runs;
    private final Looking looking;
    private final Causes causes;

    /** Where the parts of a view come from. */
    @Component
    record Looking(StepLog steps, Agents agents, Lines lines, RunOutputs outputs, Takes takes,
            Absences absences) {}

    RunViews(RunMapper mapper, Runs runs, Looking looking, Causes causes) {
        this.mapper = mapper;
        this.runs = runs;
        this.looking = looking;
        this.causes = causes;
    }

    public RunSummary summary(Run row) {
        return new RunSummary(row.component(), row.number(), row.status(), row.branch(), row.commitId(),
                row.commitSummary(), row.commitAuthor(),
                row.versionNumber(), row.versionSealed(),
                Optional.ofNullable(row.reason()), row.createdAt(),
                Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()),
                looking.absences().secondsWithin(row.startedAt(), row.endedAt()));
    }

    public RunView whole(Run row) {
        PipelineFile file = runs.file(row);
        List<Taken> taken = looking.takes().of(row.id());
        Map<Long, StepLog.OfStage> steps = looking.steps().ofRun(row.id());
        List<RunMapper.StageRow> rows = mapper.stages(row.id());
        List<TimeAxis.Lane> lanes = TimeAxis.of(Optional.ofNullable(row.startedAt()),
                rows.stream().map(stage -> attempt(file, stage)).toList());
        List<StageView> stages = IntStream.range(0, rows.size()).mapToObj(at -> stage(file, rows.get(at), lanes.get(at),
                taken, !row.trusted(), Optional.ofNullable(steps.get(rows.get(at).id())))).toList();
        List<OutputView> outputs = mapper.outputs(row.id()).stream()
                .map(output -> new OutputView(output.name(), output.fileName(), output.digest(), output.size()))
                .toList();
        List<LeftView> left = looking.outputs().left(row.id()).stream()
                .map(files -> new LeftView(files.stage().toString(), files.bytes().digest(), files.bytes().size(),
                        files.paths().stream().limit(MOST_PATHS).toList()))
                .toList();
        return new RunView(summary(row), stages, outputs, left, runs.answers(row),
                looking.lines().waitsFor(row),
                causes.chain(row.causeId()), row.trusted() ? route(file) : List.of(), runs.pieces(row));
    }

    /** The attempt of a stage that was asked for, the newest where none was. */
    public LogViews.Logged logged(Run row, String name, String variant, Optional<Integer> attempt) {
        return mapper.stages(row.id()).stream()
                .filter(stage -> stage.name().equals(name) && (variant.isEmpty() || stage.variant().equals(variant)))
                .filter(stage -> attempt.isEmpty() || attempt.get() == stage.attempt()).reduce((older, newer) -> newer)
                .map(stage -> new LogViews.Logged(looking.steps().workOfStage(stage.id()), stage.endedAt() != null))
                .orElseThrow(() -> Refusal.notFound(row.component() + "#" + row.number() + " has no stage " + name
                        + (variant.isEmpty() ? "" : " " + variant)
                        + attempt.map(at -> " in attempt " + at).orElse("")));
    }

    private static TimeAxis.Attempt attempt(PipelineFile file, RunMapper.StageRow row) {
        List<String> waitsFor = file.stage(row.name()).map(PipelineFile.Stage::order)
                .map(order -> Stream.of(order.after(), order.afterAny(), order.ifFailed()).flatMap(List::stream)
                        .toList())
                .orElse(List.of());
        return new TimeAxis.Attempt(row.name(), row.variant(), row.attempt(), waitsFor,
                Optional.ofNullable(row.startedAt()), Optional.ofNullable(row.endedAt()));
    }

    private StageView stage(PipelineFile file, RunMapper.StageRow row, TimeAxis.Lane lane, List<Taken> taken,
            boolean untrusted, Optional<StepLog.OfStage> work) {
        Optional<PipelineFile.Stage> stage = file.stage(row.name());
        Optional<PipelineFile.Order> order = stage.map(PipelineFile.Stage::order);
        Optional<String> waitsFor = row.status() == StageStatus.READY
                ? Optional.of(
                        looking.agents().waitsFor(stage.map(PipelineFile.Stage::wants).orElse(List.of()), untrusted))
                : Optional.empty();
        List<TakenView> takes = taken.stream().filter(each -> each.stage().equals(row.name()))
                .map(each -> new TakenView(each.component(), each.version(),
                        each.artifact(), each.fileName(), each.digest(), each.size(), each.intoFolder(),
                        each.because()))
                .toList();
        return new StageView(row.name(), row.variant(), row.attempt(), row.status(), Optional.ofNullable(row.reason()),
                waitsFor,
                Optional.ofNullable(row.reused()), order.map(PipelineFile.Order::after).orElse(List.of()),
                order.map(PipelineFile.Order::afterAny).orElse(List.of()),
                order.map(PipelineFile.Order::ifFailed).orElse(List.of()), lane.ready(), lane.critical(),
                Optional.ofNullable(row.startedAt()),
                Optional.ofNullable(row.endedAt()),
                looking.absences().secondsWithin(row.startedAt(), row.endedAt()),
                work.map(StepLog.OfStage::work), work.map(StepLog.OfStage::steps).orElse(List.of()), takes);
    }

    private static List<Map<String, String>> route(PipelineFile file) {
        return file.route().stream().map(step -> {
            Map<String, String> words = new LinkedHashMap<>();
            step.forEach((environment, entry) -> words.put(environment, Word.of(entry).replace('_', '-')));
            return Map.copyOf(words);
        }).toList();
    }
}
