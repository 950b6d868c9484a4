package dev.paseo.core.cause;

import java.time.Instant;
import java.util.Optional;

/** What led to a run or a deployment. Causes form a chain back to a person, a push, a clock or an arrival. */
public sealed interface Cause {

    record Push(String component, String branch, String commit, String by) implements Cause {}

    record Tag(String component, String tag, String commit) implements Cause {}

    /** @param at the time that was meant, not the moment at which it was noticed */
    record Clock(String component, String cron, String zone, Instant at) implements Cause {}

    /**
     * @param how {@code by upload}, or in which store it was seen
     * @param by  who sent it; empty where nobody did
     */
    record Arrival(String component, String version, String how, String by) implements Cause {}

    record Asked(String by, Optional<String> comment) implements Cause {}

    record Run(String component, long number) implements Cause {}

    record Walk(String component, String version, String from) implements Cause {}

    record Live(String component, String version, String environment, long deployment) implements Cause {}

    /** As it completes "because of ...". */
    default String sentence() {
        return switch (this) {
            case Push(String component, String branch, String commit, String by) -> "push " + shorter(commit) + " to "
                    + component + " " + branch + " by " + by;
            case Tag(String component, String tag, String commit) -> "tag " + tag + " on commit " + shorter(commit)
                    + " of " + component;
            case Clock(String component, String cron, String zone, Instant at) -> "clock " + cron + " (" + zone
                    + ") of " + component;
            case Arrival(String component, String version, String how, String by) -> "the arrival of " + component + " "
                    + version + " " + how + (by.isEmpty() ? "" : ", sent by " + by);
            case Asked(String by, Optional<String> comment) -> "a request by " + by
                    + comment.map(words -> ": \"" + words + "\"").orElse("");
            case Run(String component, long number) -> "run " + component + "#" + number;
            case Walk(String component, String version, String from) -> "the walk of " + component + " " + version
                    + (from.isEmpty() ? ", sealed" : ", live in " + from);
            case Live(String component, String version, String environment, long deployment) -> component + " "
                    + version + ", live in " + environment + " by deployment " + deployment;
        };
    }

    private static String shorter(String commit) {
        return commit.substring(0, Math.min(7, commit.length()));
    }
}
