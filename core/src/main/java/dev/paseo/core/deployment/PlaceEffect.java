package dev.paseo.core.deployment;

/** What follows from a decision about a place. */
public sealed interface PlaceEffect {

    /** This task is offered to the host's agent. */
    record OfferTask(long deployment, String host, HostTask task) implements PlaceEffect {}

    /** No task of this deployment is running on this host. */
    record StopTask(long deployment, String host) implements PlaceEffect {}

    /** From now on this is what the host has. */
    record HostHas(long deployment, String host, Content content) implements PlaceEffect {}

    /** It is live; what was live before is replaced. */
    record WentLive(long deployment) implements PlaceEffect {}

    /** What a host has after a task: the version being deployed, what was live before, or nobody knows. */
    enum Content { THIS_VERSION, PREVIOUS_VERSION, NOTHING, UNKNOWN }
}
