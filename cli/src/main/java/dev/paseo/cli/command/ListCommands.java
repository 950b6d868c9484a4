package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

/** {@code paseo list ...}: what there is, the newest first. */
final class ListCommands {

    private ListCommands() {}

    /** A list of which only so many are wanted. */
    private abstract static class Limited extends ServiceCommand {
        @Option(names = "--limit", paramLabel = "NUMBER", defaultValue = "30",
                description = "at most so many, 1 to 200; default: ${DEFAULT-VALUE}")
        int limit = 30;

        @Option(names = "--oldest-first", description = "from the oldest on; otherwise the newest first")
        private boolean oldest;

        Limited(Context context) {
            super(context);
        }

        /** How many, and in which order, as the API has it. */
        List<String> query() {
            List<String> query = new ArrayList<>(List.of("limit=" + limit));
            if (oldest) {
                query.add("after=0");
            }
            return query;
        }

        static void add(List<String> query, String name, Optional<String> value) {
            value.ifPresent(given -> query.add(name + "=" + Api.encode(given)));
        }
    }

    @Command(name = "components",
            description = "All components: their repository, main branch, and what is wrong with their pipeline file.",
            footer = {"", "Example:", "  paseo list components"})
    static final class Components extends ServiceCommand {
        Components(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("components"));
            return print(all, () -> {
                Table table = new Table("COMPONENT", "SUMMARY", "MAIN BRANCH", "REPOSITORY", "");
                all.forEach(each -> table.row(context.ink().strong(each.path("name").asString()),
                        each.path("summary").asString(), each.path("mainBranch").asString(),
                        each.path("repository").asString("built elsewhere"), reasonAgainst(each)));
                table.print(context.out(), context.ink());
            });
        }

        private String reasonAgainst(JsonNode component) {
            String nearly = component.path("kept").path("nearly").asString("");
            return !component.path("problems").isEmpty()
                    ? context.ink().bad("problem: ") + component.path("problems").path(0).path("message").asString()
                    : nearly.isEmpty() ? "" : context.ink().bad("nearly full: ") + nearly;
        }
    }

    @Command(name = "environments",
            description = "All environments in their order: their zone, what they follow, and whether they are closed.",
            footer = {"", "Example:", "  paseo list environments"})
    static final class Environments extends ServiceCommand {
        Environments(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode all = api().get(Api.path("environments"));
            return print(all, () -> {
                Table table = new Table("ENVIRONMENT", "FOLLOWS", "ZONE", "RULES' REVISION");
                all.forEach(each -> table.row(context.ink().strong(each.path("name").asString()),
                        String.join(", ",
                                each.path("rules").path("follows").path("environments").valueStream()
                                        .map(JsonNode::asString).toList()),
                        each.path("zone").asString(), each.path("rulesRevision").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }

    /** A list over all components, or of one. */
    private abstract static class Listed extends Limited {
        @Parameters(paramLabel = "COMPONENT", arity = "0..1", description = "default: all of them")
        Optional<String> component = Optional.empty();

        @Option(names = "--branch")
        private Optional<String> branch = Optional.empty();

        @Option(names = "--label", paramLabel = "VALUE", description = "only of components with this value of a label")
        private Optional<String> label = Optional.empty();

        @Option(names = "--since", paramLabel = "TIME", description = "ISO 8601, such as 2026-05-03T14:05:00Z")
        private Optional<String> since = Optional.empty();

        @Option(names = "--until", paramLabel = "TIME", description = "ISO 8601; only before it")
        private Optional<String> until = Optional.empty();

        Listed(Context context) {
            super(context);
        }

        @Override
        List<String> query() {
            List<String> query = super.query();
            add(query, "component", component);
            add(query, "branch", branch);
            add(query, "label", label);
            add(query, "since", since);
            add(query, "until", until);
            return query;
        }
    }

    @Command(name = "runs", description = "Runs of all components or of one, the newest first.", footer = {"",
            "Examples:", "  paseo list runs --status failed --since 2026-05-03T00:00:00Z",
            "  paseo list runs daylight-api --branch main --status failed --limit 5"})
    static final class Runs extends Listed {
        @Option(names = "--status", paramLabel = "STATE",
                description = "waiting, running, cancelling, passed, warned, failed or cancelled")
        private Optional<String> status = Optional.empty();

        @Option(names = "--author", paramLabel = "TEXT", description = "only of commits with this in their author")
        private Optional<String> author = Optional.empty();

        Runs(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            List<String> query = query();
            add(query, "status", status);
            add(query, "author", author);
            JsonNode all = api().get(Api.path("runs") + "?" + String.join("&", query));
            return print(all, () -> {
                Table table = new Table("RUN", "STATE", "BRANCH", "COMMIT", "VERSION", "BEGAN", "TOOK", "");
                all.path("runs").forEach(run -> table.row(
                        context.ink().strong(run.path("component").asString() + "#" + run.path("number").asString("")),
                        context.ink().state(run.path("status").asString()),
                        run.path("branch").asString(),
                        short8(run.path("commit")) + " " + run.path("commitSummary").asString(),
                        run.path("version").asString() + (run.path("sealed").asBoolean() ? "" : ", not sealed"),
                        Times.exact(run.path("startedAt")), took(run), run.path("reason").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }

    /** From its beginning to its end, without what the service was away; empty where it has not ended. */
    static String took(JsonNode of) {
        return took(of, "endedAt");
    }

    private static String took(JsonNode of, String end) {
        return of.has("startedAt") && of.has(end) ? Times.length(
                Duration.between(Instant.parse(of.path("startedAt").asString()), Instant.parse(of.path(end).asString()))
                        .minusSeconds(of.path("away").asLong(0)))
                : "";
    }

    static String live(JsonNode deployment) {
        return took(deployment, deployment.has("liveAt") ? "liveAt" : "endedAt");
    }

    /** What a time leaves out, where the service was away meanwhile. */
    static String without(JsonNode of) {
        long away = of.path("away").asLong(0);
        return away == 0 ? ""
                : ", without " + Times.length(Duration.ofSeconds(away)) + " in which the service was away";
    }

    @Command(name = "events",
            description = "What happened, the newest first: pushes, tags, clocks, runs that passed, versions that went "
                    + "live or arrived; and what each trigger made of it.",
            footer = {"", "Examples:", "  paseo list events --since 2026-05-03T00:00:00Z",
                    "  paseo list events daylight-api --kind push --started-nothing"})
    static final class Events extends Listed {
        @Option(names = "--kind", description = "push, tag, clock, run, live or arrival")
        private Optional<String> kind = Optional.empty();

        @Option(names = "--by", paramLabel = "ACCOUNT", description = "only what this account brought about")
        private Optional<String> by = Optional.empty();

        @Option(names = "--started-nothing", description = "only what started no run")
        private boolean nothing;

        Events(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            List<String> query = query();
            add(query, "kind", kind);
            add(query, "by", by);
            add(query, "started", nothing ? Optional.of("false") : Optional.empty());
            JsonNode all = api().get(Api.path("trigger-events") + "?" + String.join("&", query));
            return print(all, () -> all.path("events").forEach(event -> EventLines.print(context, event)));
        }
    }

    @Command(name = "versions", description = "Versions of all components or of one, the newest first.",
            footer = {"", "Examples:", "  paseo list versions daylight-api --limit 5",
                    "  paseo list versions --in production"})
    static final class Versions extends Listed {
        @Option(names = "--in", paramLabel = "ENVIRONMENT", description = "only what is live there")
        private Optional<String> environment = Optional.empty();

        @Option(names = "--blocked", description = "only what is blocked")
        private boolean blocked;

        Versions(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            List<String> query = query();
            add(query, "environment", environment);
            add(query, "blocked", blocked ? Optional.of("true") : Optional.empty());
            JsonNode all = api().get(Api.path("versions") + "?" + String.join("&", query));
            return print(all, () -> {
                Table table = new Table("COMPONENT", "VERSION", "LIVE IN", "BRANCH", "COMMIT", "RUN", "SEALED", "");
                all.path("versions").forEach(version -> table.row(
                        context.ink().strong(version.path("component").asString()),
                        version.path("number").asString(),
                        String.join(", ", version.path("live").valueStream().map(JsonNode::asString).toList()),
                        version.path("branch").asString(),
                        (version.has("commit") ? short8(version.path("commit")) + " " : "")
                                + version.path("commitSummary").asString(""),
                        version.has("run") ? "#" + version.path("run").asString("") : "built elsewhere",
                        Times.exact(version.path("sealedAt")),
                        version.has("blocked") ? context.ink().bad("blocked") : ""));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "deployments", description = "Deployments, the newest first.",
            footer = {"", "Examples:", "  paseo list deployments --in production",
                    "  paseo list deployments --component daylight-api --status waiting"})
    static final class Deployments extends Limited {
        @Option(names = "--component")
        private Optional<String> component = Optional.empty();

        @Option(names = "--in", paramLabel = "ENVIRONMENT")
        private Optional<String> environment = Optional.empty();

        @Option(names = "--by", paramLabel = "ACCOUNT", description = "only what they asked for")
        private Optional<String> by = Optional.empty();

        @Option(names = "--since", paramLabel = "TIME", description = "asked for from then on; ISO 8601")
        private Optional<String> since = Optional.empty();

        @Option(names = "--until", paramLabel = "TIME", description = "asked for before then; ISO 8601")
        private Optional<String> until = Optional.empty();

        @Option(names = "--status", paramLabel = "STATE",
                description = "waiting, queued, deploying, checking, live, replaced, undoing, undone, removed, "
                        + "stopped, failed, rejected, expired, withdrawn or overtaken")
        private Optional<String> status = Optional.empty();

        Deployments(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            List<String> query = query();
            add(query, "component", component);
            add(query, "environment", environment);
            add(query, "status", status);
            add(query, "by", by);
            add(query, "since", since);
            add(query, "until", until);
            JsonNode all = api().get(Api.path("deployments") + "?" + String.join("&", query));
            return print(all, () -> {
                Table table = new Table("DEPLOYMENT", "COMPONENT", "VERSION", "ENVIRONMENT", "KIND", "STATE",
                        "REQUESTED", "BY", "TOOK", "");
                all.forEach(each -> table.row(each.path("id").asString(""),
                        context.ink().strong(each.path("component").asString()), each.path("version").asString(),
                        each.path("environment").asString(),
                        each.path("kind").asString() + (each.path("emergency").asBoolean() ? ", emergency" : ""),
                        context.ink().state(each.path("status").asString()),
                        Times.exact(each.path("requestedAt")), each.path("requestedBy").asString("the walk"),
                        live(each), each.path("reason").asString("")));
                table.print(context.out(), context.ink());
            });
        }
    }
}
