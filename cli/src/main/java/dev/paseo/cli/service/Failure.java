package dev.paseo.cli.service;

/** Why a command did not do what it was asked; the exit code follows from the kind. */
public final class Failure extends RuntimeException {

    /** Exit codes: 1 refused or failed, or not there, 2 wrong usage, 3 not reachable, 4 not allowed. */
    public enum Kind {
        REFUSED(1), NOT_FOUND(1), USAGE(2), UNREACHABLE(3), NOT_ALLOWED(4);

        private final int exitCode;

        Kind(int exitCode) {
            this.exitCode = exitCode;
        }
    }

    private final Kind kind;

    public Failure(Kind kind, String message) {
        super(message);
        this.kind = kind;
    }

    public Kind kind() {
        return kind;
    }

    public int exitCode() {
        return kind.exitCode;
    }
}
