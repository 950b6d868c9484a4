package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "hand-on",
        description = "Lets another decide about a waiting deployment in your place; the two of you count once.",
        footer = {"", "Example:", "  paseo hand-on deployment 7 --to approver-2"})
final class HandOnCommand extends ServiceCommand {

    @Parameters(arity = "1..2", paramLabel = "deployment NUMBER", hideParamSyntax = true,
            description = "such as: deployment 7")
    private List<String> subject = List.of();

    @Option(names = "--to", required = true, paramLabel = "ACCOUNT", description = "who decides")
    private String to = "";

    HandOnCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        String id = Subject.deployment(subject).id();
        JsonNode after = api().post(Api.path("deployments", id, "handover"), api().object().put("to", to));
        return print(after, () -> context.out().println(to + " may decide about deployment " + id + " in your place."));
    }
}
