package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.Locale;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** What other rules would have done to what went through gates lately. */
final class DryRunLines {

    private static final Map<String, String> OUTCOMES = Map.of("stopped", "stopped", "waited", "would wait longer",
            "let-through", "let through", "unknown", "cannot be told");
    private static final Map<String, String> GATES = Map.of("to-enter", "into ", "to-go-on", "onward from ", "rollback",
            "back in ");

    private DryRunLines() {}

    static JsonNode ask(Api api, String text, int days) {
        return api.post(Api.path("environments", "dry-run"), api.object().put("text", text).put("days", days));
    }

    static void print(Context context, JsonNode view, int days) {
        if (view.path("environments").isEmpty()) {
            context.out().println("No gate of an environment that is there changes.");
        }
        view.path("environments").forEach(each -> environment(context, each, days));
    }

    private static void environment(Context context, JsonNode each, int days) {
        context.out().println();
        context.out().println(sentence(each, days));
        each.path("more").forEach(text -> context.out().println("  asked more: " + text.asString()));
        each.path("less").forEach(text -> context.out().println("  asked less: " + text.asString()));
        if (each.path("found").isEmpty()) {
            return;
        }
        Table table = new Table("WHICH", "WHEN", "IT WOULD BE", "WHY");
        each.path("found").forEach(found -> table.row(which(found, each.path("environment").asString()),
                Times.exact(found.path("at")),
                OUTCOMES.getOrDefault(found.path("outcome").asString(), found.path("outcome").asString()),
                String.join(" ", found.path("sentences").valueStream().map(JsonNode::asString).toList())));
        table.print(context.out(), context.ink());
    }

    private static String which(JsonNode found, String environment) {
        return found.path("component").asString() + " " + found.path("version").asString() + " "
                + GATES.getOrDefault(found.path("gate").asString(), "") + environment
                + (found.has("deployment") ? " (deployment " + found.path("deployment").asLong() + ")" : "");
    }

    /** Of so many that went through, how many would not have as they did. */
    static String sentence(JsonNode each, int days) {
        long stopped = count(each, "stopped");
        long waited = count(each, "waited");
        long through = count(each, "let-through");
        long unknown = count(each, "unknown");
        int went = each.path("went").asInt();
        int ended = each.path("ended").asInt();
        StringBuilder said = new StringBuilder(each.path("environment").asString()).append(": ");
        said.append(each.path("all").asBoolean() ? "over the last " + days + " days " : "of the newest of each gate ");
        said.append(String.format(Locale.ROOT, "these rules would have stopped %d of %d that went through the gates "
                + "that change, and kept %d waiting longer.", stopped, went, waited));
        if (ended > 0) {
            said.append(String.format(Locale.ROOT, " Of %d that ended there, they would have let %d through.", ended,
                    through));
        }
        if (each.path("emergencies").asInt() > 0) {
            said.append(" ").append(each.path("emergencies").asInt()).append(" went as emergencies, past any gate.");
        }
        return said.append(unknown > 0 ? " Of " + unknown + " it cannot be told." : "").toString();
    }

    private static long count(JsonNode each, String outcome) {
        return each.path("found").valueStream().filter(found -> found.path("outcome").asString().equals(outcome))
                .count();
    }
}
