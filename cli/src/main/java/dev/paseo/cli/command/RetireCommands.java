package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/**
 * {@code paseo retire ...} and {@code paseo bring-back ...}: what is needed no more is taken out of use, and comes
 * back.
 */
final class RetireCommands {

    private static final List<String> KINDS = List.of("component", "place", "host", "agent", "environment",
            "preview-template");
    private static final String NAMED = "component, place, host, agent, environment or preview-template";

    private RetireCommands() {}

    /** A command about one thing of one kind. */
    private abstract static class OfOne extends ServiceCommand {
        @Parameters(index = "0", paramLabel = "WHAT", description = NAMED)
        private String what = "";

        @Parameters(index = "1", paramLabel = "NAME", description = "its name; of a place its component's")
        String name = "";

        @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "of a place")
        private Optional<String> environment = Optional.empty();

        OfOne(Context context) {
            super(context);
        }

        String path() {
            if (!KINDS.contains(what)) {
                throw new Failure(Failure.Kind.USAGE, "WHAT should be " + NAMED + "; got “" + what + "”");
            }
            if (what.equals("place") != environment.isPresent()) {
                throw new Failure(Failure.Kind.USAGE,
                        "Only a place is named with an environment: --in ENVIRONMENT");
            }
            return Api.path("retirements", what, name)
                    + environment.map(in -> "?environment=" + Api.encode(in)).orElse("");
        }

        String words() {
            return RetireCommands.words(name, environment);
        }

        String again() {
            return RetireCommands.again(what, name, environment);
        }
    }

    private static String words(String name, Optional<String> environment) {
        return name + environment.map(in -> " in " + in).orElse("");
    }

    /** What brings it back. */
    private static String again(String what, String name, Optional<String> environment) {
        return "paseo bring-back " + what + " " + name + environment.map(in -> " --in " + in).orElse("");
    }

    @Command(name = "retire", description = {
            "Takes a component, place, host, agent, environment or preview template out of use. Its history stays.",
            "What hinders it, what follows and what keeps running where is said first."},
            footer = {"", "Examples:",
                    "  paseo retire component hut-planner --reason \"the wardens plan on paper again\" --remove",
                    "  paseo retire place path-board --in staging --reason \"one stage is enough\" --dry-run",
                    "  paseo retire host ridge-hut --reason \"the hut is closed\""})
    static final class Retire extends OfOne {
        @Option(names = "--reason", paramLabel = "WORDS",
                description = "why; at most 1000 characters; it is kept in the audit trail")
        private Optional<String> reason = Optional.empty();

        @Option(names = "--remove", description = "also removes what is live of it, by its recipe's removal")
        private boolean remove;

        @Option(names = "--dry-run", description = "only says what would follow")
        private boolean dryRun;

        Retire(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            String path = path();
            JsonNode found = api.get(path + (path.contains("?") ? "&" : "?") + "remove=" + remove);
            if (wantsJson()) {
                context.printJson(found);
            } else {
                found.path("follows").forEach(each -> context.out().println(each.asString() + "."));
            }
            if (!found.path("hinders").isEmpty()) {
                throw new Failure(Failure.Kind.REFUSED, words() + " cannot be retired: " + found.path("hinders")
                        .valueStream().map(JsonNode::asString).collect(Collectors.joining("; ")));
            }
            if (dryRun) {
                return 0;
            }
            api.put(path,
                    api.object().put("reason", reason.orElseThrow(
                            () -> new Failure(Failure.Kind.USAGE, "Say why " + words() + " is retired: --reason")))
                            .put("remove", remove));
            if (!wantsJson()) {
                context.out().println(words() + " is retired. It comes back by: " + again());
            }
            return 0;
        }
    }

    @Command(name = "retired", description = "What is retired, of every kind, the newest first.",
            footer = {"", "Example:", "  paseo list retired"})
    static final class Retired extends ServiceCommand {
        Retired(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("retirements"));
            return print(all, () -> {
                if (all.isEmpty()) {
                    context.out().println("Nothing is retired.");
                    return;
                }
                Table table = new Table("WHAT", "NAME", "RETIRED", "COMES BACK BY");
                all.forEach(each -> {
                    Optional<String> in = each.path("environment").asStringOpt();
                    String name = each.path("name").asString();
                    String what = each.path("what").asString();
                    table.row(what, context.ink().strong(words(name, in)), Times.exact(each.path("at")),
                            again(what, name, in));
                });
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "bring-back", description = "Brings back into use what was retired.",
            footer = {"", "Example:", "  paseo bring-back component hut-planner"})
    static final class BringBack extends OfOne {
        BringBack(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode done = api().delete(path());
            return print(done, () -> context.out().println(words() + " is in use again."));
        }
    }
}
