package dev.paseo.core.cause;

import java.util.Optional;

/** What led to a run or a deployment. Causes form a chain back to a person or a push. */
public sealed interface Cause {

    record Push(String component, String branch, String commit, String by) implements Cause {}

    record Asked(String by, Optional<String> comment) implements Cause {}

    record Run(String component, long number) implements Cause {}

    record Walk(String component, String version, String from) implements Cause {}

    /** As it completes "because of ...". */
    default String sentence() {
        return switch (this) {
            case Push(String component, String branch, String commit, String by) ->
                    "push " + commit.substring(0, Math.min(7, commit.length())) + " to " + component + " " + branch + " by " + by;
            case Asked(String by, Optional<String> comment) ->
                    "a request by " + by + comment.map(words -> ": \"" + words + "\"").orElse("");
            case Run(String component, long number) -> "run " + component + "#" + number;
            case Walk(String component, String version, String from) ->
                    "the walk of " + component + " " + version + (from.isEmpty() ? ", sealed" : ", live in " + from);
        };
    }
}
