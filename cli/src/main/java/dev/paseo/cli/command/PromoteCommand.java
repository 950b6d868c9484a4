package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@Command(name = "promote", description = "Requests a version into an environment.",
        footer = {"", "Example:", "  paseo promote daylight-api 1.4.1 --to production"})
final class PromoteCommand extends ServiceCommand {

    @Parameters(index = "0", paramLabel = "COMPONENT")
    private String component = "";

    @Parameters(index = "1", paramLabel = "VERSION")
    private String version = "";

    @Option(names = "--to", required = true, paramLabel = "ENVIRONMENT")
    private String environment = "";

    @Option(names = "--comment", description = "kept with the request and in the audit trail")
    private Optional<String> comment = Optional.empty();

    @Option(names = "--emergency", paramLabel = "REASON",
            description = "past unmet criteria, hold and closed; reviewed by somebody else within three days")
    private Optional<String> emergency = Optional.empty();

    @Option(names = "--plan", description = "only says what would happen, and in which order")
    private boolean plan;

    PromoteCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        if (plan) {
            JsonNode planned = api
                    .get(Api.path("places", component, environment, "plan") + "?version=" + Api.encode(version));
            return print(planned, () -> {
                if (planned.has("reason")) {
                    context.out().println(component + " " + version + " cannot be deployed to " + environment + ": "
                            + planned.path("reason").asString());
                }
                cautions(planned);
                PlanLines.of(planned.path("plan")).forEach(context.out()::println);
                planned.path("gate").forEach(each -> context.out().println("gate: "
                        + context.ink().state(each.path("state").asString()) + ", " + each.path("name").asString()
                        + ": "
                        + each.path("sentence").asString()));
                if (!planned.path("onward").isEmpty()) {
                    context.out().println("From there it goes on by itself to " + planned.path("onward").valueStream()
                            .map(JsonNode::asString).collect(Collectors.joining(", then ")) + ".");
                }
            });
        }
        if (!wantsJson()) {
            cautions(api.get(Api.path("places", component, environment, "plan") + "?version=" + Api.encode(version)));
        }
        ObjectNode request = api.object().put("component", component).put("version", version).put("environment",
                environment);
        comment.ifPresent(words -> request.put("comment", words));
        emergency.ifPresent(words -> request.put("emergency", words));
        JsonNode deployment = api.post(Api.path("deployments"), request);
        return print(deployment,
                () -> context.out()
                        .println("Deployment " + deployment.path("id").asString("") + " of " + component + " "
                                + version + " into " + environment + " is "
                                + context.ink().state(deployment.path("status").asString())
                                + ". See it: paseo show deployment " + deployment.path("id").asString("")));
    }

    /** What it goes past. */
    private void cautions(JsonNode planned) {
        planned.path("cautions")
                .forEach(each -> context.out().println(context.ink().warn("note: ") + each.asString() + "."));
    }
}
