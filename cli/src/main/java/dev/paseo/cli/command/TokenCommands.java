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

/** {@code paseo token ...}. */
final class TokenCommands {

    private TokenCommands() {}

    /** The account that is meant: one's own, unless another is named. */
    private static String account(Api api, Optional<String> of) {
        return of.orElseGet(() -> api.get(Api.path("session")).path("name").asString());
    }

    @Command(name = "make", description = {
            "Makes a token of your own, prints it this once, and keeps none of it. It may no more than you may, and "
                    + "no more than is said here.",
            "With it somebody signs in as you: say what it is for, and for which component."},
            footer = {"", "Examples:", "  paseo token make 'reads the map' --may look",
                    "  paseo token make 'night build' --may start-run --may look --component path-board --days 30",
                    "",
                    "What a token may is one of look, start-run, edit-pipeline, edit-trusted, publish, "
                            + "add-evidence, promote, roll-back, emergency, lift-block, decide, verify-audit,",
                    "register-component, edit-environment, set-secret, enrol-agent, tell-others, read-metrics, "
                            + "manage-accounts."})
    static final class Make extends ServiceCommand {
        @Parameters(paramLabel = "WORDS", description = "who or what uses it, 1 to 120 characters")
        private String description = "";

        @Option(names = "--may", paramLabel = "WORD", required = true,
                description = "what it may; can be given several times")
        private List<String> may = List.of();

        @Option(names = "--component", description = "the only component for which it may do this")
        private Optional<String> component = Optional.empty();

        @Option(names = "--days", defaultValue = "90",
                description = "how long it is good, 1 to 365; default: ${DEFAULT-VALUE}")
        private int days;

        Make(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("description", description).put("days", days);
            may.forEach(request.putArray("may")::add);
            component.ifPresent(name -> request.put("component", name));
            JsonNode made = api.post(Api.path("accounts", account(api, Optional.empty()), "tokens"), request);
            return print(made, () -> context.out().println(made.path("token").asString()));
        }
    }

    @Command(name = "list",
            description = "Your tokens: what each may, until when, and when it was used last. With --of those of "
                    + "another, for who manages accounts.",
            footer = {"", "Examples:", "  paseo token list", "  paseo token list --of tester"})
    static final class ListAll extends ServiceCommand {
        @Option(names = "--of", paramLabel = "NAME", description = "the account; default: your own")
        private Optional<String> of = Optional.empty();

        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode tokens = api.get(Api.path("accounts", account(api, of), "tokens"));
            return print(tokens, () -> {
                Table table = new Table("TOKEN", "USED BY", "MAY", "COMPONENT", "MADE", "UNTIL", "USED LAST");
                tokens.forEach(token -> table.row(token.path("id").asString(), token.path("description").asString(),
                        token.path("may").isEmpty() ? "all that its owner may" : Words.list(token.path("may")),
                        token.path("component").asString("all"), Times.exact(token.path("madeAt")),
                        Times.exact(token.path("until")),
                        token.has("lastUsed") ? Times.exact(token.path("lastUsed")) : "never"));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "revoke", description = "Revokes a token: whoever uses it is refused from now on.",
            footer = {"", "Examples:", "  paseo token revoke 12", "  paseo token revoke 12 --of tester"})
    static final class Revoke extends ServiceCommand {
        @Parameters(paramLabel = "TOKEN", description = "its number, of paseo token list")
        private long token;

        @Option(names = "--of", paramLabel = "NAME", description = "the account; default: your own")
        private Optional<String> of = Optional.empty();

        Revoke(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            api.delete(Api.path("accounts", account(api, of), "tokens", Long.toString(token)));
            context.out().println("Token " + token + " is revoked.");
            return 0;
        }
    }
}
