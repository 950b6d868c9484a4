package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo receiver ...}. */
final class ReceiverCommands {

    private ReceiverCommands() {}

    @Command(name = "add",
            description = "Adds a receiver of events, and prints the secret that they are signed with, this once.",
            footer = {"",
                    "Events are CloudEvents 1.0 of the CDEvents vocabulary, signed per Standard Webhooks, tried for "
                            + "a day.",
                    "",
                    "Example:",
                    "  paseo receiver add park-log --address http://127.0.0.1:7695/events --kind service.deployed "
                            + "--kind service.upgraded"})
    static final class Add extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--address", required = true, paramLabel = "URL")
        private String address = "";

        @Option(names = "--kind",
                description = "pipelinerun.started, pipelinerun.finished, artifact.packaged, artifact.published, "
                        + "service.deployed, service.upgraded; audit.head: signed heads of the audit trail, which go "
                        + "only to who names them; may be repeated; default: all others")
        private List<String> kinds = List.of();

        @Option(names = "--component", description = "whose events; may be repeated; default: all")
        private List<String> components = List.of();

        Add(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name).put("address", address);
            fill(request.putArray("kinds"), kinds);
            fill(request.putArray("components"), components);
            JsonNode added = api.post(Api.path("receivers"), request);
            return print(added, () -> context.out().println(added.path("secret").asString()));
        }

        private static void fill(ArrayNode array, List<String> words) {
            words.forEach(array::add);
        }
    }

    @Command(name = "list", description = "The receivers of events.",
            footer = {"", "Example:", "  paseo receiver list"})
    static final class ListReceivers extends ServiceCommand {
        ListReceivers(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("receivers"));
            return print(all, () -> {
                Table table = new Table("NAME", "ADDRESS", "KINDS", "COMPONENTS", "SINCE");
                all.forEach(each -> table.row(each.path("name").asString(), each.path("address").asString(),
                        words(each.path("kinds")), words(each.path("components")),
                        Times.exact(each.path("createdAt"))
                                + (each.has("stoppedAt") ? ", stopped " + Times.exact(each.path("stoppedAt")) : "")));
                table.print(context.out(), context.ink());
            });
        }

        private static String words(JsonNode words) {
            return words.isEmpty() ? "all" : String.join(", ", words.valueStream().map(JsonNode::asString).toList());
        }
    }

    @Command(name = "messages", description = "The newest messages to a receiver, with every attempt.",
            footer = {"", "Example:", "  paseo receiver messages park-log"})
    static final class Messages extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Messages(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("receivers", name, "messages"));
            return print(all, () -> {
                Table table = new Table("NUMBER", "AT", "TYPE", "STATE", "LAST ATTEMPT");
                all.forEach(each -> table.row(each.path("id").asString(""), Times.exact(each.path("createdAt")),
                        each.path("type").asString(),
                        each.path("state").asString() + (each.has("nextAt") && !each.path("attempts").isEmpty()
                                ? ", again " + Times.exact(each.path("nextAt")) : ""),
                        last(each.path("attempts"))));
                table.print(context.out(), context.ink());
            });
        }

        private static String last(JsonNode attempts) {
            if (attempts.isEmpty()) {
                return "none yet";
            }
            JsonNode last = attempts.get(attempts.size() - 1);
            return "attempt " + last.path("number").asString("") + ": "
                    + (last.has("status") ? "answered " + last.path("status").asString("")
                            : last.path("error").asString(""))
                    + " after " + last.path("millis").asString("") + " ms";
        }
    }

    @Command(name = "resend", description = "Sends a message again, whatever became of it.",
            footer = {"", "Example:", "  paseo receiver resend park-log 12"})
    static final class Resend extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "NAME")
        private String name = "";

        @Parameters(index = "1", paramLabel = "NUMBER")
        private long number;

        Resend(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode done = api.post(Api.path("receivers", name, "messages", Long.toString(number), "resend"),
                    api.object());
            return print(done, () -> context.out().println("Message " + number + " is sent again."));
        }
    }

    @Command(name = "stop", description = "Tells a receiver nothing more.",
            footer = {"", "Example:", "  paseo receiver stop park-log"})
    static final class Stop extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Stop(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode done = api().delete(Api.path("receivers", name));
            return print(done, () -> context.out().println(name + " is told nothing more."));
        }
    }
}
