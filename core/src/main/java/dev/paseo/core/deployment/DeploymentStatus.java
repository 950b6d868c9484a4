package dev.paseo.core.deployment;

/** The states of a deployment. */
public enum DeploymentStatus {
    WAITING, QUEUED, DEPLOYING, CHECKING, LIVE, REPLACED, UNDOING, UNDONE, REMOVED, STOPPED, FAILED, REJECTED, EXPIRED,
    WITHDRAWN, OVERTAKEN;

    /** Whether hosts are being changed: a place has at most one such deployment. */
    public boolean active() {
        return this == DEPLOYING || this == CHECKING || this == UNDOING;
    }

    /** Whether it has not begun. */
    public boolean ahead() {
        return this == WAITING || this == QUEUED;
    }

    /** Whether it still concerns its place's decisions. */
    public boolean open() {
        return ahead() || active();
    }
}
