package dev.paseo.core.pace;

/** Where the time goes between what began a version and its going live somewhere, in the order in which it goes. */
public enum TimePart {
    /** The run waits for its turn in its line. */
    TURN,
    /** The run has begun, and none of its stages is at work: they wait for agents. */
    AGENTS,
    /** Stages are at work. */
    BUILDING,
    /** The version is sealed and not yet asked for here: it is in the environments before, or nobody asked. */
    BEFORE,
    /** It waits at the gate, until the last person has decided. */
    PEOPLE,
    /** All people have decided, and it has not begun: closed, held, hours, live long enough, or its turn. */
    TIME,
    /** Hosts are being changed and checked. */
    DEPLOYING
}
