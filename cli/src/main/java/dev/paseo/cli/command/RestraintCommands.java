package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** What restrains places, environments, versions and hosts; {@code --lift} ends each. */
final class RestraintCommands {

    private RestraintCommands() {}

    private static String wanted(Optional<String> reason) {
        return reason.orElseThrow(() -> new Failure(Failure.Kind.USAGE, "Say why: --reason \"…\""));
    }

    @Command(name = "hold",
            description = "Keeps automatic deployments out of a place until the hold is lifted. A person may still "
                    + "deploy, and is told.",
            footer = {"", "Examples:", "  paseo hold daylight-api --in staging --reason \"load test until Friday\"",
                    "  paseo hold daylight-api --in staging --lift"})
    static final class Hold extends PlaceCommand {
        @Option(names = "--reason", description = "kept in the audit trail")
        private Optional<String> reason = Optional.empty();

        @Option(names = "--lift", description = "ends the hold")
        private boolean lift;

        Hold(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            if (lift) {
                api.delete(place("hold") + reason(reason));
            } else {
                api.put(place("hold"), api.object().put("reason", wanted(reason)));
            }
            context.out().println(component + " in " + environment
                    + (lift ? " is no longer held." : " is held: nothing goes there by itself."));
            return 0;
        }
    }

    @Command(name = "close",
            description = "Closes an environment to every deployment but rollbacks, until a time or until it is "
                    + "opened again.",
            footer = {"", "Examples:", "  paseo close production --reason \"hill race\" --until 2026-06-01T06:00:00Z",
                    "  paseo close production --lift"})
    static final class Close extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Option(names = "--reason", description = "kept in the audit trail")
        private Optional<String> reason = Optional.empty();

        @Option(names = "--until", paramLabel = "TIME",
                description = "ISO 8601, such as 2026-06-01T06:00:00Z; default: until it is opened")
        private Optional<String> until = Optional.empty();

        @Option(names = "--lift", description = "opens it again")
        private boolean lift;

        Close(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String path = Api.path("environments", environment, "closure");
            if (lift) {
                api.delete(path + "?reason=" + Api.encode(reason.orElse("")));
            } else {
                ObjectNode request = api.object().put("reason", wanted(reason));
                until.ifPresent(end -> request.put("until", moment(end).toString()));
                api.put(path, request);
            }
            context.out().println(lift ? "The closure of " + environment + " is lifted."
                    : environment + " is closed" + until.map(end -> " until " + end).orElse("") + ".");
            return 0;
        }
    }

    static Instant moment(String text) {
        try {
            return Instant.parse(text);
        } catch (DateTimeParseException wrong) {
            throw new Failure(Failure.Kind.USAGE, "“" + text + "” should be a time such as 2026-06-01T06:00:00Z");
        }
    }

    /** A moment that has been: itself, or how long ago. */
    static Instant past(String text) {
        Matcher ago = Pattern.compile("([0-9]{1,4})([mhd])").matcher(text);
        if (!ago.matches()) {
            try {
                return Instant.parse(text);
            } catch (DateTimeParseException wrong) {
                throw new Failure(Failure.Kind.USAGE, "“" + text
                        + "” should be a time such as 2026-06-01T06:00:00Z, or how long ago, such as 30m, 12h or 7d");
            }
        }
        long count = Long.parseLong(ago.group(1));
        return Instant.now().minus(switch (ago.group(2)) {
            case "m" -> Duration.ofMinutes(count);
            case "h" -> Duration.ofHours(count);
            default -> Duration.ofDays(count);
        });
    }

    @Command(name = "block",
            description = "Keeps a version out of every environment, for good. Only an administrator lifts it.",
            footer = {"", "Examples:", "  paseo block daylight-api 1.4.3 --reason \"wrong time zone\"",
                    "  paseo block daylight-api 1.4.3 --lift --reason \"it was the clock\""})
    static final class Block extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "COMPONENT")
        private String component = "";

        @Parameters(index = "1", paramLabel = "VERSION")
        private String version = "";

        @Option(names = "--reason", description = "kept in the audit trail")
        private Optional<String> reason = Optional.empty();

        @Option(names = "--lift", description = "ends the block")
        private boolean lift;

        Block(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String path = Api.path("versions", component, version, "block");
            if (lift) {
                api.delete(path + "?reason=" + Api.encode(wanted(reason)));
            } else {
                api.put(path, api.object().put("reason", wanted(reason)));
            }
            context.out().println(component + " " + version
                    + (lift ? " is no longer blocked." : " is blocked: nobody deploys it any more."));
            return 0;
        }
    }

    @Command(name = "list", description = "The hosts: whose agent, last heard of, maintenance, disk.",
            footer = {"", "Example:", "  paseo host list"})
    static final class Hosts extends ServiceCommand {
        Hosts(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode hosts = api().get(Api.path("hosts"));
            return print(hosts, () -> {
                Table table = new Table("HOST", "AGENT", "LAST HEARD OF", "DISK FREE", "");
                hosts.forEach(host -> table.row(host.path("name").asString(),
                        host.path("agent").asString(
                                host.has("servedBy") ? "served by " + host.path("servedBy").asString() : "none"),
                        host.has("lastContact") ? Times.exact(host.path("lastContact")) : "never", disk(host),
                        host.has("maintenance") ? "in maintenance: " + host.path("maintenance").asString() : ""));
                table.print(context.out(), context.ink());
            });
        }

        private static String disk(JsonNode host) {
            return host.has("diskTotal") ? String.format(java.util.Locale.ROOT, "%.1f of %.1f GB",
                    host.path("diskFree").asLong() / 1e9, host.path("diskTotal").asLong() / 1e9) : "";
        }
    }

    @Command(name = "maintain",
            description = "Leaves a host out of deployments until its maintenance ends; then it catches up.",
            footer = {"", "Examples:", "  paseo host maintain valley-house --reason \"new disk\"",
                    "  paseo host maintain valley-house --lift"})
    static final class Maintain extends ServiceCommand {
        @Parameters(paramLabel = "HOST")
        private String host = "";

        @Option(names = "--reason", description = "shown wherever the host is")
        private Optional<String> reason = Optional.empty();

        @Option(names = "--lift", description = "ends the maintenance")
        private boolean lift;

        Maintain(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String path = Api.path("hosts", host, "maintenance");
            if (lift) {
                api.delete(path);
            } else {
                api.put(path, api.object().put("reason", wanted(reason)));
            }
            context.out().println(
                    host + (lift ? " is back, and catches up." : " is in maintenance: deployments leave it out."));
            return 0;
        }
    }

    @Command(name = "list", description = "The preview environments: branch, address, version, age, owner.",
            footer = {"", "Example:", "  paseo preview list"})
    static final class Previews extends ServiceCommand {
        Previews(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode previews = api().get(Api.path("previews"));
            return print(previews, () -> {
                Table table = new Table("ENVIRONMENT", "BRANCH", "ADDRESS", "VERSION", "STATE", "LAST PUSH", "BY");
                previews.forEach(each -> table.row(each.path("environment").asString(),
                        each.path("component").asString() + " " + each.path("branch").asString(),
                        each.path("url").asString(""), each.path("version").asString(""),
                        each.has("removing") ? "goes: " + each.path("removing").asString()
                                : context.ink().state(each.path("status").asString("")),
                        Times.exact(each.path("pushedAt")), each.path("owner").asString()));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "remove",
            description = "Takes a preview environment away now; the next push to its branch makes another.",
            footer = {"", "Example:", "  paseo preview remove trial-feature-night-k2"})
    static final class RemovePreview extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        RemovePreview(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            api().delete(Api.path("previews", environment));
            context.out().println(environment + " is being taken away.");
            return 0;
        }
    }

    @Command(name = "set",
            description = "Sets a variable of a component in an environment; it reaches the place by its next "
                    + "deployment or a redeploy.",
            footer = {"", "Examples:", "  paseo variable set daylight-api LOG_LEVEL debug --in staging",
                    "  paseo variable set daylight-api LOG_LEVEL --in staging --host staging-1 --remove"})
    static final class SetVariable extends PlaceCommand {
        @Parameters(index = "1", paramLabel = "NAME")
        private String name = "";

        @Parameters(index = "2", arity = "0..1", paramLabel = "VALUE")
        private Optional<String> value = Optional.empty();

        @Option(names = "--host", description = "only on this host")
        private Optional<String> host = Optional.empty();

        @Option(names = "--remove", description = "takes it away")
        private boolean remove;

        SetVariable(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            if (value.isPresent() == remove) {
                throw new Failure(Failure.Kind.USAGE, "Give a value, or --remove");
            }
            Api api = api();
            ObjectNode request = api.object().put("name", name);
            value.ifPresent(text -> request.put("value", text));
            host.ifPresent(where -> request.put("host", where));
            api.put(place("variables"), request);
            context.out().println(name + (remove ? " is taken away" : " is set") + " for " + component + " in "
                    + environment + ". It reaches the hosts by a redeploy.");
            return 0;
        }
    }

    @Command(name = "list", description = "The variables of a component in an environment, and who set them when.",
            footer = {"", "Example:", "  paseo variable list daylight-api --in staging"})
    static final class Variables extends PlaceCommand {
        Variables(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode revisions = api().get(place("settings"));
            return print(revisions, () -> {
                Table table = new Table("REVISION", "SET BY", "AT", "VARIABLES");
                revisions.forEach(each -> table.row(each.path("revision").asString(""), each.path("by").asString(),
                        Times.exact(each.path("at")), String.join("  ",
                                each.path("settings").path("variables").properties().stream()
                                        .map(entry -> entry.getKey() + "=" + entry.getValue().asString()).toList())));
                table.print(context.out(), context.ink());
            });
        }
    }
}
