package dev.paseo.core.deployment;

/** What comes of an event at a place: what the place itself has then, or what is to be done about it. */
sealed interface Consequence permits PlaceEffect, Consequence.HostHas {

    /** From now on this is what the host has. */
    record HostHas(long deployment, String host, Content content) implements Consequence {}

    /** What a host has after a task: the version being deployed, what was live before, nothing, or nobody knows. */
    enum Content {
        THIS_VERSION, PREVIOUS_VERSION, NOTHING, UNKNOWN
    }
}
