package dev.paseo.core.deployment;

/** How a task on a host ended. */
public sealed interface HostOutcome {

    record Done() implements HostOutcome {}

    /**
     * It failed.
     *
     * @param touched whether the recipe had begun, so that the host may have changed
     */
    record Failed(String reason, boolean touched) implements HostOutcome {}
}
