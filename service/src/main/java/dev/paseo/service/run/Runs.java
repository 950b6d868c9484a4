package dev.paseo.service.run;

import dev.paseo.core.decision.Decision;
import dev.paseo.core.run.RunDecider;
import dev.paseo.core.run.RunEffect;
import dev.paseo.core.run.RunEvent;
import dev.paseo.core.run.RunState;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.run.StageState;
import dev.paseo.core.run.StageStatus;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.Telling;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.run.RunMapper.RunRow;
import dev.paseo.service.run.RunMapper.StageRow;
import dev.paseo.service.source.Mirror;
import dev.paseo.service.version.Versions;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The shell around the deciding about runs: lock, load, decide, store, and carry out what follows, in one transaction. */
@Component
class Runs {

    private final RunMapper mapper;
    private final Transactions transactions;
    private final Json json;
    private final Ends ends;
    private final Around around;

    /** What a run's decisions reach. */
    @Component
    record Ends(WorkBoard board, Versions versions, Components components) {}

    /** What every change leaves. */
    @Component
    record Around(AuditTrail audit, Telling telling, ServiceClock clock) {}

    Runs(RunMapper mapper, Transactions transactions, Json json, Ends ends, Around around) {
        this.mapper = mapper;
        this.transactions = transactions;
        this.json = json;
        this.ends = ends;
        this.around = around;
    }

    void lock(long run) {
        mapper.lock(run);
    }

    /** Applies an event; the reason where it was refused. */
    Optional<String> apply(long id, RunEvent event) {
        return transactions.in(() -> {
            mapper.lock(id);
            RunRow row = mapper.byId(id);
            RunState before = json.read(row.state(), RunState.class);
            return switch (RunDecider.decide(before, event)) {
                case Decision.Refused<RunState, RunEffect>(String reason) -> Optional.of(reason);
                case Decision.Moved<RunState, RunEffect>(RunState after, List<RunEffect> effects) -> {
                    store(row, before, after);
                    effects.forEach(effect -> carryOut(row, effect));
                    yield Optional.<String>empty();
                }
            };
        });
    }

    private void store(RunRow row, RunState before, RunState after) {
        Instant now = around.clock().now();
        Instant started = row.startedAt() == null && after.status() != RunStatus.WAITING ? now : row.startedAt();
        Instant ended = after.status().ended() ? now : null;
        if (mapper.move(row.id(), row.revision(), word(after.status()), json.write(after), after.reason().orElse(null), started, ended) != 1) {
            throw new Transactions.LostRace("run " + row.id() + " moved on");
        }
        List<StageRow> stages = mapper.stages(row.id());
        for (StageState stage : after.stages()) {
            stages.stream().filter(kept -> isSame(kept, stage)).findFirst().ifPresent(kept -> store(kept, stage, now));
        }
        String name = row.component() + "#" + row.number();
        around.telling().tell("run", name);
        if (after.status().ended()) {
            around.audit().record(AuditTrail.Entry.of("paseo", "run " + word(after.status()), name).because(after.reason().orElse("")));
        }
    }

    private static boolean isSame(StageRow kept, StageState stage) {
        return kept.name().equals(stage.key().name()) && kept.variant().equals(stage.key().variant()) && kept.attempt() == stage.attempt();
    }

    private void store(StageRow kept, StageState stage, Instant now) {
        boolean begins = stage.status() == StageStatus.RUNNING && kept.startedAt() == null;
        boolean ends = stage.status().ended() && kept.endedAt() == null;
        mapper.moveStage(kept.id(), word(stage.status()), stage.reason().orElse(null),
                begins ? now : kept.startedAt(), ends ? now : kept.endedAt());
    }

    private void carryOut(RunRow row, RunEffect effect) {
        switch (effect) {
            case RunEffect.OfferStage(var key, int attempt) -> ends.board().offerStage(row.id(), stageId(row.id(), key.name(), key.variant(), attempt));
            case RunEffect.StopStage(var key, int attempt, boolean atOnce) ->
                    ends.board().stopStage(stageId(row.id(), key.name(), key.variant(), attempt), atOnce);
            case RunEffect.SealVersion() -> seal(row);
        }
    }

    private long stageId(long run, String name, String variant, int attempt) {
        return mapper.stages(run).stream()
                .filter(stage -> stage.name().equals(name) && stage.variant().equals(variant) && stage.attempt() == attempt)
                .findFirst().orElseThrow().id();
    }

    private void seal(RunRow row) {
        RunRow now = mapper.byId(row.id());
        PipelineFile file = file(now);
        List<Versions.Artifact> artifacts = mapper.outputs(now.id()).stream()
                .map(output -> new Versions.Artifact(output.name(), output.fileName(), output.digest(), output.size())).toList();
        ends.versions().seal(now.componentId(), new Versions.Outcome(now.component(), now.versionNumber(), now.lineId(), now.number(),
                now.trusted(), now.id(), now.commitId(), now.bundle(), now.causeId(), Optional.ofNullable(now.upTo()),
                file.deployment(), file.route(), artifacts));
    }

    PipelineFile file(RunRow row) {
        return ends.components().file(row.pipelineFileId()).file()
                .orElseThrow(() -> new IllegalStateException("run " + row.id() + " was started from a file with problems"));
    }

    Mirror mirror(RunRow row) {
        return ends.components().mirror(ends.components().byId(row.componentId()));
    }

    RunRow byId(long id) {
        return mapper.byId(id);
    }

    RunRow numbered(String component, long number) {
        return mapper.numbered(component, number).orElseThrow(() -> {
            ends.components().named(component);
            return Refusal.notFound("there is no run " + component + "#" + number);
        });
    }

    void cancel(RunRow row, String by) {
        transactions.run(() -> {
            Optional<String> refused = apply(row.id(), new RunEvent.CancelAsked(by));
            if (refused.isPresent()) {
                throw Refusal.conflict(row.component() + "#" + row.number() + " cannot be cancelled: " + refused.get());
            }
            around.audit().record(AuditTrail.Entry.of(by, "run cancel asked", row.component() + "#" + row.number()));
        });
    }

    static String word(Enum<?> status) {
        return status.name().toLowerCase(Locale.ROOT);
    }
}
