package dev.paseo.core.environment;

/** Which gate of an environment: the one before it, the one onward, or the one before it for what goes back. */
public enum GateSide {
    TO_ENTER, TO_GO_ON, ROLLBACK
}
