package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "shifts", description = {
        "When a stage, or the deployments into an environment, became slower or faster, or began to fail or ceased to; "
                + "and what was otherwise from then on.",
        "That is: agents, the pipeline file, pieces, upstream versions, settings, secrets, hosts. Of the newest 200. "
                + "What is otherwise need not be why."},
        footer = {"", "Examples:", "  paseo shifts daylight-api --stage unit",
                "  paseo shifts daylight-api --in production"})
final class ShiftsCommand extends ServiceCommand {

    @Parameters(paramLabel = "COMPONENT")
    private String component = "";

    @ArgGroup(multiplicity = "1")
    private Of of = new Of();

    /** One of the two. */
    static final class Of {
        @Option(names = "--stage", required = true, description = "a stage of its runs")
        private Optional<String> stage = Optional.empty();

        @Option(names = "--in", required = true, paramLabel = "ENVIRONMENT",
                description = "its deployments into this environment")
        private Optional<String> environment = Optional.empty();
    }

    ShiftsCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Map<String, Optional<String>> asked = new LinkedHashMap<>();
        asked.put("component", Optional.of(component));
        asked.put("stage", of.stage);
        asked.put("environment", of.environment);
        JsonNode answer = api().get(Api.path("pace", "shifts") + Api.query(asked));
        return print(answer, () -> {
            JsonNode points = answer.path("points");
            if (points.isEmpty()) {
                context.out().println("there was none yet");
                return;
            }
            context.out().println(context.ink().quiet("of the newest " + points.size() + ", since "
                    + Times.exact(points.path(0).path("at"))));
            if (answer.path("shifts").isEmpty()) {
                context.out().println("It did not move by more than it varies.");
            }
            answer.path("shifts").forEach(shift -> shift(shift, points));
        });
    }

    private void shift(JsonNode shift, JsonNode points) {
        JsonNode first = points.path(shift.path("point").asInt());
        context.out().println(words(shift) + context.ink().quiet(", since "
                + (of.stage.isPresent() ? "run " + component + "#" : "deployment ") + first.path("number").asString("")
                + " of " + first.path("version").asString() + ", " + Times.exact(shift.path("at"))));
        if (shift.path("differences").isEmpty()) {
            context.out().println("  nothing that is known was otherwise before");
        }
        shift.path("differences").forEach(each -> context.out().println("  " + context.ink().strong(each.path("fact")
                .asString()) + ": " + values(each.path("before")) + "; since then " + values(each.path("after"))));
    }

    private String words(JsonNode shift) {
        JsonNode before = shift.path("before");
        JsonNode after = shift.path("after");
        return switch (shift.path("kind").asString()) {
            case "slower" -> context.ink().bad("slower: ") + StagesCommand.length(after) + " instead of "
                    + StagesCommand.length(before);
            case "faster" -> context.ink().good("faster: ") + StagesCommand.length(after) + " instead of "
                    + StagesCommand.length(before);
            case "fails-more" -> context.ink().bad("fails more often: ") + percent(after) + " instead of "
                    + percent(before);
            default -> context.ink().good("fails less often: ") + percent(after) + " instead of " + percent(before);
        };
    }

    private static String percent(JsonNode share) {
        return Math.round(share.asDouble()) + " %";
    }

    private static String values(JsonNode values) {
        return values.isEmpty() ? "it was not there" : values.valueStream().map(each -> each.path("value").asString()
                + " (" + each.path("count").asString("") + " of " + each.path("of").asString("") + ")")
                .collect(Collectors.joining(", "));
    }
}
