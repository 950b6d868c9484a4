package dev.paseo.core.run;

import java.util.List;
import java.util.Optional;

/**
 * One stage of a run.
 *
 * @param waits     what must have happened before it may start
 * @param attempt   counts from 1
 * @param keeps     the names of the artifacts that it delivers when it passes
 * @param mayFail   its failure makes it, and the run, warned
 * @param notWanted why it is not wanted in this run, where it is not
 * @param skip      why it was skipped, where it was
 * @param reason    why it ended as it did, where that needs saying
 */
public record StageState(StageKey key, StageDependencies waits, int attempt, List<String> keeps, boolean mayFail,
        Optional<String> notWanted,
        StageStatus status, Optional<Skip> skip, Optional<String> reason) {

    /** The two reasons to skip a stage. What is after one that was not wanted goes on. */
    public enum Skip {
        NOT_WANTED, UNATTAINABLE
    }

    public StageState {
        keeps = List.copyOf(keeps);
    }

    public static StageState waiting(StageKey key, StageDependencies waits, List<String> keeps) {
        return new StageState(key, waits, 1, keeps, false, Optional.empty(), StageStatus.WAITING, Optional.empty(),
                Optional.empty());
    }

    public StageState tolerated() {
        return new StageState(key, waits, attempt, keeps, true, notWanted, status, skip, reason);
    }

    public StageState notWanted(String why) {
        return new StageState(key, waits, attempt, keeps, mayFail, Optional.of(why), status, skip, reason);
    }

    /** Whether what comes after this stage may go on. */
    boolean letsGoOn() {
        return status == StageStatus.PASSED || status == StageStatus.WARNED
                || skip.equals(Optional.of(Skip.NOT_WANTED));
    }

    StageState to(StageStatus next) {
        return new StageState(key, waits, attempt, keeps, mayFail, notWanted, next, skip, reason);
    }

    StageState to(StageStatus next, String why) {
        return new StageState(key, waits, attempt, keeps, mayFail, notWanted, next, skip, Optional.of(why));
    }

    StageState skipped(Skip how, String why) {
        return new StageState(key, waits, attempt, keeps, mayFail, notWanted, StageStatus.SKIPPED, Optional.of(how),
                Optional.of(why));
    }

    /** Waiting once more: as a new attempt, unless this one never began. */
    StageState again() {
        int next = status == StageStatus.SKIPPED ? attempt : attempt + 1;
        return new StageState(key, waits, next, keeps, mayFail, notWanted, StageStatus.WAITING, Optional.empty(),
                Optional.empty());
    }
}
