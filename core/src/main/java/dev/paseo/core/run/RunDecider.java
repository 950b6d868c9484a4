package dev.paseo.core.run;

import dev.paseo.core.decision.Decision;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** Decides about runs. Pure: no clock, no database, no randomness. */
public final class RunDecider {

    private RunDecider() {}

    public static Decision<RunState, RunEffect> decide(RunState run, RunEvent event) {
        if (run.status().ended() && !(event instanceof RunEvent.ResumeAsked)) {
            return Decision.refused("the run has ended: " + word(run.status()));
        }
        return switch (event) {
            case RunEvent.Prepared(boolean itsTurn) -> prepared(run, itsTurn);
            case RunEvent.PreparationFailed(String reason) -> preparationFailed(run, reason);
            case RunEvent.TurnCame() -> turnCame(run);
            case RunEvent.StageTaken(StageKey key, int attempt) -> taken(run, key, attempt);
            case RunEvent.StageEnded(StageKey key, int attempt, StageOutcome outcome) -> ended(run, key, attempt,
                    outcome);
            case RunEvent.CancelAsked(String why) -> cancel(run, why);
            case RunEvent.ResumeAsked() -> Resuming.resume(run);
        };
    }

    private static Decision<RunState, RunEffect> prepared(RunState run, boolean itsTurn) {
        if (run.status() != RunStatus.WAITING || run.prepared()) {
            return Decision.refused("the run was prepared before");
        }
        return itsTurn ? turnCame(run.ready()) : Decision.moved(run.ready(), List.of());
    }

    private static Decision<RunState, RunEffect> preparationFailed(RunState run, String reason) {
        if (run.status() != RunStatus.WAITING || run.prepared()) {
            return Decision.refused("the run was prepared before");
        }
        Map<StageKey, StageState> stages = run.byKey();
        stages.replaceAll((key, stage) -> stage.skipped(StageState.Skip.UNATTAINABLE,
                "unattainable: the run could not be prepared"));
        return Decision.moved(run.with(stages).to(RunStatus.FAILED, reason), List.of());
    }

    private static Decision<RunState, RunEffect> turnCame(RunState run) {
        if (run.status() != RunStatus.WAITING || !run.prepared()) {
            return Decision.refused("the run does not wait for its turn");
        }
        return advance(run.to(RunStatus.RUNNING), new ArrayList<>());
    }

    private static Decision<RunState, RunEffect> taken(RunState run, StageKey key, int attempt) {
        return run.stage(key)
                .filter(stage -> stage.attempt() == attempt && stage.status() == StageStatus.READY)
                .map(stage -> Decision.<RunState, RunEffect>moved(run.with(stage.to(StageStatus.RUNNING)), List.of()))
                .orElseGet(() -> Decision.refused("attempt " + attempt + " of " + key + " is not offered"));
    }

    private static Decision<RunState, RunEffect> ended(RunState run, StageKey key, int attempt, StageOutcome outcome) {
        return run.stage(key)
                .filter(stage -> stage.attempt() == attempt && stage.status() == StageStatus.RUNNING)
                .map(stage -> advance(run.with(close(stage, outcome)), new ArrayList<>()))
                .orElseGet(() -> Decision.refused("attempt " + attempt + " of " + key + " is not running"));
    }

    private static StageState close(StageState stage, StageOutcome outcome) {
        return switch (outcome) {
            case StageOutcome.Passed() -> stage.to(StageStatus.PASSED);
            case StageOutcome.Warned(String reason) -> stage.to(StageStatus.WARNED, reason);
            case StageOutcome.Failed(String reason) -> failed(stage, reason);
            case StageOutcome.Lost(String reason) -> failed(stage, "lost: " + reason);
            case StageOutcome.Stopped() -> stage.to(StageStatus.CANCELLED);
        };
    }

    private static StageState failed(StageState stage, String reason) {
        return stage.mayFail() ? stage.to(StageStatus.WARNED, "failed, which it may: " + reason)
                : stage.to(StageStatus.FAILED, reason);
    }

    /** The first time, what waits for {@code after-any} still runs once; the second time everything ends. */
    private static Decision<RunState, RunEffect> cancel(RunState run, String why) {
        boolean everything = run.status() != RunStatus.RUNNING;
        boolean atOnce = run.status() == RunStatus.CANCELLING;
        List<RunEffect> effects = new ArrayList<>();
        Map<StageKey, StageState> stages = run.byKey();
        for (StageState stage : run.stages()) {
            if (stage.status().ended() || stage.waits().regardless() && !everything) {
                continue;
            }
            if (stage.status() == StageStatus.RUNNING || stage.status() == StageStatus.READY) {
                effects.add(new RunEffect.StopStage(stage.key(), stage.attempt(), atOnce));
            }
            if (stage.status() != StageStatus.RUNNING) {
                stages.put(stage.key(), stage.to(StageStatus.CANCELLED));
            }
        }
        return advance(run.with(stages).to(RunStatus.CANCELLING, why), effects);
    }

    /** Offers what may start, skips what can no longer start, and ends the run when nothing is left. */
    private static Decision<RunState, RunEffect> advance(RunState run, List<RunEffect> effects) {
        Map<StageKey, StageState> stages = run.byKey();
        boolean moved;
        do {
            moved = false;
            for (StageState stage : List.copyOf(stages.values())) {
                moved |= stage.status() == StageStatus.WAITING && settle(stages, stage, effects);
            }
        } while (moved);
        RunState now = run.with(stages);
        return Decision.moved(now.allEnded() ? close(now, effects) : now, effects);
    }

    /** Whether something came of it that others may wait for. */
    private static boolean settle(Map<StageKey, StageState> stages, StageState stage, List<RunEffect> effects) {
        StageState next = switch (Attainable.of(stages, stage)) {
            case Attainable.NotWanted(String why) -> stage.skipped(StageState.Skip.NOT_WANTED, "not wanted: " + why);
            case Attainable.Never(String why) -> stage.skipped(StageState.Skip.UNATTAINABLE, "unattainable: " + why);
            case Attainable.Now() -> stage.to(StageStatus.READY);
            case Attainable.NotYet() -> stage;
        };
        stages.put(stage.key(), next);
        if (next.status() == StageStatus.READY) {
            effects.add(new RunEffect.OfferStage(stage.key(), stage.attempt()));
        }
        return next.status() == StageStatus.SKIPPED;
    }

    private static RunState close(RunState run, List<RunEffect> effects) {
        if (run.status() == RunStatus.CANCELLING) {
            return run.to(RunStatus.CANCELLED);
        }
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.FAILED) {
                return run.to(RunStatus.FAILED,
                        stage.key() + " failed" + stage.reason().map(why -> ": " + why).orElse(""));
            }
        }
        if (!run.missing().isEmpty()) {
            return run.to(RunStatus.FAILED,
                    "the recipe deploys " + String.join(", ", run.missing().stream().sorted().toList())
                            + ", which no stage kept");
        }
        effects.add(new RunEffect.SealVersion());
        boolean warned = run.stages().stream().anyMatch(stage -> stage.status() == StageStatus.WARNED);
        return run.to(warned ? RunStatus.WARNED : RunStatus.PASSED);
    }

    static String word(Enum<?> status) {
        return status.name().toLowerCase(Locale.ROOT);
    }
}
