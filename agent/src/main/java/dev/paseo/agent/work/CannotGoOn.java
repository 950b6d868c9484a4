package dev.paseo.agent.work;

import dev.paseo.api.agent.Lease;

/** Work that cannot go on, with the reason for people. */
final class CannotGoOn extends RuntimeException {

    private final Lease.Outcome outcome;

    CannotGoOn(String message) {
        this(message, Lease.Outcome.FAILED);
    }

    private CannotGoOn(String message, Lease.Outcome outcome) {
        super(message);
        this.outcome = outcome;
    }

    /** Somebody wants it to end. */
    static CannotGoOn stopped(String message) {
        return new CannotGoOn(message, Lease.Outcome.STOPPED);
    }

    Lease.Outcome outcome() {
        return outcome;
    }

    /** Says so where bytes arrived that are not those that were asked for. */
    static void unlessSame(String what, String wanted, String found) {
        if (!wanted.equals(found)) {
            throw new CannotGoOn(what + " arrived with the digest " + found + ", not " + wanted + ": nothing was run");
        }
    }
}
