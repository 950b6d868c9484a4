package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo agent ...}. */
final class AgentCommands {

    private AgentCommands() {}

    @Command(name = "enrol",
            description = "Prints a one-time token, good for an hour, with which a process becomes this agent.",
            footer = {"", "Examples:", "  paseo agent enrol valley-house --host valley-house",
                    "  paseo agent enrol builder-2 --offer jdk25 --lines", "  paseo agent enrol builder-3 --untrusted",
                    "",
                    "An agent of this name that is there already is for what is said here at once; its secret stays "
                            + "until the token is used."})
    static final class Enrol extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--host", description = "the host whose deployments it carries out; without it, it runs stages")
        private Optional<String> host = Optional.empty();

        @Option(names = "--offer", paramLabel = "WORD",
                description = "what it offers to stages that want it; may be given several times")
        private List<String> offers = List.of();

        @Option(names = "--untrusted",
                description = "it also gets work of branches that are not trusted, and previews, as far as its "
                        + "walls hold them (paseo agent list)")
        private boolean untrusted;

        @Option(names = "--lines",
                description = "prints shell lines to paste on the agent's machine instead: they fetch "
                        + "the agent from the service, check its digest, and start it")
        private boolean lines;

        Enrol(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name);
            host.ifPresent(value -> request.put("host", value));
            request.put("untrusted", untrusted);
            offers.forEach(request.putArray("offers")::add);
            JsonNode invitation = api.post(Api.path("agents"), request);
            return print(invitation, () -> {
                if (lines) {
                    invitation.path("lines").forEach(line -> context.out().println(line.asString()));
                } else {
                    context.out().println(invitation.path("token").asString());
                }
            });
        }
    }

    @Command(name = "list", description = "The agents: what each is for, whether it is there, and what it has to do.",
            footer = {"", "Example:", "  paseo agent list"})
    static final class ListAgents extends ServiceCommand {
        ListAgents(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode agents = api().get(Api.path("agents"));
            return print(agents, () -> {
                Table table = new Table("AGENT", "FOR", "OFFERS", "UNTRUSTED WORK", "WALLS", "STATE", "WORKING ON",
                        "LAST CONTACT");
                agents.forEach(agent -> table.row(agent.path("name").asString(),
                        agent.has("host") ? "host " + agent.path("host").asString() : "stages",
                        Words.list(agent.path("offers")), untrusted(agent),
                        agent.path("walls").asString("not told yet"), state(agent), agent.path("working").asString(""),
                        Times.exact(agent.path("lastContact"))));
                table.print(context.out(), context.ink());
            });
        }

        private static String untrusted(JsonNode agent) {
            if (!agent.path("untrusted").asBoolean()) {
                return "no";
            }
            if (!agent.has("walls")) {
                return "not told yet";
            }
            return agent.path("walled").asBoolean() ? "yes" : "no: its walls do not hold it";
        }

        private static String state(JsonNode agent) {
            return (agent.path("present").asBoolean() ? "present" : "away")
                    + (agent.path("drained").asBoolean() ? ", drained" : "");
        }
    }

    @Command(name = "renew",
            description = "Lets an agent take a new secret, within a minute; what it works on goes on. After 90 "
                    + "days it does so by itself.",
            footer = {"", "Example:", "  paseo agent renew builder"})
    static final class Renew extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Renew(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode agent = api.post(Api.path("agents", name, "renewal"), api.object());
            return print(agent, () -> context.out().println(name + " takes a new secret when it looks next"
                    + (agent.path("present").asBoolean() ? "."
                            : "; it is away now, and keeps its old one until then.")));
        }
    }

    @Command(name = "drain", description = "Lets an agent finish what it has and take nothing new.",
            footer = {"", "Example:", "  paseo agent drain builder"})
    static final class Drain extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Drain(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode agent = api.put(Api.path("agents", name, "drain"), api.object());
            return print(agent, () -> context.out()
                    .println(name + " takes nothing new; it works on " + agent.path("working").asString("") + " now."));
        }
    }

    @Command(name = "return", description = "Lets a drained agent take work again.",
            footer = {"", "Example:", "  paseo agent return builder"})
    static final class Return extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Return(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode agent = api().delete(Api.path("agents", name, "drain"));
            return print(agent, () -> context.out().println(name + " takes work again."));
        }
    }
}
