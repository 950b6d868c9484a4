package dev.paseo.core.run;

/** The states of a stage. */
public enum StageStatus {
    WAITING, READY, RUNNING, PASSED, WARNED, FAILED, SKIPPED, CANCELLED;

    /** Whether nothing more will happen to this attempt. */
    public boolean ended() {
        return switch (this) {
            case WAITING, READY, RUNNING -> false;
            case PASSED, WARNED, FAILED, SKIPPED, CANCELLED -> true;
        };
    }
}
