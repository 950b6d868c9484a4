package dev.paseo.service.run;

import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.TimeAxis;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.Agents;
import dev.paseo.service.agent.StepLog;
import dev.paseo.service.engine.Absences;
import dev.paseo.service.log.LogViews;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunViews.StageView;
import dev.paseo.service.run.RunViews.TakenView;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** The stages of runs, as people look at them. */
@Component
public class StageViews {

    private final RunMapper mapper;
    private final StepLog steps;
    private final Agents agents;
    private final Takes takes;
    private final Absences absences;

    StageViews(RunMapper mapper, StepLog steps, Agents agents, Takes takes, Absences absences) {
        this.mapper = mapper;
        this.steps = steps;
        this.agents = agents;
        this.takes = takes;
        this.absences = absences;
    }

    List<StageView> of(Run row, PipelineFile file) {
        List<Taken> taken = takes.of(row.id());
        Map<Long, StepLog.OfStage> work = steps.ofRun(row.id());
        List<RunMapper.StageRow> rows = mapper.stages(row.id());
        List<TimeAxis.Lane> lanes = TimeAxis.of(Optional.ofNullable(row.startedAt()),
                rows.stream().map(stage -> attempt(file, stage)).toList());
        return IntStream.range(0, rows.size()).mapToObj(at -> stage(file, rows.get(at), lanes.get(at),
                taken, !row.trusted(), Optional.ofNullable(work.get(rows.get(at).id())))).toList();
    }

    /** The attempt of a stage that was asked for, the newest where none was. */
    public LogViews.Logged logged(Run row, String name, String variant, Optional<Integer> attempt) {
        return mapper.stages(row.id()).stream()
                .filter(stage -> stage.name().equals(name) && (variant.isEmpty() || stage.variant().equals(variant)))
                .filter(stage -> attempt.isEmpty() || attempt.get() == stage.attempt()).reduce((older, newer) -> newer)
                .map(stage -> new LogViews.Logged(steps.workOfStage(stage.id()), stage.endedAt() != null))
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
                        agents.waitsFor(stage.map(PipelineFile.Stage::wants).orElse(List.of()), untrusted))
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
                absences.secondsWithin(row.startedAt(), row.endedAt()),
                work.map(StepLog.OfStage::work), work.map(StepLog.OfStage::steps).orElse(List.of()), takes);
    }
}
