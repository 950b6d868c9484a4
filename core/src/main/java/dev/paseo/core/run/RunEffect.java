package dev.paseo.core.run;

/** What follows from a decision about a run. */
public sealed interface RunEffect {

    /** This attempt is offered to agents. */
    record OfferStage(StageKey stage, int attempt) implements RunEffect {}

    /**
     * This attempt is not running.
     *
     * @param atOnce without the grace period
     */
    record StopStage(StageKey stage, int attempt, boolean atOnce) implements RunEffect {}

    /** The outputs become a version. */
    record SealVersion() implements RunEffect {}
}
