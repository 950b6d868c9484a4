package dev.paseo.core.deployment;

/** What follows from a decision about a place. */
public sealed interface PlaceEffect {

    /** This task is offered: to the host's agent, or where {@code host} is empty to the one that acts for the place. */
    record OfferTask(long deployment, String host, HostTask task) implements PlaceEffect {}

    /** No task of this deployment is running on this host; where {@code host} is empty, none for the whole place. */
    record StopTask(long deployment, String host) implements PlaceEffect {}

    /** What is to be installed on this host, and was not taken, is not offered any longer. */
    record WithdrawTask(long deployment, String host) implements PlaceEffect {}

    /** From now on this is what the host has. */
    record HostHas(long deployment, String host, Content content) implements PlaceEffect {}

    /** It is live; what was live before is replaced. */
    record WentLive(long deployment) implements PlaceEffect {}

    /** It has stayed live and been tested: the walk goes on, and others hear of it. */
    record Settled(long deployment) implements PlaceEffect {}

    /** A test of it failed: it stays live, its passage stays open. */
    record NotSettled(long deployment, String reason) implements PlaceEffect {}

    /** It was live and is no more: what it had replaced is live again. */
    record TakenBack(long deployment) implements PlaceEffect {}

    /** Whether it changes more of the place than its hosts and what is done on them. */
    default boolean ofWhole() {
        return switch (this) {
            case WentLive live -> true;
            case Settled settled -> true;
            case TakenBack back -> true;
            case OfferTask offered -> false;
            case StopTask stopped -> false;
            case WithdrawTask withdrawn -> false;
            case HostHas has -> false;
            case NotSettled not -> false;
        };
    }

    /** What a host has after a task: the version being deployed, what was live before, or nobody knows. */
    enum Content { THIS_VERSION, PREVIOUS_VERSION, NOTHING, UNKNOWN }
}
