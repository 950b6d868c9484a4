package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Deputies: who decides in another's place for a time. */
final class DeputyCommands {

    private DeputyCommands() {}

    @Command(name = "name",
            description = "Lets another decide and tick in your place for a time; the two of you count once.",
            footer = {"", "Example:", "  paseo deputy name approver-2 --until 2026-12-04T18:00:00Z"})
    static final class Name extends ServiceCommand {
        @Parameters(paramLabel = "ACCOUNT", description = "who decides")
        private String deputy = "";

        @Option(names = "--until", required = true, paramLabel = "TIME",
                description = "ISO 8601; at most 366 days ahead")
        private String until = "";

        @Option(names = "--from", paramLabel = "TIME", description = "ISO 8601; default: now")
        private Optional<String> from = Optional.empty();

        @Option(names = "--for", paramLabel = "ACCOUNT",
                description = "in whose place; default: yours. For others only who manages accounts may")
        private Optional<String> account = Optional.empty();

        Name(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            ObjectNode request = api().object().put("deputy", deputy).put("until",
                    RestraintCommands.moment(until).toString());
            from.ifPresent(begin -> request.put("from", RestraintCommands.moment(begin).toString()));
            account.ifPresent(name -> request.put("account", name));
            JsonNode all = api().post(Api.path("deputies"), request);
            return print(all, () -> context.out().println(deputy + " decides in "
                    + account.map(name -> name + "'s").orElse("your") + " place until " + until + "."));
        }
    }

    @Command(name = "list",
            description = "Lists your deputies and whose deputy you are; all of them for who manages accounts.",
            footer = {"", "Example:", "  paseo deputy list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("deputies"));
            return print(all, () -> {
                if (all.isEmpty()) {
                    context.out().println("No deputy is named; see paseo deputy name --help");
                    return;
                }
                Table table = new Table("NUMBER", "IN THE PLACE OF", "DECIDES", "FROM", "UNTIL", "NAMED BY");
                all.forEach(each -> table.row(each.path("id").asString(""), each.path("account").asString(),
                        context.ink().strong(each.path("deputy").asString()), Times.exact(each.path("from")),
                        Times.exact(each.path("until")), each.path("setBy").asString()));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "end", description = "Ends a deputy's time at once.",
            footer = {"", "Example:", "  paseo deputy end 2"})
    static final class End extends ServiceCommand {
        @Parameters(paramLabel = "NUMBER", description = "as paseo deputy list gives it")
        private long number;

        End(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            api().delete(Api.path("deputies", Long.toString(number)));
            context.out().println("It has ended.");
            return 0;
        }
    }
}
