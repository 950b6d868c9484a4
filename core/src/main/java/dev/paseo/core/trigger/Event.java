package dev.paseo.core.trigger;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** Something that may start runs. */
public sealed interface Event {

    /** The component that it happened to. */
    String component();

    /**
     * @param changed paths that changed since the last started commit of the branch; empty: everything counts as
     * changed
     */
    record Pushed(String component, String branch, String commit, Optional<List<String>> changed) implements Event {}

    /**
     * @param branch the branch that holds the tagged commit; empty: none does
     * @param sealed the newest version sealed from the commit
     */
    record Tagged(String component, String tag, String commit, Optional<String> branch,
            Optional<String> sealed) implements Event {}

    /** @param missed it came while the service was away, too long ago to be made up for */
    record Fired(String component, String cron, String zone, Instant at, boolean missed) implements Event {

        /** For so long it is made up for. */
        private static final Duration MADE_UP_FOR = Duration.ofHours(1);

        /** A clock that fired at a time, noticed now. */
        public static Fired noticed(String component, String cron, String zone, Instant at, Instant now) {
            return new Fired(component, cron, zone, at, Duration.between(at, now).compareTo(MADE_UP_FOR) > 0);
        }
    }

    /**
     * @param main       whether the branch is its component's main one
     * @param repository where the component's source is
     */
    record RunEnded(String component, long number, String branch, boolean main, Trigger.RunEnd end,
            Optional<String> repository) implements Event {}

    record WentLive(String component, String version, String environment) implements Event {}

    record Arrived(String component, String version) implements Event {}
}
