package dev.paseo.core.deployment;

/** What an agent does for a deployment: on a host, or once for the whole place. */
public enum HostTask {
    INSTALL, CHECK, UNDO, REMOVE, WATCH, CLEAR,
    ONCE_BEFORE, ONCE_AFTER, TRAFFIC, TRAFFIC_BACK, WHOLE, WATCH_WHOLE, TEST;

    /** Whether it is done once for the place, not on each host. */
    public boolean ofPlace() {
        return compareTo(ONCE_BEFORE) >= 0;
    }
}
