package dev.paseo.cli.command;

import dev.paseo.cli.output.Ink;
import dev.paseo.cli.output.Times;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.language.file.PipelineFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import tools.jackson.databind.JsonNode;

/** What a pipeline file says, in words. */
final class Words {

    private Words() {}

    static String of(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** A warning of the service about a file, at its place. */
    static String warning(Path file, JsonNode warning, Ink ink) {
        return at(file, warning) + ink.warn("warning: ") + warning.path("path").asString("") + " "
                + warning.path("message").asString();
    }

    /** The texts of a list, with commas. */
    static String list(JsonNode texts) {
        return StreamSupport.stream(texts.spliterator(), false).map(JsonNode::asString)
                .collect(Collectors.joining(", "));
    }

    static String lower(String word) {
        return word.toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** A decision, and in whose place it was made. */
    static String ofDecision(JsonNode decision) {
        return (decision.path("yes").asBoolean() ? "approved" : "rejected") + " by " + decision.path("by").asString()
                + (decision.has("inPlaceOf") ? " in place of " + decision.path("inPlaceOf").asString() : "")
                + (decision.path("comment").asString("").isEmpty() ? ""
                        : ": \"" + decision.path("comment").asString() + "\"")
                + ", " + Times.exact(decision.path("at"))
                + (decision.path("counts").asBoolean() ? "" : " (no longer counts)");
    }

    static String at(Path file, JsonNode problem) {
        return file + ":" + problem.path("line").asInt() + ":" + problem.path("column").asInt() + ": ";
    }

    static String of(Trigger start) {
        return switch (start) {
            case Trigger.Push(var branches, var paths) -> "a push to "
                    + patterns(branches)
                    + (paths.isEmpty() ? "" : " that changes " + patterns(paths));
            case Trigger.Tag(var pattern) -> "a tag " + pattern;
            case Trigger.Clock(String cron, String zone) -> "the clock at " + cron + " " + zone;
            case Trigger.Upstream upstream -> "a run of " + String.join(", ", upstream.components())
                    + " that "
                    + String.join(" or ", upstream.outcomes().stream().sorted().map(Trigger.RunEnd::word).toList());
            case Trigger.Live(String component, String environment) -> component + " live in " + environment;
            case Trigger.Arrival() -> "the arrival of a version";
            case Trigger.Preview(var branches) -> "a push to " + patterns(branches)
                    + ", for a preview";
        };
    }

    private static String patterns(List<BranchPattern> patterns) {
        return patterns.stream().map(BranchPattern::toString).collect(Collectors.joining(", "));
    }

    static String of(PipelineFile.Order order) {
        StringBuilder words = new StringBuilder();
        if (!order.after().isEmpty()) {
            words.append(", after ").append(String.join(", ", order.after()));
        }
        if (!order.afterAny().isEmpty()) {
            words.append(", after whatever came of ").append(String.join(", ", order.afterAny()));
        }
        if (!order.ifFailed().isEmpty()) {
            words.append(", if one failed of ").append(String.join(", ", order.ifFailed()));
        }
        return words.isEmpty() ? ", at once" : words.toString();
    }
}
