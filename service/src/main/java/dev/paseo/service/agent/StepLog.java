package dev.paseo.service.agent;

import dev.paseo.api.agent.StepReport;
import dev.paseo.core.text.Shortened;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.LiveEvents;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** How far the steps of a piece of work are. */
@Component
public class StepLog {

    /** One try of a step. */
    public record Step(int position, int tried, String name, String status, Optional<Integer> exitCode,
            Instant startedAt,
            Optional<Instant> endedAt, Optional<Long> peakMemory) {}

    /** The newest work of a stage, with its steps. */
    public record OfStage(long work, List<Step> steps) {}

    /** A task of a deployment on a host, with its steps. */
    public record HostTaskView(long work, String kind, String host, String status, Optional<Instant> takenAt,
            Optional<Instant> endedAt, List<Step> steps) {}

    private final WorkMapper mapper;
    private final Transactions transactions;
    private final LiveEvents live;
    private final ServiceClock clock;

    StepLog(WorkMapper mapper, Transactions transactions, LiveEvents live, ServiceClock clock) {
        this.clock = clock;
        this.mapper = mapper;
        this.transactions = transactions;
        this.live = live;
    }

    void report(Work work, StepReport report) {
        String name = Shortened.to(report.name(), 300);
        transactions.run(() -> {
            mapper.step(new WorkMapper.StepRow(work.id(), report.position(), report.tried(), name,
                    report.status().name().toLowerCase(Locale.ROOT), report.exitCode().orElse(null),
                    clock.told(report.startedAt()), report.endedAt().map(clock::told).orElse(null),
                    report.peakMemory().orElse(null)));
            live.publish("step", "work " + work.id());
        });
    }

    public Optional<Long> workOfStage(long stage) {
        return mapper.ofStage(stage);
    }

    /** By the number of the stage; stages that were never offered are not in it. */
    public Map<Long, OfStage> ofRun(long run) {
        Map<Long, List<Step>> steps = mapper.stepsOfRun(run).stream().collect(Collectors.groupingBy(
                WorkMapper.StepRow::workId, Collectors.mapping(StepLog::step, Collectors.toList())));
        return mapper.newestOfStages(run).stream().collect(Collectors.toMap(WorkMapper.StageWorkRow::stageId,
                row -> new OfStage(row.id(), steps.getOrDefault(row.id(), List.of()))));
    }

    private static Step step(WorkMapper.StepRow row) {
        return new Step(row.position(), row.tried(), row.name(), row.status(),
                Optional.ofNullable(row.exitCode()), row.startedAt(), Optional.ofNullable(row.endedAt()),
                Optional.ofNullable(row.peakMemory()));
    }

    public List<HostTaskView> ofDeployment(long deployment) {
        Map<Long, List<Step>> steps = mapper.stepsOfDeployment(deployment).stream()
                .collect(Collectors.groupingBy(WorkMapper.StepRow::workId,
                        Collectors.mapping(StepLog::step, Collectors.toList())));
        return mapper.ofDeployment(deployment).stream()
                .map(row -> new HostTaskView(row.id(), row.kind().toLowerCase(Locale.ROOT), row.host(),
                        row.status(), Optional.ofNullable(row.takenAt()), Optional.ofNullable(row.endedAt()),
                        steps.getOrDefault(row.id(), List.of())))
                .toList();
    }
}
