package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import java.util.List;
import java.util.stream.StreamSupport;
import tools.jackson.databind.JsonNode;

/** Events and the triggers that were considered, for people. */
final class EventLines {

    private EventLines() {}

    static String what(JsonNode event) {
        String kind = event.path("kind").asString();
        return (kind.equals("run") || kind.equals("live") ? "" : event.path("component").asString() + ": ")
                + event.path("sentence").asString();
    }

    /** The runs that it started, or "nothing". */
    static String started(JsonNode event) {
        List<String> runs = StreamSupport.stream(event.path("considered").spliterator(), false)
                .filter(each -> each.has("run"))
                .map(EventLines::run).toList();
        return runs.isEmpty() ? "nothing" : String.join(", ", runs);
    }

    private static String run(JsonNode considered) {
        return considered.path("component").asString() + "#" + considered.path("run").asString("");
    }

    /** The event, and below it every trigger with what it made of it. */
    static void print(Context context, JsonNode event) {
        context.out()
                .println(context.ink().strong(what(event)) + context.ink().quiet(", " + Times.exact(event.path("at"))));
        if (event.has("reason")) {
            context.out().println("  nothing started: " + event.path("reason").asString());
        }
        for (JsonNode each : event.path("considered")) {
            String trigger = each.path("component").asString() + ", " + each.path("trigger").asString();
            context.out().println("  " + (each.has("run") ? "started " + run(each) : "started nothing")
                    + context.ink().quiet(" (" + trigger + ")")
                    + (each.has("reason") ? ": " + each.path("reason").asString() : ""));
        }
    }
}
