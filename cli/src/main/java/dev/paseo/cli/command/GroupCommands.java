package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.service.Api;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo group ...}. */
final class GroupCommands {

    private GroupCommands() {}

    @Command(name = "list", description = "The groups: who is in each, and which roles it gives them.",
            footer = {"", "Example:", "  paseo group list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode groups = api().get(Api.path("groups"));
            return print(groups, () -> {
                Table table = new Table("GROUP", "MEMBERS", "ROLES");
                groups.forEach(group -> table.row(group.path("name").asString(), Words.list(group.path("members")),
                        Words.list(group.path("roles"))));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "change",
            description = "Says which roles a group gives to whoever is in it; they replace those before. The group "
                    + "is made where it is new.",
            footer = {"", "Example:",
                    "  paseo group change path-team --role developer --role 'release-engineer of path-board'"})
    static final class Change extends ServiceCommand {
        @Parameters(paramLabel = "GROUP")
        private String group = "";

        @Option(names = "--role", required = true, paramLabel = "ROLE",
                description = "as for paseo account change; 'none' for none")
        private List<String> roles = List.of();

        Change(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            roles.stream().filter(role -> !role.equals("none")).forEach(request.putArray("roles")::add);
            JsonNode changed = api.put(Api.path("groups", group), request);
            String given = Words.list(changed.path("roles"));
            return print(changed,
                    () -> context.out().println(group + " gives " + (given.isEmpty() ? "no roles" : given) + "."));
        }
    }

    @Command(name = "join", description = "Puts an account into a group.",
            footer = {"", "Example:", "  paseo group join approvers approver-2"})
    static final class Join extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "GROUP")
        private String group = "";

        @Parameters(index = "1", paramLabel = "NAME")
        private String name = "";

        Join(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            api.put(Api.path("groups", group, "members", name), api.object());
            context.out().println(name + " is in " + group + ".");
            return 0;
        }
    }

    @Command(name = "leave", description = "Takes an account out of a group; it counts from that moment.",
            footer = {"", "Example:", "  paseo group leave approvers approver-2"})
    static final class Leave extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "GROUP")
        private String group = "";

        @Parameters(index = "1", paramLabel = "NAME")
        private String name = "";

        Leave(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            api().delete(Api.path("groups", group, "members", name));
            context.out().println(name + " is not in " + group + " any more.");
            return 0;
        }
    }
}
