package dev.paseo.service.run;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.run.RunDecider;
import dev.paseo.core.run.RunEffect;
import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.run.RunTimes;
import dev.paseo.core.run.StageKey;
import dev.paseo.core.run.StageState;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.text.Shortened;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.Used;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.Changes;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.source.Mirror;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;

/**
 * The shell around the deciding about runs: lock, load, decide, store, and carry out what follows, in one transaction.
 */
@Component
public class Runs {

    private static final TypeReference<Map<String, String>> ANSWERS = new TypeReference<>() {};

    private final RunMapper mapper;
    private final Components components;
    private final RunOutcomes outcomes;
    private final RunEnds ends;
    private final Changes changes;
    private final Json json;

    Runs(RunMapper mapper, Components components, RunOutcomes outcomes, RunEnds ends, Changes changes, Json json) {
        this.mapper = mapper;
        this.components = components;
        this.outcomes = outcomes;
        this.ends = ends;
        this.changes = changes;
        this.json = json;
    }

    /** The run, locked until the transaction under way ends. */
    public Run lock(long run) {
        return mapper.locked(run);
    }

    /** Applies an event; the reason where it was refused. */
    Optional<String> apply(long id, RunEvent event) {
        return changes.in(() -> apply(mapper.locked(id), event));
    }

    /** The same for a run that is locked and was not changed since. */
    public Optional<String> apply(Run row, RunEvent event) {
        RunState before = state(row);
        return switch (RunDecider.decide(before, event)) {
            case Decision.Refused<RunState, RunEffect>(String reason) -> Optional.of(reason);
            case Decision.Moved<RunState, RunEffect>(RunState after, List<RunEffect> effects) -> {
                store(row, before, after);
                effects.forEach(effect -> outcomes.carryOut(row, effect, () -> file(row)));
                yield Optional.<String>empty();
            }
        };
    }

    public RunState state(Run row) {
        return StoredRun.read(json, row.format(), row.state());
    }

    /** What was answered to the questions of the file, by their names. */
    public Map<String, String> answers(Run run) {
        return json.read(run.answers(), ANSWERS);
    }

    private void store(Run row, RunState before, RunState after) {
        Instant now = changes.now();
        Instant started = row.startedAt() == null && after.status() == RunStatus.RUNNING ? now : row.startedAt();
        Instant ended = after.status().ended() ? now : null;
        if (mapper.move(
                new RunMapper.Moved(row.id(), row.revision(), after.status(), json.write(after), after.prepared(),
                        after.reason().map(why -> Shortened.to(why, 2000)).orElse(null), started, ended,
                        RunTimes.wake(after.status(), Optional.ofNullable(row.startedAt()), file(row).timeout(), now)
                                .orElse(null))) != 1) {
            throw new Transactions.LostRace("run " + row.id() + " moved on");
        }
        Map<StageKey, StageState> known = before.stages().stream()
                .collect(Collectors.toMap(StageState::key, stage -> stage));
        for (int at = 0; at < after.stages().size(); at++) {
            StageState stage = after.stages().get(at);
            StageState was = known.get(stage.key());
            if (!stage.equals(was)) {
                store(row.id(), at, was, stage, now);
            }
        }
        String name = row.component() + "#" + row.number();
        changes.publish("run", name);
        if (before.status() == RunStatus.WAITING && after.status() == RunStatus.RUNNING) {
            ends.started(row);
        }
        if (after.status().ended()) {
            ends.ended(row, after, name);
        }
    }

    private void store(long run, int position, StageState was, StageState stage, Instant now) {
        StageKey key = stage.key();
        if (stage.attempt() != was.attempt()) {
            mapper.addStage(run, position, key.name(), key.variant(), stage.attempt(), stage.status());
            mapper.dropOutputs(run, key.name(), key.variant(), stage.attempt());
            return;
        }
        mapper.moveStage(new RunMapper.StageMove(run, key.name(), key.variant(), stage.attempt(), stage.status(),
                stage.reason().map(why -> Shortened.to(why, 2000)).orElse(null), stage.status() == StageStatus.RUNNING,
                stage.status().ended(), now));
    }

    public PipelineFile file(Run row) {
        return components.file(row.pipelineFileId()).file()
                .orElseThrow(
                        () -> new IllegalStateException("run " + row.id() + " was started from a file with problems"));
    }

    /** The pieces that a run's file was put together from. */
    public List<Used> pieces(Run row) {
        return components.file(row.pipelineFileId()).used();
    }

    public Mirror mirror(Run row) {
        return components.mirror(components.byId(row.componentId()));
    }

    public Run byId(long id) {
        return mapper.byId(id);
    }

    public Run numbered(String component, long number) {
        return mapper.numbered(component, number).orElseThrow(() -> {
            components.named(component);
            return Refusal.notFound("There is no run " + component + "#" + number);
        });
    }

    /** Tells a run to end. Told a second time, it ends without what would run regardless. */
    void cancel(Run row, String by) {
        changes.run(() -> {
            Optional<String> refused = apply(row.id(), new RunEvent.CancelAsked("cancelled by " + by));
            if (refused.isPresent()) {
                throw Refusal.conflict(row.component() + "#" + row.number() + " cannot be cancelled: " + refused.get());
            }
            changes.record(AuditTrail.Entry.of(by, "run cancel asked", row.component() + "#" + row.number()));
        });
    }

    /** Of a component's branch; empty where it has had none. */
    public Optional<String> newestStatus(long component, String branch) {
        return mapper.newestStatus(component, branch);
    }

    /** What a run has made so far. */
    List<RunMapper.OutputRow> outputs(long run) {
        return mapper.outputs(run);
    }
}
