package dev.paseo.language.piece;

/** What a new version of a piece would be to a file that uses it. */
public enum TrialOutcome {
    /** It would say the same. */
    UNCHANGED,
    /** It would say something else, and is good. */
    CHANGED,
    /** It would have problems that it has not now. */
    BROKEN,
    /** It asks for a version that this is not. */
    NOT_TAKEN
}
