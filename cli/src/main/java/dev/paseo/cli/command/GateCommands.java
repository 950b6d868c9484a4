package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.time.Duration;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** What waits, rules of environments, the clock. */
final class GateCommands {

    private static final Pattern LENGTH = Pattern.compile("([0-9]{1,4})([smhd])");

    private GateCommands() {}

    @Command(name = "waiting", description = "Lists what needs you, the most urgent first.",
            footer = {"", "Example:", "  paseo waiting"})
    static final class Waiting extends ServiceCommand {
        Waiting(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode view = api().get(Api.path("waiting"));
            return print(view, () -> {
                if (view.path("count").asInt() == 0) {
                    context.out().println("Nothing needs you.");
                    return;
                }
                Table table = new Table("WHAT", "COMPONENT", "ENVIRONMENT", "STANDS AT", "UNTIL", "");
                view.path("gates").forEach(each -> table.row(
                        context.ink()
                                .need(each.has("deployment") ? "deployment " + each.path("deployment").asString()
                                        : "passage " + each.path("passage").asString()),
                        each.path("component").asString() + " " + each.path("version").asString(),
                        each.path("environment").asString(), each.path("name").asString(),
                        Times.exact(each.path("due")), each.path("sentence").asString()));
                view.path("reviews")
                        .forEach(each -> table.row("review " + each.path("deployment").asString(),
                                each.path("component").asString() + " " + each.path("version").asString(),
                                each.path("environment").asString(), "emergency", Times.exact(each.path("due")),
                                each.path("reason").asString()));
                others(table, view);
                table.print(context.out(), context.ink());
            });
        }

        private static void others(Table table, JsonNode view) {
            view.path("grants").forEach(each -> table.row("grant", each.path("component").asString(), "",
                    each.path("secret").asString(), "",
                    each.path("granted").asBoolean()
                            ? "no value is set: paseo secret set " + each.path("secret").asString()
                                    + " --component " + each.path("component").asString()
                            : "its file names it, but it was not given: paseo secret grant "
                                    + each.path("component").asString() + " " + each.path("secret").asString()));
            view.path("stays")
                    .forEach(each -> table.row("walk stays",
                            each.path("component").asString() + " " + each.path("version").asString(),
                            each.path("environment").asString(),
                            "", "", each.path("reason").asString()));
            view.path("asks")
                    .forEach(each -> table.row("ask " + each.path("id").asString(""),
                            each.path("component").asString() + " " + each.path("version").asString(""),
                            each.path("environment").asString(), "asked by " + each.path("by").asString(), "",
                            "to " + each.path("sentence").asString() + ": " + each.path("words").asString()));
            view.path("nobody")
                    .forEach(each -> table.row("waits for nobody",
                            each.path("component").asString() + " " + each.path("version").asString(),
                            each.path("environment").asString(),
                            each.path("name").asString(), "", each.path("sentence").asString()));
        }
    }

    @Command(name = "calendar",
            description = "Prints the address of an environment's calendar (RFC 5545), for calendars that people have.",
            footer = {"", "Example:", "  paseo environment calendar production", "",
                    "Sign in there with your name, and a token of yours as the password."})
    static final class CalendarAddress extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        CalendarAddress(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            api.get(Api.path("environments", environment, "calendar"));
            context.out().println(api.address() + Api.path("environments", environment, "calendar.ics"));
            return 0;
        }
    }

    @Command(name = "export", description = "Prints all environments as the file that would load them as they are.",
            footer = {"", "Example:", "  paseo environment export > environments.yaml"})
    static final class Export extends ServiceCommand {
        Export(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode file = api().get(Api.path("environments", "file"));
            return print(file, () -> context.out().print(file.path("text").asString()));
        }
    }

    @Command(name = "copy", description = "Prints an environment under another name, to be given its hosts and loaded.",
            footer = {"", "Example:", "  paseo environment copy production --as showroom > showroom.yaml"})
    static final class Copy extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Option(names = "--as", required = true, paramLabel = "NAME", description = "the new name")
        private String as = "";

        Copy(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode file = api().get(Api.path("environments", environment, "copy") + "?as=" + Api.encode(as));
            return print(file, () -> context.out().print(file.path("text").asString()));
        }
    }

    @Command(name = "compare",
            description = "What differs between two environments: rules in sentences, then places, hosts, variables "
                    + "and names of secrets as lines of the environments file.",
            footer = {"", "Example:", "  paseo environment compare staging production",
                    "paseo compare says what is live in each."})
    static final class Differences extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "ENVIRONMENT")
        private String one = "";

        @Parameters(index = "1", paramLabel = "ENVIRONMENT")
        private String other = "";

        Differences(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode view = api()
                    .get(Api.path("environments", one, "differences") + "?other=" + Api.encode(other));
            return print(view, () -> {
                if (view.path("rules").isEmpty() && view.path("lines").isEmpty()) {
                    context.out().println(one + " and " + other + " say the same.");
                    return;
                }
                Table table = new Table("GATE", "ONLY IN", "ASKS");
                view.path("rules").forEach(rule -> table.row(rule.path("gate").asString(),
                        rule.path("here").asBoolean() ? one : other, rule.path("sentence").asString()));
                if (!view.path("rules").isEmpty()) {
                    table.print(context.out(), context.ink());
                    context.out().println();
                }
                context.out().println("- " + one + "   + " + other);
                view.path("lines").forEach(line -> context.out().println(coloured(line.asString())));
            });
        }

        private String coloured(String line) {
            return line.startsWith("+") ? context.ink().good(line)
                    : line.startsWith("-") ? context.ink().bad(line) : context.ink().quiet(line);
        }
    }

    @Command(name = "rules", description = "Says in words what an environment asks at its gates.",
            footer = {"", "Example:", "  paseo environment rules production"})
    static final class Rules extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        Rules(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode rules = api().get(Api.path("environments", environment, "rules"));
            return print(rules, () -> {
                lines("To be promoted into " + environment, rules.path("words").path("promotion"));
                lines("To go on from " + environment, rules.path("words").path("toGoOn"));
                lines("To be rolled back in " + environment, rules.path("words").path("rollback"));
                lines("To ask less there, to trust more branches or to give secrets",
                        rules.path("words").path("toLoosen"));
                rules.path("words").path("components").properties().forEach(own -> {
                    lines(own.getKey() + ", besides", own.getValue().path("toEnter"));
                    lines(own.getKey() + ", to go on", own.getValue().path("toGoOn"));
                });
            });
        }

        private void lines(String head, JsonNode lines) {
            if (!lines.isEmpty()) {
                context.out().println(context.ink().strong(head));
                lines.forEach(line -> context.out().println("  " + line.asString()));
            }
        }
    }

    @Command(name = "outside",
            description = "Gives a new secret with which questions of a gate to a program are signed; shown once. An "
                    + "older one no longer holds.",
            footer = {"", "Example:", "  paseo environment outside production load-test"})
    static final class Outside extends ServiceCommand {
        @Parameters(paramLabel = "ENVIRONMENT")
        private String environment = "";

        @Parameters(paramLabel = "CRITERION", description = "its name below outside in the environments file")
        private String criterion = "";

        Outside(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode given = api.post(Api.path("environments", environment, "outside", criterion, "secret"),
                    api.object());
            return print(given, () -> context.out().println(given.path("secret").asString()));
        }
    }

    @Command(name = "forward",
            description = "Moves the service's clock forward, where it was set up for that: demos and rehearsals.",
            footer = {"", "Example:", "  paseo clock forward 2h"})
    static final class Forward extends ServiceCommand {
        @Parameters(paramLabel = "LENGTH", description = "such as 90s, 30m, 2h or 3d; at most 31d")
        private String by = "";

        Forward(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Matcher length = LENGTH.matcher(by);
            if (!length.matches()) {
                throw new Failure(Failure.Kind.USAGE, "“" + by + "” should be a length such as 90s, 30m, 2h or 3d");
            }
            long count = Long.parseLong(length.group(1));
            Duration moved = switch (length.group(2)) {
                case "s" -> Duration.ofSeconds(count);
                case "m" -> Duration.ofMinutes(count);
                case "h" -> Duration.ofHours(count);
                default -> Duration.ofDays(count);
            };
            JsonNode now = api().post(Api.path("clock"), api().object().put("by", moved.toString()));
            return print(now, () -> context.out().println("It is " + Times.exact(now.path("now")) + " now."));
        }
    }
}
