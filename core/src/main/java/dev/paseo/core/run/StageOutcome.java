package dev.paseo.core.run;

/** How an attempt of a stage ended, as its agent, or the absence of its agent, tells it. */
public sealed interface StageOutcome {

    record Passed() implements StageOutcome {}

    /** Done, and worth a look: a condition that its file declares holds. */
    record Warned(String reason) implements StageOutcome {}

    record Failed(String reason) implements StageOutcome {}

    /** The agent and its spool are gone: what happened cannot be known. */
    record Lost(String reason) implements StageOutcome {}

    /** Ended because it was told to. */
    record Stopped() implements StageOutcome {}
}
