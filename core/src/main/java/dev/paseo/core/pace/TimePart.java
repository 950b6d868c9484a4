package dev.paseo.core.pace;

/** Where the time goes between the commit of a version and its going live somewhere, in the order in which it goes. */
public enum TimePart {
    /** It is committed, and its run is not asked for: it is not pushed yet, or nothing starts by itself. */
    COMMITTED,
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
    /** All people have decided, and the environment is closed, or it is outside of its hours. */
    CLOSED,
    /** It is open, and the component is held there. */
    HELD,
    /** Neither, and another deployment of the component is under way there. */
    QUEUE,
    /** None of these: it is not live long enough in the environment before, or something else is waited for. */
    TIME,
    /** Hosts are being changed and checked. */
    DEPLOYING
}
