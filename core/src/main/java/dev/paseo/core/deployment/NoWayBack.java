package dev.paseo.core.deployment;

/**
 * An irreversible change came with a version of a line: nothing before that version is gone back to, and nothing of
 * another line.
 *
 * @param order the version's position in its line
 */
public record NoWayBack(long line, long order) {

    /** Whether it keeps a version from being gone back to. */
    public boolean bars(long line, long order) {
        return this.line != line || order < this.order;
    }
}
