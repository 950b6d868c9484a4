package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Sets: versions of several components that are promoted as one. */
final class SetCommands {

    private SetCommands() {}

    @Command(name = "make",
            description = "Makes a set of versions, in the order in which they are deployed. A set never changes.",
            footer = {"", "Example:", "  paseo set make evening daylight-api=1.4.3 path-board=0.9.2"})
    static final class Make extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "NAME")
        private String name = "";

        @Parameters(index = "1..*", arity = "2..*", paramLabel = "COMPONENT=VERSION")
        private List<String> members = List.of();

        Make(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            ObjectNode request = api().object().put("name", name);
            ArrayNode list = request.putArray("members");
            members.forEach(member -> {
                int at = member.indexOf('=');
                if (at < 1) {
                    throw new Failure(Failure.Kind.USAGE,
                            "“" + member + "” should be COMPONENT=VERSION, such as daylight-api=1.4.3");
                }
                list.addObject().put("component", member.substring(0, at)).put("version", member.substring(at + 1));
            });
            JsonNode set = api().post(Api.path("sets"), request);
            return print(set,
                    () -> context.out().println("Made the set " + name + " of " + String.join(", ", members) + "."));
        }
    }

    @Command(name = "promote",
            description = "Promotes all of a set as one: one gate, one record; if one fails, all of it is undone.",
            footer = {"", "Example:", "  paseo set promote evening --to production"})
    static final class Promote extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--to", required = true, paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Option(names = "--comment", description = "why; kept in the audit trail")
        private Optional<String> comment = Optional.empty();

        Promote(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            ObjectNode request = api().object().put("environment", environment);
            comment.ifPresent(words -> request.put("comment", words));
            JsonNode promotion = api().post(Api.path("sets", name, "promotions"), request);
            return print(promotion,
                    () -> context.out()
                            .println("The set " + name + " waits at the gate of " + environment + " as deployment "
                                    + promotion.path("parts").path(0).path("deployment").asString("") + "."));
        }
    }

    @Command(name = "show", description = "Shows a set and its promotions; without a name, all sets.",
            footer = {"", "Example:", "  paseo set show evening"})
    static final class Show extends ServiceCommand {
        @Parameters(arity = "0..1", paramLabel = "NAME")
        private Optional<String> name = Optional.empty();

        Show(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode found = name.map(each -> api().get(Api.path("sets", each)))
                    .orElseGet(() -> api().get(Api.path("sets")));
            return print(found, () -> {
                if (found.isArray()) {
                    Table table = new Table("SET", "VERSIONS", "MADE BY", "MADE");
                    found.forEach(set -> table.row(context.ink().strong(set.path("name").asString()),
                            String.join(", ", set.path("members").valueStream()
                                    .map(member -> member.path("component").asString() + " "
                                            + member.path("version").asString())
                                    .toList()),
                            set.path("by").asString(""), Times.exact(set.path("at"))));
                    table.print(context.out(), context.ink());
                } else {
                    one(found);
                }
            });
        }

        private void one(JsonNode set) {
            context.out().println(context.ink().strong(set.path("name").asString()) + ", made by "
                    + set.path("by").asString("") + " " + Times.exact(set.path("at")));
            set.path("members").forEach(member -> context.out()
                    .println("  " + member.path("component").asString() + " " + member.path("version").asString()));
            set.path("promotions").forEach(promotion -> {
                context.out().println();
                context.out().println("into " + promotion.path("environment").asString() + ": "
                        + context.ink().state(promotion.path("status").asString()) + ", requested by "
                        + promotion.path("requestedBy").asString() + " " + Times.exact(promotion.path("requestedAt")));
                Table table = new Table("COMPONENT", "VERSION", "DEPLOYMENT", "STATE", "WHY");
                promotion.path("parts")
                        .forEach(part -> table.row(part.path("component").asString(), part.path("version").asString(),
                                part.path("deployment").asString("not yet"),
                                context.ink().state(part.path("status").asString("not requested")),
                                part.path("reason").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }
}
