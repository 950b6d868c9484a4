package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.service.Api;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "find",
        description = "Finds components, versions, runs, deployments, environments, commits, artifacts and accounts by "
                + "how they are named; at most 20. Exits 1 where nothing is.",
        footer = {"", "Examples:", "  paseo find daylight", "  paseo find daylight-api 1.4", "  paseo find c0ffee12"})
final class FindCommand extends ServiceCommand {

    @Parameters(arity = "1..*", paramLabel = "TEXT",
            description = "the beginning or a part of a name, NAME VERSION, NAME#RUN, deployment NUMBER, or at least 4 "
                    + "characters of a commit or a SHA-256")
    private List<String> words = List.of();

    FindCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        String text = String.join(" ", words);
        JsonNode found = api().get(Api.path("found") + "?text=" + Api.encode(text));
        print(found, () -> {
            if (found.isEmpty()) {
                context.out().println("Nothing is named “" + text + "”.");
                return;
            }
            Table table = new Table("WHAT", "NAME", "WHAT IT IS");
            found.forEach(each -> table.row(each.path("thing").asString(), each.path("name").asString(),
                    each.path("sentence").asString()));
            table.print(context.out(), context.ink());
        });
        return found.isEmpty() ? 1 : 0;
    }
}
