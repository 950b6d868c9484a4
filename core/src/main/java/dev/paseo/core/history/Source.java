package dev.paseo.core.history;

/** Where something that happened is kept; of what happened at one moment, the earlier of these counts as newer. */
public enum Source {
    STRETCH, DEPLOYMENT, HOLD_LIFTED, HOLD, CLOSURE_LIFTED, CLOSURE, TRAIL
}
