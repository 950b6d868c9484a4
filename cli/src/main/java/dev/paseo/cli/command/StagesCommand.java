package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "stages", description = {
        "How long the stages of runs take, how often they fail, and which are tried again: where the time of builds "
                + "goes.",
        "Flaky: an attempt failed and a later one of the same run passed, with the same commit and inputs."},
        footer = {"", "Examples:", "  paseo stages", "  paseo stages daylight-api --since 30d",
                "  paseo stages --order flakiest --limit 10"})
final class StagesCommand extends ServiceCommand {

    @Parameters(arity = "0..1", paramLabel = "COMPONENT", description = "only this one")
    private Optional<String> component = Optional.empty();

    @Option(names = "--label", paramLabel = "VALUE", description = "only components of which a label has this value")
    private Optional<String> label = Optional.empty();

    @Option(names = "--since", paramLabel = "TIME", defaultValue = "90d",
            description = "ISO 8601, or how long ago; default: ${DEFAULT-VALUE}")
    private String since = "90d";

    @Option(names = "--order", defaultValue = "spent",
            description = "what comes first: spent (all attempts together), slowest (by the median), flakiest, "
                    + "retried, failing; default: ${DEFAULT-VALUE}")
    private String order = "spent";

    @Option(names = "--limit", defaultValue = "30", description = "1 to 500; default: ${DEFAULT-VALUE}")
    private int limit = 30;

    StagesCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Map<String, Optional<String>> asked = new LinkedHashMap<>();
        asked.put("component", component);
        asked.put("label", label);
        asked.put("since", Optional.of(RestraintCommands.past(since).toString()));
        asked.put("order", Optional.of(order));
        asked.put("limit", Optional.of(Integer.toString(limit)));
        JsonNode answer = api().get(Api.path("pace", "stages") + Api.query(asked));
        return print(answer, () -> {
            if (answer.path("stages").isEmpty()) {
                context.out().println("no stage ended in this time");
                return;
            }
            Table table = new Table("COMPONENT", "STAGE", "RUNS", "MEDIAN", "90 %", "TOGETHER", "FAILED", "FLAKY",
                    "TRIED AGAIN");
            answer.path("stages").forEach(each -> table.row(each.path("component").asString(), context.ink()
                    .strong(each.path("stage").asString()), each.path("runs").asString(""),
                    length(each.path("median")), length(each.path("ninety")), length(each.path("spent")),
                    share(each, "failed"), share(each, "flaky"), each.path("retried").asString("")));
            table.print(context.out(), context.ink());
            context.out().println(context.ink().quiet("since " + Times.exact(answer.path("since"))));
        });
    }

    private static String share(JsonNode stage, String name) {
        long count = stage.path(name).asLong();
        return count == 0 ? "0" : count + " (" + Math.round(100.0 * count / stage.path("runs").asLong()) + " %)";
    }

    /** In seconds with a digit where it is short. */
    static String length(JsonNode seconds) {
        if (seconds.isMissingNode()) {
            return "";
        }
        double value = seconds.asDouble();
        return value < 10 ? String.format(Locale.ROOT, "%.1f s", value)
                : Times.length(Duration.ofSeconds(Math.round(value)));
    }
}
