package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo component ...}. */
final class ComponentCommands {

    private ComponentCommands() {}

    @Command(name = "hook", description = "Prints a ready post-receive script for the repository. It holds a secret.",
            footer = {"", "Example:", "  paseo component hook daylight-api > daylight-api.git/hooks/post-receive"})
    static final class Hook extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Hook(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            context.out().print(api().text(Api.path("components", name, "hook")));
            return 0;
        }
    }

    @Command(name = "events",
            description = "What happened to a component, or elsewhere with its triggers considered: what each "
                    + "started, or that nothing was.",
            footer = {"", "Example:", "  paseo component events daylight-api", "",
                    "paseo why daylight-api says of each trigger why it started nothing."})
    static final class Events extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Events(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode events = api().get(Api.path("components", name, "events"));
            return print(events, () -> {
                Table table = new Table("AT", "WHAT HAPPENED", "STARTED");
                events.forEach(event -> table.row(Times.exact(event.path("at")), EventLines.what(event),
                        EventLines.started(event)));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "links",
            description = "Puts these links in place of those that a component has: dashboards, the runbook.",
            footer = {"", "Example:",
                    "  paseo component links daylight-api --link Runbook=https://park.example/runbooks/daylight-api"})
    static final class Links extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--link", paramLabel = "TITLE=ADDRESS",
                description = "may be given several times; none: all are taken away")
        private Map<String, String> links = Map.of();

        Links(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            links.forEach(request::put);
            JsonNode component = api.put(Api.path("components", name, "links"), request);
            return print(component, () -> context.out().println(
                    name + " has " + component.path("links").size() + (links.size() == 1 ? " link." : " links.")));
        }
    }

    @Command(name = "labels",
            description = "Puts these labels in place of those that a component has; whereabouts are grouped by them.",
            footer = {"", "Example:", "  paseo component labels daylight-api --label team=wardens --label tier=public"})
    static final class Labels extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--label", paramLabel = "NAME=VALUE",
                description = "at most 20; a value has at most 120 characters; none: all are taken away")
        private Map<String, String> labels = Map.of();

        Labels(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object();
            labels.forEach(request::put);
            JsonNode component = api.put(Api.path("components", name, "labels"), request);
            return print(component, () -> context.out().println(name + " has "
                    + (labels.isEmpty() ? "no labels." : "the labels " + component.path("labels").propertyStream()
                            .map(label -> label.getKey() + "=" + label.getValue().asString())
                            .collect(Collectors.joining(", ")) + ".")));
        }
    }

    @Command(name = "names",
            description = "Lists what a component's pipeline file can name: environments, what agents offer, and what "
                    + "is opened to it of artifacts, secrets and pieces.",
            footer = {"", "Example:", "  paseo component names daylight-api"})
    static final class Names extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Names(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode names = api().get(Api.path("components", name, "pipeline", "names"));
            return print(names, () -> {
                Table table = new Table("IN THE FILE", "NAME", "WHAT IT IS");
                names.path("artifacts").forEach(each -> table.row("take", each.path("artifact").asString(),
                        "of " + each.path("from").asString() + ", kept by " + each.path("version").asString()));
                names.path("secrets").forEach(each -> table.row("secrets", each.asString(), "a secret opened to it"));
                names.path("pieces").forEach(each -> table.row("like", each.path("piece").path("name").asString(),
                        "of " + each.path("of").asString() + ", " + each.path("version").asString() + ": "
                                + each.path("piece").path("summary").asString()));
                names.path("offers").forEach(each -> table.row("wants", each.asString(), "an offer of agents"));
                names.path("environments").forEach(each -> table.row("route", each.asString(), "an environment"));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "open",
            description = "Opens another component's artifacts to this one, so that its stages may take them.",
            footer = {"", "Example:", "  paseo component open daylight-api --source sun-model"})
    static final class Open extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--source", required = true, paramLabel = "COMPONENT",
                description = "whose artifacts may be taken")
        private String source = "";

        @Option(names = "--all-branches", description = "to all branches, not to trusted ones alone")
        private boolean allBranches;

        Open(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode component = api.put(Api.path("components", name, "sources"),
                    api.object().put("name", source).put("allBranches", allBranches));
            return print(component, () -> context.out().println(name + " may take from " + source
                    + (allBranches ? ", on all branches." : ", on trusted branches.")));
        }
    }

    @Command(name = "look",
            description = "Has the repository and the observed stores of a component looked at now; says what that "
                    + "led to.",
            footer = {"", "Example:", "  paseo component look daylight-api"})
    static final class Look extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        Look(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode looked = api.post(Api.path("components", name, "look"), api.object());
            return print(looked, () -> context.out().print(looked.path("said").asString()));
        }
    }

    @Command(name = "badge",
            description = "Prints the address of a picture of a branch's state, for pages that cannot sign in; it "
                    + "holds a key.",
            footer = {"", "Example:", "  paseo component badge daylight-api"})
    static final class Badge extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--branch", description = "default: the main branch")
        private Optional<String> branch = Optional.empty();

        Badge(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode badge = api().get(Api.path("components", name, "badge")
                    + branch.map(value -> "?branch=" + Api.encode(value)).orElse(""));
            return print(badge, () -> context.out().println(badge.path("address").asString()));
        }
    }

    @Command(name = "shut", description = "Closes another component's artifacts to this one again.",
            footer = {"", "Example:", "  paseo component shut daylight-api --source sun-model"})
    static final class Shut extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--source", required = true, paramLabel = "COMPONENT",
                description = "whose artifacts may no longer be taken")
        private String source = "";

        Shut(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode component = api().delete(Api.path("components", name, "sources", source));
            return print(component, () -> context.out().println(name + " may no longer take from " + source + "."));
        }
    }

    @Command(name = "token",
            description = "Makes a token that can publish versions of a component and nothing else, good for 90 days.",
            footer = {"", "Example:",
                    "  PASEO_TOKEN=$(paseo component token hut-planner --description \"the works' build\")"})
    static final class PublishToken extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--description", required = true, paramLabel = "WORDS",
                description = "who uses it; at most 120 characters")
        private String description = "";

        PublishToken(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode made = api.post(Api.path("components", name, "tokens"),
                    api.object().put("description", description));
            return print(made, () -> context.out().println(made.path("token").asString()));
        }
    }
}
