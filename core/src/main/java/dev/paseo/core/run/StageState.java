package dev.paseo.core.run;

import java.util.List;
import java.util.Optional;

/**
 * One stage of a run.
 *
 * @param after   the stages that must have passed or warned before this one may start
 * @param attempt counts from 1
 * @param keeps   the names of the artifacts that it delivers when it passes
 * @param reason  why it ended as it did, where that needs saying
 */
public record StageState(
        StageKey key, List<StageKey> after, int attempt, List<String> keeps, StageStatus status, Optional<String> reason) {

    public StageState {
        after = List.copyOf(after);
        keeps = List.copyOf(keeps);
    }

    public static StageState waiting(StageKey key, List<StageKey> after, List<String> keeps) {
        return new StageState(key, after, 1, keeps, StageStatus.WAITING, Optional.empty());
    }

    StageState to(StageStatus next) {
        return new StageState(key, after, attempt, keeps, next, reason);
    }

    StageState to(StageStatus next, String why) {
        return new StageState(key, after, attempt, keeps, next, Optional.of(why));
    }
}
