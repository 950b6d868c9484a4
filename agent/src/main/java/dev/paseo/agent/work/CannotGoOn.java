package dev.paseo.agent.work;

/** Work that cannot go on, with the reason for people. */
final class CannotGoOn extends RuntimeException {
    CannotGoOn(String message) {
        super(message);
    }

    /** Says so where bytes arrived that are not those that were asked for. */
    static void unlessSame(String what, String wanted, String found) {
        if (!wanted.equals(found)) {
            throw new CannotGoOn(what + " arrived with the digest " + found + ", not " + wanted + ": nothing was run");
        }
    }
}
