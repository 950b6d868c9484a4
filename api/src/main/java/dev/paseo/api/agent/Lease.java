package dev.paseo.api.agent;

/** What an agent says and hears while it holds a lease. */
public interface Lease {

    /** Still at it, under this fence. */
    record Heartbeat(long fence) {}

    /** What is wanted of the work now. */
    record HeartbeatAnswer(Stop stop) {}

    /** Whether the work should end: by TERM and a grace period, or by KILL. */
    enum Stop { NO, GENTLY, AT_ONCE }

    /** The number of the first line that the service does not have yet; lines count from 1. */
    record LogPosition(long nextLine) {}

    /**
     * How the work ended.
     *
     * @param touched for work on a host: whether the first step had begun
     */
    record Result(long fence, Outcome outcome, String reason, boolean touched) {}

    /** How work ends. */
    enum Outcome { PASSED, FAILED, STOPPED, LOST }
}
