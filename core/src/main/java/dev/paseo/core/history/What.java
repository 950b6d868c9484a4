package dev.paseo.core.history;

/** What happened. */
public enum What {
    /** A version is live in a place. */
    WENT_LIVE,
    /** It is live once more, since what had replaced it was taken back. */
    LIVE_AGAIN,
    /** A deployment ended and nothing of it went live: its state says how. */
    ENDED,
    /** A place was held. */
    HELD,
    /** A hold was lifted. */
    LET_GO,
    /** An environment was closed. */
    CLOSED,
    /** It was opened again. */
    OPENED,
    /** What is live on a host failed its checks. */
    UNHEALTHY,
    /** A host has other files than what was installed. */
    DRIFTED
}
