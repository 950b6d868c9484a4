package dev.paseo.core.deployment;

/** What follows from a decision about a place, beside what the place is then. */
public sealed interface PlaceEffect extends Consequence {

    /** This task is offered: to the host's agent, or where {@code host} is empty to the one that acts for the place. */
    record OfferTask(long deployment, String host, HostTask task) implements PlaceEffect {}

    /** No task of this deployment is running on this host; where {@code host} is empty, none for the whole place. */
    record StopTask(long deployment, String host) implements PlaceEffect {}

    /** What is to be installed on this host, and was not taken, is not offered any longer. */
    record WithdrawTask(long deployment, String host) implements PlaceEffect {}

    /** It is live; what was live before is replaced. */
    record WentLive(long deployment) implements PlaceEffect {}

    /** Its version's passage here is open. */
    record PassageOpened(long deployment) implements PlaceEffect {}

    /** It has stayed live and been tested: the walk goes on, and others hear of it. */
    record Settled(long deployment) implements PlaceEffect {}

    /** A test of it failed: it stays live, its passage stays open. */
    record NotSettled(long deployment, String reason) implements PlaceEffect {}

    /** It was live and is no more: what it had replaced is live again. */
    record TakenBack(long deployment) implements PlaceEffect {}
}
