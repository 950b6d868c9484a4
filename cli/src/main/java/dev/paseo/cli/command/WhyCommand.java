package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "why",
        description = "The chain of causes, back to a push, a clock, an arrival or a person; or, forward, "
                + "everything that it led to.",
        footer = {"", "Examples:", "  paseo why daylight-api#1", "  paseo why deployment 7",
                "  paseo why daylight-api 1.4.1", "  paseo why sun-model#1 --forward",
                "  paseo why daylight-api            what happened lately: every trigger considered, and why "
                        + "nothing started",
                "  paseo why daylight-api 3f2c91a    the same for one commit"})
final class WhyCommand extends ServiceCommand {

    private static final String COMMIT = "[0-9a-f]{7,40}";
    private static final int NEWEST = 10;

    @Parameters(arity = "1..2", paramLabel = "COMPONENT#RUN | deployment NUMBER | COMPONENT [VERSION | COMMIT]",
            hideParamSyntax = true)
    private List<String> subject = List.of();

    @Option(names = "--forward", description = "what it led to, across all components")
    private boolean forward;

    WhyCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        if (subject.size() == 1 && subject.getFirst().matches("[a-z0-9-]+")) {
            return events(api.get(Api.path("components", subject.getFirst(), "events")), NEWEST);
        }
        if (subject.size() == 2 && subject.get(1).matches(COMMIT)) {
            JsonNode events = api
                    .get(Api.path("components", subject.getFirst(), "events") + "?commit=" + subject.get(1));
            if (!events.isEmpty()) {
                return forward ? forwardOfEvents(api, events) : events(events, Integer.MAX_VALUE);
            }
        }
        return switch (Subject.of(subject)) {
            case Subject.Run run when forward -> forward(api, run.component() + "#" + run.number(),
                    Api.path("runs", run.component(), run.number()));
            case Subject.Deployment deployment when forward -> forward(api, "deployment " + deployment.id(),
                    Api.path("deployments", deployment.id()));
            case Subject.Version version when forward -> forward(api, version.component() + " " + version.number(),
                    Api.path("versions", version.component(), version.number()));
            case Subject.Run(String component, String number) -> {
                JsonNode run = api.get(Api.path("runs", component, number));
                yield print(run.path("causes"), () -> {
                    head(component + "#" + number, run.path("run").path("status").asString(), run.path("run"));
                    causes(run.path("causes"));
                });
            }
            case Subject.Passage passage -> throw new Failure(Failure.Kind.USAGE,
                    "A passage follows from a deployment: name that");
            case Subject.Deployment(String id) -> {
                JsonNode why = api.get(Api.path("deployments", id, "why"));
                yield print(why, () -> deployment(id, why));
            }
            case Subject.Version(String component, String number) -> {
                JsonNode version = api.get(Api.path("versions", component, number));
                yield print(version.path("causes"), () -> version(component, number, version));
            }
        };
    }

    private void version(String component, String number, JsonNode version) {
        context.out().println(context.ink().strong(component + " " + number)
                + (version.has("run") ? " was sealed by run " + component + "#" + version.path("run").asString("")
                        : " arrived " + version.path("origin").asString(""))
                + ", " + Times.exact(version.path("sealedAt")));
        causes(version.path("causes"));
    }

    private int events(JsonNode events, int most) {
        return print(events, () -> {
            if (events.isEmpty()) {
                context.out().println(
                        "Nothing has happened yet that could have started a run of it: no push, tag, clock or "
                                + "upstream since it was registered.");
            }
            for (int at = 0; at < Math.min(events.size(), most); at++) {
                EventLines.print(context, events.get(at));
            }
        });
    }

    private int forwardOfEvents(Api api, JsonNode events) {
        JsonNode first = events.get(events.size() - 1);
        return forward(api, EventLines.what(first),
                Api.path("components", first.path("component").asString(), "events", first.path("id").asString("")));
    }

    private int forward(Api api, String name, String path) {
        JsonNode led = api.get(path + "/consequences");
        return print(led, () -> {
            context.out().println(context.ink().strong(name)
                    + (led.isEmpty() ? " led to nothing: no trigger waits for it" : " led to"));
            tree(led, "  ");
        });
    }

    private void tree(JsonNode nodes, String indent) {
        for (JsonNode node : nodes) {
            context.out().println(indent + words(node));
            tree(node.path("led"), indent + "  ");
        }
    }

    private String words(JsonNode node) {
        String component = node.path("component").asString();
        String reason = node.has("reason") ? ": " + node.path("reason").asString() : "";
        return switch (node.path("kind").asString()) {
            case "run" -> component + "#" + node.path("number").asString("") + " "
                    + context.ink().state(node.path("status").asString()) + ", " + node.path("version").asString()
                    + context.ink().quiet(" on " + node.path("where").asString() + ", " + Times.exact(node.path("at")))
                    + reason;
            case "deployment" -> "deployment " + node.path("number").asString("") + ", " + component + " "
                    + node.path("version").asString() + " into "
                    + node.path("where").asString() + " " + context.ink().state(node.path("status").asString())
                    + context.ink().quiet(", " + Times.exact(node.path("at"))) + reason;
            default -> "no run of " + component + context.ink().quiet(" (" + node.path("where").asString() + ")")
                    + reason;
        };
    }

    private void head(String name, String status, JsonNode what) {
        context.out().println(context.ink().strong(name) + " " + context.ink().state(status)
                + (what.has("reason") ? ": " + what.path("reason").asString() : ""));
    }

    private void deployment(String id, JsonNode why) {
        JsonNode deployment = why.path("deployment");
        head("deployment " + id + ": " + deployment.path("component").asString() + " "
                + deployment.path("version").asString() + " into "
                + deployment.path("environment").asString(), deployment.path("status").asString(), deployment);
        why.path("decisions").forEach(decision -> context.out().println("  " + Words.ofDecision(decision)));
        causes(why.path("causes"));
    }

    private void causes(JsonNode causes) {
        for (JsonNode cause : causes) {
            context.out().println("  because of " + cause.path("sentence").asString()
                    + context.ink().quiet(", " + Times.exact(cause.path("at"))));
        }
    }
}
