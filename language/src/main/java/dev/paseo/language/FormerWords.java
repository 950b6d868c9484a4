package dev.paseo.language;

import java.util.Map;
import java.util.Optional;

/**
 * Words of the release before, by the ones that took their place. A file that still has them is read, with a warning;
 * they stand here and nowhere else.
 */
public record FormerWords(Map<String, String> present) {

    public static final FormerWords NONE = new FormerWords(Map.of());

    /** Of an environment, and of a component in it. */
    public static final FormerWords GATES = new FormerWords(Map.of("entry", "to-enter", "exit", "to-go-on"));

    /** Of a gate. */
    public static final FormerWords CRITERIA = new FormerWords(Map.of("soak", "live-for"));

    /** Of what a person is asked. */
    public static final FormerWords ASKS = new FormerWords(Map.of("choices", "of"));

    /** Of the kinds of what a person is asked. */
    public static final FormerWords KINDS = new FormerWords(Map.of("choice", "one-of"));

    /** The word that is used now; empty where this is no former word. */
    public Optional<String> present(String word) {
        return Optional.ofNullable(present.get(word));
    }
}
