package dev.paseo.service.trigger;

import dev.paseo.service.pipeline.FileInForce;
import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.run.RunStarts;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * An event with what is kept about it.
 *
 * @param key      keeps it from being told twice; empty where something else does
 * @param sentence what happened
 * @param because  the cause that led to it
 * @param brought  a version that comes with it
 * @param told     whether somebody told who did it; else {@code by} is only who made the newest commit
 * @param file     the pipeline file at its commit, where it was read already: once for all that is asked of it
 */
record Happened(Event event, RegisteredComponent about, Optional<String> key, String sentence, Cause cause,
        OptionalLong because,
        String by, Optional<String> branch, Optional<String> commit, Optional<RunStarts.Upstream> brought, boolean told,
        Optional<FileInForce> file) {

    Happened(Event event, RegisteredComponent about, Optional<String> key, String sentence, Cause cause,
            OptionalLong because,
            String by, Optional<String> branch, Optional<String> commit, Optional<RunStarts.Upstream> brought) {
        this(event, about, key, sentence, cause, because, by, branch, commit, brought, true, Optional.empty());
    }

    Happened by(boolean told, FileInForce file) {
        return new Happened(event, about, key, sentence, cause, because, by, branch, commit, brought, told,
                Optional.of(file));
    }

    String kind() {
        return switch (event) {
            case Event.Pushed pushed -> "push";
            case Event.Tagged tagged -> "tag";
            case Event.Fired fired -> "clock";
            case Event.RunEnded ended -> "run";
            case Event.WentLive live -> "live";
            case Event.Arrived arrived -> "arrival";
        };
    }

    /** The cause of what it starts, in a word, as pipeline files know it. */
    String reasonKind() {
        return event instanceof Event.RunEnded ? "upstream" : kind();
    }

    /** A branch or a tag that moved and cannot be read. */
    static Happened unread(RegisteredComponent component, boolean tag, String name, String commit) {
        String at = commit.substring(0, Math.min(7, commit.length()));
        return new Happened(
                tag ? new Event.Tagged(component.name(), name, commit, Optional.empty(), Optional.empty())
                        : new Event.Pushed(component.name(), name, commit, Optional.empty()),
                component, Optional.of("unread at " + commit),
                tag ? "tag " + name + " on commit " + at : "push " + at + " to " + name,
                tag ? new Cause.Tag(component.name(), name, commit)
                        : new Cause.Push(component.name(), name, commit, ""),
                OptionalLong.empty(), "",
                tag ? Optional.empty() : Optional.of(name), Optional.of(commit), Optional.empty());
    }
}
