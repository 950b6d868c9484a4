package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.node.ObjectNode;

/** Commands with which a service is set up: environments, accounts, groups, agents. */
final class SetUpCommands {

    private SetUpCommands() {}

    @Command(name = "add", description = "Adds an account; its password is read from standard input.",
            footer = {"", "Example:", "  paseo account add tester --role tester --group testers --address tester@park.example < password.txt"})
    static final class AddAccount extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--role", description = "viewer, developer, tester, approver, release-engineer, operator, auditor or administrator")
        private List<String> roles = List.of();

        @Option(names = "--group", description = "a group to join; made where it is new")
        private List<String> groups = List.of();

        @Option(names = "--address", description = "a verified mail address; ties the account to commit authors")
        private List<String> addresses = List.of();

        AddAccount(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name).put("password", StandardInput.line(context));
            roles.forEach(request.putArray("roles")::add);
            groups.forEach(request.putArray("groups")::add);
            addresses.forEach(request.putArray("addresses")::add);
            api.post(Api.path("accounts"), request);
            context.out().println("Added " + name + ".");
            return 0;
        }
    }

    @Command(name = "join", description = "Puts an account into a group.", footer = {"", "Example:", "  paseo group join approvers approver-2"})
    static final class JoinGroup extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "GROUP")
        private String group = "";

        @Parameters(index = "1", paramLabel = "NAME")
        private String name = "";

        JoinGroup(Context context) {
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
    static final class LeaveGroup extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "GROUP")
        private String group = "";

        @Parameters(index = "1", paramLabel = "NAME")
        private String name = "";

        LeaveGroup(Context context) {
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
