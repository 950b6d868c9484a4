package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "follow",
        description = "Follows a component, an environment or a deployment: you are told how deployments of it or in "
                + "it end, and of a component which runs fail. Without a name: what you follow.",
        footer = {"", "Examples:", "  paseo follow", "  paseo follow environment production",
                "  paseo follow deployment 27 --end"})
final class FollowCommand extends ServiceCommand {

    @Parameters(index = "0", arity = "0..1", paramLabel = "WHAT", description = "component, environment or deployment")
    private Optional<String> what = Optional.empty();

    @Parameters(index = "1", arity = "0..1", paramLabel = "NAME", description = "its name, or a deployment's number")
    private Optional<String> name = Optional.empty();

    @Option(names = "--end", description = "follows it no more")
    private boolean end;

    FollowCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        if (what.isPresent() != name.isPresent()) {
            throw new Failure(Failure.Kind.USAGE, "Say both what it is and its name, such as environment production");
        }
        if (what.isPresent()) {
            String path = Api.path("following", what.get(), name.get());
            if (end) {
                api().delete(path);
            } else {
                api().put(path, api().object());
            }
        }
        JsonNode all = api().get(Api.path("following"));
        return print(all, () -> {
            if (all.isEmpty()) {
                context.out().println("You follow nothing.");
                return;
            }
            Table table = new Table("YOU FOLLOW", "");
            all.forEach(each -> table.row(each.path("what").asString(), each.path("name").asString()));
            table.print(context.out(), context.ink());
        });
    }
}
