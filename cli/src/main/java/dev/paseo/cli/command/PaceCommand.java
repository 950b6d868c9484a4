package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.nio.file.Path;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "pace", description = {
        "How long versions take from what began them to going live, and where the time goes; how often, and how many "
                + "were gone back from.",
        "Medians and 90 % by nearest rank. Of places and labels, never of people."},
        footer = {"", "Examples:", "  paseo pace", "  paseo pace production --component daylight-api --since 30d",
                "  paseo pace production --slowest", "  paseo pace --into pace.csv"})
final class PaceCommand extends ServiceCommand {

    @Parameters(arity = "0..1", paramLabel = "ENVIRONMENT", description = "only this one")
    private Optional<String> environment = Optional.empty();

    @Option(names = "--component", description = "only this one")
    private Optional<String> component = Optional.empty();

    @Option(names = "--label", paramLabel = "VALUE", description = "only components of which a label has this value")
    private Optional<String> label = Optional.empty();

    @Option(names = "--since", paramLabel = "TIME", defaultValue = "90d",
            description = "ISO 8601, or how long ago; default: ${DEFAULT-VALUE}")
    private String since = "90d";

    @Option(names = "--until", paramLabel = "TIME", description = "likewise; default: now")
    private Optional<String> until = Optional.empty();

    @Option(names = "--slowest", description = "the promotions behind the figures, those that took longest first")
    private boolean slowest;

    @Option(names = "--into", paramLabel = "FILE", description = "writes them all to a table (CSV, RFC 4180)")
    private Optional<Path> into = Optional.empty();

    PaceCommand(Context context) {
        super(context);
    }

    private String query() {
        Map<String, Optional<String>> asked = new LinkedHashMap<>();
        asked.put("since", Optional.of(RestraintCommands.past(since).toString()));
        asked.put("until", until.map(time -> RestraintCommands.past(time).toString()));
        asked.put("environment", environment);
        asked.put("component", component);
        asked.put("label", label);
        return Api.query(asked);
    }

    @Override
    public Integer call() {
        if (into.isPresent()) {
            return table(into.get());
        }
        if (slowest) {
            JsonNode slow = api().get(Api.path("pace", "lead-times") + query());
            return print(slow, () -> slow(slow));
        }
        JsonNode pace = api().get(Api.path("pace") + query());
        return print(pace, () -> {
            if (pace.path("environments").isEmpty()) {
                context.out().println("nothing went live in this time");
                return;
            }
            Table table = new Table("ENVIRONMENT", "WENT LIVE", "A WEEK", "MEDIAN", "90 %", "MOST OF IT", "FAILED",
                    "GONE BACK FROM", "MENDED IN");
            pace.path("environments").forEach(each -> table.row(context.ink().strong(each.path("environment")
                    .asString()), each.path("live").asString(""), each.path("perWeek").asString(""),
                    length(each.path("median")), length(each.path("ninety")), most(each.path("parts")),
                    each.path("failed").asString(""), each.path("wentBack").asString(""),
                    length(each.path("mended"))));
            table.print(context.out(), context.ink());
            pace.path("environments").forEach(this::waitedFor);
        });
    }

    /** Groups, never persons. */
    private void waitedFor(JsonNode environment) {
        environment.path("waitedFor").forEach(each -> context.out().println(context.ink().quiet(environment
                .path("environment").asString() + " waited for " + each.path("asked").asString() + ": "
                + length(each.path("seconds")) + " in " + each.path("count").asString("") + ", on average "
                + Times.length(Duration.ofSeconds(each.path("seconds").asLong() / each.path("count").asLong(1))))));
    }

    private void slow(JsonNode slow) {
        Table table = new Table("DEPLOYMENT", "VERSION", "ENVIRONMENT", "LIVE", "TOOK", "MOST OF IT", "");
        slow.forEach(each -> table.row(each.path("deployment").asString(""), context.ink().strong(
                each.path("component").asString()) + " " + each.path("version").asString(),
                each.path("environment").asString(), Times.exact(each.path("live")), length(each.path("seconds")),
                most(each.path("parts")), each.has("badFor") ? context.ink().bad("gone back from") : ""));
        table.print(context.out(), context.ink());
    }

    private static String length(JsonNode seconds) {
        return seconds.isMissingNode() ? "" : Times.length(Duration.ofSeconds(seconds.asLong()));
    }

    /** The part that took most, in words. */
    private static String most(JsonNode parts) {
        JsonNode most = parts.path(0);
        long all = 0;
        for (JsonNode part : parts) {
            all += part.path("seconds").asLong();
            most = part.path("seconds").asLong() > most.path("seconds").asLong() ? part : most;
        }
        return all == 0 ? "" : Math.round(100.0 * most.path("seconds").asLong() / all) + " % "
                + words(most.path("part").asString());
    }

    private static String words(String part) {
        return switch (part) {
            case "committed" -> "committed and not yet asked to be built";
            case "closed" -> "waiting while it was closed";
            case "held" -> "held";
            case "queue" -> "waiting for another deployment";
            case "turn" -> "waiting for its turn to be built";
            case "agents" -> "waiting for agents";
            case "building" -> "building";
            case "before" -> "in the environments before";
            case "people" -> "waiting for people";
            case "time" -> "waiting until live long enough";
            default -> "deploying";
        };
    }

    private int table(Path file) {
        WholeFile.write(file, out -> api().copy(Api.path("pace", "table") + query(), out), part -> {});
        context.out().println(file.toString());
        return 0;
    }
}
