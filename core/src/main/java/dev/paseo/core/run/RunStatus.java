package dev.paseo.core.run;

/** The states of a run. */
public enum RunStatus {
    WAITING, RUNNING, CANCELLING, PASSED, WARNED, FAILED, CANCELLED;

    public boolean ended() {
        return switch (this) {
            case WAITING, RUNNING, CANCELLING -> false;
            case PASSED, WARNED, FAILED, CANCELLED -> true;
        };
    }
}
