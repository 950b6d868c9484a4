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

/** {@code paseo account ...}. */
final class AccountCommands {

    private static final String ROLES = "ROLE, or 'ROLE in ENVIRONMENT', 'ROLE of COMPONENT', 'ROLE in ENVIRONMENT "
            + "of COMPONENT'; roles are viewer, developer, tester, approver, publisher, "
            + "release-engineer, operator, auditor and administrator";

    private AccountCommands() {}

    @Command(name = "add", description = {
            "Adds an account.",
            "Prints a one-time code with which its owner sets a password (paseo password --code); with --password "
                    + "the password is read from standard input instead."},
            footer = {"", "Examples:",
                    "  paseo account add tester --role tester --group testers --address tester@park.example",
                    "  paseo account add night-shift --role 'release-engineer in staging' --password < password.txt"})
    static final class Add extends ServiceCommand {
        @Parameters(paramLabel = "NAME", description = "small letters, digits, dots and dashes, at most 63")
        private String name = "";

        @Option(names = "--role", paramLabel = "ROLE", description = ROLES)
        private List<String> roles = List.of();

        @Option(names = "--group", description = "a group to join; made where it is new")
        private List<String> groups = List.of();

        @Option(names = "--address",
                description = "a verified mail address; ties the account to the commits of that address")
        private List<String> addresses = List.of();

        @Option(names = "--password", description = "read the password from standard input: 10 to 200 characters")
        private boolean password;

        Add(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name);
            if (password) {
                request.put("password", StandardInput.line(context));
            }
            roles.forEach(request.putArray("roles")::add);
            groups.forEach(request.putArray("groups")::add);
            addresses.forEach(request.putArray("addresses")::add);
            JsonNode added = api.post(Api.path("accounts"), request);
            return print(added, () -> {
                context.out().println("Added " + name + ".");
                added.path("code").asStringOpt().ifPresent(code -> sayCode(context, api, name, code));
            });
        }
    }

    private static void sayCode(Context context, Api api, String name, String code) {
        context.out().println(name + " sets a password with this code, once, within a day:");
        context.out().println("  paseo password " + api.address() + " --code " + code);
    }

    @Command(name = "list",
            description = "The accounts: what each may, in which groups it is, and whether it may sign in.",
            footer = {"", "Example:", "  paseo account list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode accounts = api().get(Api.path("accounts"));
            return print(accounts, () -> {
                Table table = new Table("ACCOUNT", "ROLES", "GROUPS", "ADDRESSES", "TOKENS", "SIGNED IN LAST", "STATE");
                accounts.forEach(account -> table.row(account.path("name").asString(),
                        Words.list(account.path("roles")), Words.list(account.path("groups")),
                        Words.list(account.path("addresses")),
                        account.path("tokens").asString(),
                        account.has("signedInAt") ? Times.exact(account.path("signedInAt")) : "never", state(account)));
                table.print(context.out(), context.ink());
            });
        }
    }

    private static String state(JsonNode account) {
        JsonNode disabled = account.path("disabled");
        return disabled.isMissingNode() ? "active" : "disabled by " + disabled.path("by").asString() + ", "
                + Times.exact(disabled.path("at")) + ": " + disabled.path("reason").asString();
    }

    @Command(name = "change", description = {
            "Changes an account's roles, groups or addresses. Each option that is given replaces all of its kind; "
                    + "'none' leaves none.",
            "What changes counts at once, at gates that wait too."},
            footer = {"", "Examples:", "  paseo account change tester --role tester --role 'approver in staging'",
                    "  paseo account change tester --group none",
                    "  paseo account change tester --add-address tester@elsewhere.example"})
    static final class Change extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--role", paramLabel = "ROLE", description = ROLES)
        private List<String> roles = List.of();

        @Option(names = "--group", description = "a group to be in; made where it is new")
        private List<String> groups = List.of();

        @Option(names = "--address", description = "a verified mail address")
        private List<String> addresses = List.of();

        @Option(names = "--add-address", paramLabel = "ADDRESS",
                description = "a verified mail address besides those that are there")
        private List<String> more = List.of();

        Change(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            put(request, "roles", roles);
            put(request, "groups", groups);
            put(request, "addresses", addresses);
            if (!more.isEmpty()) {
                ArrayNode all = request.withArray("addresses");
                if (addresses.isEmpty()) {
                    api.get(Api.path("accounts", name)).path("addresses").forEach(all::add);
                }
                more.forEach(all::add);
            }
            JsonNode account = api.put(Api.path("accounts", name), request);
            return print(account,
                    () -> context.out()
                            .println(name + ": roles " + orNone(Words.list(account.path("roles"))) + "; groups "
                                    + orNone(Words.list(account.path("groups")))
                                    + "; addresses " + orNone(Words.list(account.path("addresses"))) + "."));
        }

        private static void put(ObjectNode request, String field, List<String> values) {
            if (!values.isEmpty()) {
                values.stream().filter(value -> !value.equals("none")).forEach(request.putArray(field)::add);
            }
        }
    }

    private static String orNone(String words) {
        return words.isEmpty() ? "none" : words;
    }

    @Command(name = "disable", description = {
            "Disables an account at once: its sessions and open pages end, its tokens are revoked, no gate asks it "
                    + "any more.",
            "What it approved stays, with its name."},
            footer = {"", "Example:", "  paseo account disable tester --reason 'left the park'"})
    static final class Disable extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--reason", required = true, description = "why; it stands in the list and in the audit trail")
        private String reason = "";

        Disable(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode account = api.put(Api.path("accounts", name, "disabled"), api.object().put("reason", reason));
            return print(account, () -> context.out()
                    .println(name + " is disabled: signed out everywhere, and its tokens are revoked."));
        }
    }

    @Command(name = "enable", description = "Lets a disabled account sign in again. Its tokens stay revoked.",
            footer = {"", "Example:", "  paseo account enable tester"})
    static final class Enable extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Enable(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode account = api().delete(Api.path("accounts", name, "disabled"));
            return print(account, () -> context.out().println(name + " may sign in again."));
        }
    }

    @Command(name = "code",
            description = "Prints a one-time code, good for a day, with which the account's owner sets a new password.",
            footer = {"", "Example:", "  paseo account code tester"})
    static final class Code extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Code(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode code = api.post(Api.path("accounts", name, "code"), api.object());
            return print(code, () -> sayCode(context, api, name, code.path("code").asString()));
        }
    }
}
