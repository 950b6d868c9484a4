package dev.paseo.language.piece;

import java.util.Optional;

/** How what a file uses of a piece stands to what there is. */
public enum Standing {
    /** The newest there is. */
    CURRENT,
    /** An older version, in which the piece says the same. */
    ALIKE,
    /** Its next run takes a version in which the piece says something else. */
    BEHIND,
    /** The version that it asks for keeps it from the newest, in which the piece says something else. */
    HELD_BACK,
    /** What it asks for is not there, or not to be taken: its next run is refused. */
    BROKEN;

    /** A piece in a version. */
    public record At(String version, String digest) {}

    /**
     * @param used   what it was put together from
     * @param next   what its next run would take; empty: nothing is to be had
     * @param newest of all versions; empty: none has the piece
     */
    public static Standing of(At used, Optional<At> next, Optional<At> newest) {
        if (next.isEmpty()) {
            return BROKEN;
        }
        if (!next.get().digest().equals(used.digest())) {
            return BEHIND;
        }
        if (newest.isEmpty() || !newest.get().digest().equals(used.digest())) {
            return HELD_BACK;
        }
        return newest.get().version().equals(used.version()) ? CURRENT : ALIKE;
    }
}
