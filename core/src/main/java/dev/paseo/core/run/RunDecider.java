package dev.paseo.core.run;

import dev.paseo.core.decision.Decision;
import java.util.ArrayList;
import java.util.List;

/** Decides about runs. Pure: no clock, no database, no randomness. */
public final class RunDecider {

    private RunDecider() {}

    public static Decision<RunState, RunEffect> decide(RunState run, RunEvent event) {
        if (run.status().ended()) {
            return Decision.refused("the run has ended: " + word(run.status()));
        }
        return switch (event) {
            case RunEvent.Prepared() -> prepared(run);
            case RunEvent.PreparationFailed(String reason) -> preparationFailed(run, reason);
            case RunEvent.StageTaken(StageKey key, int attempt) -> taken(run, key, attempt);
            case RunEvent.StageEnded(StageKey key, int attempt, StageOutcome outcome) -> ended(run, key, attempt, outcome);
            case RunEvent.CancelAsked(String by) -> cancel(run, by);
        };
    }

    private static Decision<RunState, RunEffect> prepared(RunState run) {
        if (run.status() != RunStatus.WAITING) {
            return Decision.refused("the run was prepared before");
        }
        return advance(run.to(RunStatus.RUNNING), new ArrayList<>());
    }

    private static Decision<RunState, RunEffect> preparationFailed(RunState run, String reason) {
        if (run.status() != RunStatus.WAITING) {
            return Decision.refused("the run was prepared before");
        }
        return Decision.moved(skipUnstarted(run, "the run could not be prepared").to(RunStatus.FAILED, reason), List.of());
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
            case StageOutcome.Failed(String reason) -> stage.to(StageStatus.FAILED, reason);
            case StageOutcome.Lost(String reason) -> stage.to(StageStatus.FAILED, "lost: " + reason);
            case StageOutcome.Stopped() -> stage.to(StageStatus.CANCELLED);
        };
    }

    private static Decision<RunState, RunEffect> cancel(RunState run, String by) {
        List<RunEffect> effects = new ArrayList<>();
        boolean again = run.status() == RunStatus.CANCELLING;
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.RUNNING || stage.status() == StageStatus.READY) {
                effects.add(new RunEffect.StopStage(stage.key(), stage.attempt(), again));
            }
        }
        RunState cancelling = run.to(RunStatus.CANCELLING, "cancelled by " + by);
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.WAITING || stage.status() == StageStatus.READY) {
                cancelling = cancelling.with(stage.to(StageStatus.CANCELLED));
            }
        }
        return advance(cancelling, effects);
    }

    /** Offers what may start, skips what can no longer start, and ends the run when nothing is left. */
    private static Decision<RunState, RunEffect> advance(RunState run, List<RunEffect> effects) {
        RunState now = run;
        if (now.status() == RunStatus.RUNNING) {
            // In the file's order a stage comes after those it waits for or skips because of: one pass suffices.
            for (StageState stage : run.stages()) {
                now = settle(now, stage, effects);
            }
        }
        if (now.allEnded()) {
            now = close(now, effects);
        }
        return Decision.moved(now, effects);
    }

    private static RunState settle(RunState run, StageState stage, List<RunEffect> effects) {
        if (stage.status() != StageStatus.WAITING) {
            return run;
        }
        List<StageState> before = stage.after().stream().map(key -> run.stage(key).orElseThrow()).toList();
        for (StageState earlier : before) {
            if (earlier.status().ended() && !earlier.status().good()) {
                return run.with(stage.to(StageStatus.SKIPPED, "unattainable: " + earlier.key() + " " + word(earlier.status())));
            }
        }
        if (before.stream().allMatch(earlier -> earlier.status().good())) {
            effects.add(new RunEffect.OfferStage(stage.key(), stage.attempt()));
            return run.with(stage.to(StageStatus.READY));
        }
        return run;
    }

    private static RunState close(RunState run, List<RunEffect> effects) {
        if (run.status() == RunStatus.CANCELLING) {
            return run.to(RunStatus.CANCELLED);
        }
        for (StageState stage : run.stages()) {
            if (stage.status() == StageStatus.FAILED) {
                return run.to(RunStatus.FAILED, stage.key() + " failed" + stage.reason().map(why -> ": " + why).orElse(""));
            }
        }
        if (!run.missing().isEmpty()) {
            return run.to(RunStatus.FAILED, "the recipe deploys " + String.join(", ", run.missing().stream().sorted().toList())
                    + ", which no stage kept");
        }
        effects.add(new RunEffect.SealVersion());
        boolean warned = run.stages().stream().anyMatch(stage -> stage.status() == StageStatus.WARNED);
        return run.to(warned ? RunStatus.WARNED : RunStatus.PASSED);
    }

    private static RunState skipUnstarted(RunState run, String why) {
        RunState now = run;
        for (StageState stage : run.stages()) {
            now = now.with(stage.to(StageStatus.SKIPPED, "unattainable: " + why));
        }
        return now;
    }

    private static String word(Enum<?> status) {
        return status.name().toLowerCase(java.util.Locale.ROOT);
    }
}
