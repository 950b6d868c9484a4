package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What somebody who may not do it oneself asks of those who may. */
final class AskCommands {

    private AskCommands() {}

    @Command(name = "for",
            description = "Asks those who may to do what you may not; they find it in their list of what waits, and "
                    + "you are told when it is done or declined.",
            footer = {"", "Examples:",
                    "  paseo ask for promote daylight-api 1.4.2 --in production --reason \"The huts wait for it\"",
                    "  paseo ask for hold daylight-api --in production --reason \"The times are wrong\""})
    static final class For extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "ACT", description = "promote, roll-back, hold or lift-hold")
        private String act = "";

        @Parameters(index = "1", paramLabel = "COMPONENT")
        private String component = "";

        @Parameters(index = "2", arity = "0..1", paramLabel = "VERSION", description = "to promote it, and only then")
        private Optional<String> version = Optional.empty();

        @Option(names = "--in", required = true, paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Option(names = "--reason", required = true, paramLabel = "TEXT", description = "why; at most 1000 characters")
        private String reason = "";

        For(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            ObjectNode request = api().object().put("act", act).put("component", component)
                    .put("environment", environment).put("words", reason);
            version.ifPresent(number -> request.put("version", number));
            JsonNode ask = api().post(Api.path("asks"), request);
            return print(ask,
                    () -> context.out().println("Ask " + ask.path("id").asString("") + " waits for one of "
                            + ask.path("asked").valueStream().map(JsonNode::asString).collect(Collectors.joining(", "))
                            + " to " + ask.path("sentence").asString() + "."));
        }
    }

    @Command(name = "list", description = "What you asked of others, and what came of it; at most 50.",
            footer = {"", "Example:", "  paseo ask list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("asks"));
            return print(all, () -> {
                if (all.isEmpty()) {
                    context.out().println("You asked nothing of others; see paseo ask for --help");
                    return;
                }
                Table table = new Table("NUMBER", "YOU ASKED TO", "WHEN", "IT", "BY", "");
                all.forEach(each -> table.row(each.path("id").asString(""), each.path("sentence").asString(),
                        Times.exact(each.path("at")),
                        each.has("outcome") ? "is " + each.path("outcome").asString() : context.ink().need("waits"),
                        each.has("outcome") ? each.path("answeredBy").asString("")
                                : each.path("asked").valueStream().map(JsonNode::asString)
                                        .collect(Collectors.joining(", ")),
                        each.has("deployment") ? "deployment " + each.path("deployment").asString("")
                                : each.path("answer").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "decline", description = "Says that what is asked of you is not done, and why.",
            footer = {"", "Example:", "  paseo ask decline 4 --reason \"Not before the snow has gone\""})
    static final class Decline extends ServiceCommand {
        @Parameters(paramLabel = "NUMBER")
        private long id;

        @Option(names = "--reason", required = true, paramLabel = "TEXT", description = "why; at most 1000 characters")
        private String reason = "";

        Decline(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode ask = api().post(Api.path("asks", Long.toString(id), "refusal"),
                    api().object().put("answer", reason));
            return print(ask, () -> context.out().println(ask.path("by").asString() + " is told."));
        }
    }

    @Command(name = "drop", description = "Asks it no more: what you asked of others.",
            footer = {"", "Example:", "  paseo ask drop 4"})
    static final class Drop extends ServiceCommand {
        @Parameters(paramLabel = "NUMBER")
        private long id;

        Drop(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            api().delete(Api.path("asks", Long.toString(id)));
            context.out().println("Ask " + id + " is dropped.");
            return 0;
        }
    }
}
