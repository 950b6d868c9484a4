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

/** Secrets: values go in and never come out. */
final class SecretCommands {

    private SecretCommands() {}

    @Command(name = "set",
            description = "Sets a secret; its value is read from standard input. Host beats component, component "
                    + "beats environment. "
                    + "A value that would hold further than one of this name does may wait for a second person: "
                    + "then it is not kept, but set again once they have agreed.",
            footer = {"", "Example:",
                    "  paseo secret set DATA_KEY --component daylight-api --environment production < key.txt"})
    static final class Set extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--component", description = "only for this component")
        private Optional<String> component = Optional.empty();

        @Option(names = "--environment", description = "only in this environment")
        private Optional<String> environment = Optional.empty();

        @Option(names = "--host", description = "only on this host; with --component and --environment")
        private Optional<String> host = Optional.empty();

        Set(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name).put("value",
                    StandardInput.all(context).stripTrailing());
            component.ifPresent(value -> request.put("component", value));
            environment.ifPresent(value -> request.put("environment", value));
            host.ifPresent(value -> request.put("host", value));
            api.put(Api.path("secrets"), request);
            context.out().println("Set " + name + ".");
            return 0;
        }
    }

    @Command(name = "list", description = "Lists where secrets are set, by whom and when; never a value.",
            footer = {"", "Example:", "  paseo secret list"})
    static final class ListAll extends ServiceCommand {
        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode secrets = api().get(Api.path("secrets"));
            return print(secrets, () -> {
                Table table = new Table("SECRET", "COMPONENT", "ENVIRONMENT", "HOST", "REVISIONS", "SET BY", "SET");
                secrets.forEach(row -> table.row(context.ink().strong(row.path("name").asString()),
                        row.path("component").asString("every"), row.path("environment").asString("every"),
                        row.path("host").asString("every"), row.path("revisions").asString(""),
                        row.path("by").asString("a template"), Times.exact(row.path("at"))));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "renew-key",
            description = "Seals all secrets under a new key of the service. The old key's file stays, for backups "
                    + "made before.",
            footer = {"", "Example:", "  paseo secret renew-key"})
    static final class RenewKey extends ServiceCommand {
        RenewKey(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode renewed = api().post(Api.path("secrets", "rotation"), api().object());
            return print(renewed, () -> context.out()
                    .println("Sealed " + renewed.path("values").asString() + " values under a new key."));
        }
    }

    @Command(name = "grant",
            description = "Lets a component's files name a secret, takes that back, or lists what it may name.",
            footer = {"", "Example:", "  paseo secret grant daylight-api DATA_KEY",
                    "  paseo secret grant daylight-api"})
    static final class Grant extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "COMPONENT")
        private String component = "";

        @Parameters(index = "1", arity = "0..1", paramLabel = "NAME",
                description = "the secret; without it, what the component may name is listed")
        private Optional<String> name = Optional.empty();

        @Option(names = "--take-back", description = "it may no longer name it")
        private boolean back;

        Grant(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            if (name.isEmpty()) {
                JsonNode names = api().get(Api.path("components", component, "grants"));
                return print(names, () -> names.forEach(each -> context.out().println(each.asString())));
            }
            String path = Api.path("components", component, "grants", name.get());
            if (back) {
                api().delete(path);
            } else {
                api().put(path, api().object());
            }
            context.out().println(component + (back ? " may no longer name " : " may name ") + name.get() + ".");
            return 0;
        }
    }
}
