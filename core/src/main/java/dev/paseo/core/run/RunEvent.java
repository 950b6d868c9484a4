package dev.paseo.core.run;

/** What can happen to a run. */
public sealed interface RunEvent {

    /** The commit is pinned and its recipe's files are kept: stages may start. */
    record Prepared() implements RunEvent {}

    record PreparationFailed(String reason) implements RunEvent {}

    /** An agent has taken this attempt. */
    record StageTaken(StageKey stage, int attempt) implements RunEvent {}

    record StageEnded(StageKey stage, int attempt, StageOutcome outcome) implements RunEvent {}

    record CancelAsked(String by) implements RunEvent {}
}
