package dev.paseo.core.run;

/** What can happen to a run. */
public sealed interface RunEvent {

    /**
     * The commit is pinned and its recipe's files are kept.
     *
     * @param itsTurn whether it may begin at once; else it waits for {@link TurnCame}
     */
    record Prepared(boolean itsTurn) implements RunEvent {}

    record PreparationFailed(String reason) implements RunEvent {}

    /** No other run of its line is in its way any longer. */
    record TurnCame() implements RunEvent {}

    /** An agent has taken this attempt. */
    record StageTaken(StageKey stage, int attempt) implements RunEvent {}

    record StageEnded(StageKey stage, int attempt, StageOutcome outcome) implements RunEvent {}

    /**
     * Somebody or something wants it to end: the first time what runs regardless still runs, the second time nothing
     * does.
     *
     * @param why as a sentence: {@code cancelled by developer}
     */
    record CancelAsked(String why) implements RunEvent {}

    /** What failed is to be tried again, with all that follows from it. */
    record ResumeAsked() implements RunEvent {}
}
