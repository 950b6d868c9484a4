package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "cancel",
        description = "Cancels a run, or withdraws or undoes a deployment. A second cancel of a run ends its steps "
                + "at once.",
        footer = {"", "Examples:", "  paseo cancel daylight-api#3", "  paseo cancel deployment 7"})
final class CancelCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER", hideParamSyntax = true)
    private List<String> subject = List.of();

    CancelCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        String name = String.join(" ", subject);
        JsonNode after = switch (Subject.of(subject)) {
            case Subject.Run(String component, String number) -> api
                    .post(Api.path("runs", component, number, "cancellation"), api.object());
            case Subject.Deployment(String id) -> api.post(Api.path("deployments", id, "cancellation"), api.object());
            case Subject.Version version -> throw new Failure(Failure.Kind.USAGE,
                    "A version cannot be cancelled; name its run or deployment");
            case Subject.Passage passage -> throw new Failure(Failure.Kind.USAGE,
                    "A passage cannot be cancelled; name a deployment");
        };
        return print(after, () -> context.out()
                .println(name + " is " + context.ink().state(after.path("status").asString()) + "."));
    }
}
