package dev.paseo.core.deployment;

/** The kinds of deployment. */
public enum Kind {
    PROMOTION, REDEPLOY, ROLLBACK, PREVIEW;

    /** Whether a version passes here by it. */
    boolean opensPassage() {
        return this == PROMOTION;
    }

    /**
     * Whether a passage goes on once it has stayed live and been tested: a redeploy makes good what a failed test kept.
     */
    boolean settlesPassage() {
        return this == PROMOTION || this == REDEPLOY;
    }

    /** Whether what goes live by it under rules that were loosened lately is reviewed afterwards. */
    public boolean reviewedIfLoosened() {
        return this != PREVIEW;
    }
}
