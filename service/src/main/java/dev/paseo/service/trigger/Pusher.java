package dev.paseo.service.trigger;

import dev.paseo.core.text.Shortened;
import java.util.Optional;
import java.util.Set;

/**
 * Who pushed, as far as somebody told. What moved beside what somebody told of was pushed by nobody knows whom.
 *
 * @param name     an account, or a mail address
 * @param branches what was pushed; empty where that was not told, so that it counts for all that moved
 */
public record Pusher(Optional<String> name, Optional<Set<String>> branches) {

    public static final Pusher UNTOLD = new Pusher(Optional.empty(), Optional.empty());

    private static final int LONGEST = 200;

    public Pusher {
        name = name.filter(text -> !text.isBlank()).map(text -> Shortened.to(text, LONGEST));
        branches = branches.map(Set::copyOf);
    }

    /** Who pushed one branch. */
    public static Pusher of(String name, String branch) {
        return new Pusher(Optional.of(name), Optional.of(Set.of(branch)));
    }

    /** Who pushed this branch. */
    Optional<String> of(String branch) {
        return name.filter(any -> branches.isEmpty() || branches.get().contains(branch));
    }
}
