package dev.paseo.cli.command;

import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;

/** The plan of a deployment, a line for each part, what became of it before each. */
final class PlanLines {

    private PlanLines() {}

    static List<String> of(JsonNode plan) {
        List<String> lines = new ArrayList<>();
        plan.forEach(part -> {
            String mark = switch (part.path("state").asString()) {
                case "done" -> "done    ";
                case "now" -> "now     ";
                case "broken" -> "failed  ";
                case "left" -> "not done";
                default -> "        ";
            };
            lines.add("  " + mark + " " + (lines.size() + 1) + ". " + words(part));
        });
        return lines;
    }

    private static String words(JsonNode part) {
        String hosts = String.join(", ", part.path("hosts").valueStream().map(JsonNode::asString).toList());
        String length = length(part.path("seconds").asLong(0));
        return switch (part.path("what").asString()) {
            case "once-before" -> "once, before the first host";
            case "install" -> "deploy to and check " + hosts;
            case "verify" -> "check " + hosts + ", which has it already";
            case "pause" -> "wait " + length;
            case "traffic" -> part.path("share").asInt() + " % of the traffic to it";
            case "watch" -> "keep checking for " + length;
            case "facts" -> "go on if " + part.path("name").asString();
            case "question" -> "ask whether it goes on";
            case "once-after" -> "once, after the last host";
            case "whole" -> "check the whole";
            case "live" -> "live";
            case "test" -> "test: " + part.path("name").asString();
            case "settled" -> "the walk goes on";
            case "clear" -> "remove what was before from " + hosts;
            default -> part.path("what").asString();
        };
    }

    private static String length(long seconds) {
        return seconds % 3600 == 0 && seconds > 0 ? seconds / 3600 + " h"
                : seconds % 60 == 0 && seconds > 0 ? seconds / 60 + " min" : seconds + " s";
    }
}
