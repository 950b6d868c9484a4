package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo component ...}. */
final class ComponentCommands {

    private ComponentCommands() {}

    @Command(name = "register", description = "Registers a component by its repository, or by its pipeline file where its versions are built elsewhere.", footer = {"", "Examples:",
        "  paseo component register daylight-api --repository file:///srv/git/daylight-api.git --trusted main",
        "  paseo component register daylight-api --repository ssh://git@git.park.example/daylight-api --key id --host-keys known_hosts --trusted main",
        "  paseo component register hut-planner --pipeline paseo.yaml"})
    static final class Register extends ServiceCommand {
        @Parameters(paramLabel = "NAME", description = "the name that its pipeline file repeats")
        private String name = "";

        @Option(names = "--repository", paramLabel = "URL", description = "file:///path, https://host/path or ssh://user@host/path")
        private Optional<String> repository = Optional.empty();

        @Option(names = "--pipeline", paramLabel = "FILE", description = "the pipeline file of a component without a repository")
        private Optional<Path> pipeline = Optional.empty();

        @Option(names = "--account", paramLabel = "NAME", description = "for https; the password or token is read from standard input")
        private Optional<String> account = Optional.empty();

        @Option(names = "--authority", paramLabel = "FILE", description = "for https: certificates, in PEM, to trust instead of the machine's")
        private Optional<Path> authority = Optional.empty();

        @Option(names = "--key", paramLabel = "FILE", description = "for ssh: the private key")
        private Optional<Path> key = Optional.empty();

        @Option(names = "--host-keys", paramLabel = "FILE", description = "for ssh: the host's keys, as lines of known_hosts; no other is accepted")
        private Optional<Path> hostKeys = Optional.empty();

        @Option(names = "--file", description = "path of the pipeline file; default: paseo.yaml")
        private Optional<String> file = Optional.empty();

        @Option(names = "--main-branch", description = "default: main")
        private Optional<String> mainBranch = Optional.empty();

        @Option(names = "--trusted", paramLabel = "PATTERN", description = "branches whose runs may have secrets and whose versions may walk")
        private List<String> trusted = List.of();

        @Option(names = "--allowed", paramLabel = "PATTERN", description = "further branches whose pushes may start runs")
        private List<String> allowed = List.of();

        @Option(names = "--source", paramLabel = "COMPONENT", description = "components whose artifacts its trusted branches may take")
        private List<String> sources = List.of();

        @Option(names = "--open-source", paramLabel = "COMPONENT", description = "components whose artifacts all of its branches may take")
        private List<String> openSources = List.of();

        @Option(names = "--link", paramLabel = "TITLE=ADDRESS", description = "kept with the component: a dashboard, the runbook")
        private Map<String, String> links = Map.of();

        @Option(names = "--secret", paramLabel = "NAME", description = "secrets that its file may name")
        private List<String> secrets = List.of();

        Register(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            ObjectNode request = api.object().put("name", name);
            repository.ifPresent(url -> request.put("repository", url));
            pipeline.ifPresent(text -> request.put("text", SourceCommands.read(text)));
            SourceCommands.credentials(context, request, account, authority, key, hostKeys);
            file.ifPresent(path -> request.put("file", path));
            mainBranch.ifPresent(branch -> request.put("mainBranch", branch));
            fill(request.putArray("trusted"), trusted);
            fill(request.putArray("allowed"), allowed);
            fill(request.putArray("secrets"), secrets);
            fill(request.putArray("sources"), sources);
            fill(request.putArray("openSources"), openSources);
            ObjectNode named = request.putObject("links");
            links.forEach(named::put);
            JsonNode component = api.post(Api.path("components"), request);
            return print(component, () -> {
                context.out().println("Registered " + name + ", with " + component.path("heads").size() + " branches.");
                component.path("problems").forEach(problem -> context.out().println(component.path("file").asString() + ":"
                        + problem.path("line").asString("") + ": " + problem.path("message").asString()));
            });
        }
    }

    private static void fill(ArrayNode array, List<String> words) {
        words.forEach(array::add);
    }

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

    @Command(name = "events", description = "What happened to a component, or elsewhere with its triggers considered: what each started, or that nothing was.",
            footer = {"", "Example:", "  paseo component events daylight-api", "", "paseo why daylight-api says of each trigger why it started nothing."})
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
                events.forEach(event -> table.row(Times.exact(event.path("at")), EventLines.what(event), EventLines.started(event)));
                table.print(context.out(), context.ink());
            });
        }
    }

    @Command(name = "links", description = "Puts these links in place of those that a component has: dashboards, the runbook.",
            footer = {"", "Example:", "  paseo component links daylight-api --link Runbook=https://park.example/runbooks/daylight-api"})
    static final class Links extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--link", paramLabel = "TITLE=ADDRESS", description = "may be given several times; none: all are taken away")
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
            return print(component, () -> context.out().println(name + " has " + component.path("links").size() + (links.size() == 1 ? " link." : " links.")));
        }
    }

    @Command(name = "labels", description = "Puts these labels in place of those that a component has; whereabouts are grouped by them.",
            footer = {"", "Example:", "  paseo component labels daylight-api --label team=wardens --label tier=public"})
    static final class Labels extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--label", paramLabel = "NAME=VALUE", description = "at most 20; a value has at most 120 signs; none: all are taken away")
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
            return print(component, () -> context.out().println(name + " has " + (labels.isEmpty() ? "no labels." : "the labels " + component.path("labels").propertyStream()
                    .map(label -> label.getKey() + "=" + label.getValue().asString()).collect(Collectors.joining(", ")) + ".")));
        }
    }

    @Command(name = "open", description = "Opens another component's artifacts to this one, so that its stages may take them.",
            footer = {"", "Example:", "  paseo component open daylight-api --source sun-model"})
    static final class Open extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--source", required = true, paramLabel = "COMPONENT", description = "whose artifacts may be taken")
        private String source = "";

        @Option(names = "--all-branches", description = "to all branches, not to trusted ones alone")
        private boolean allBranches;

        Open(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode component = api.put(Api.path("components", name, "sources"), api.object().put("name", source).put("allBranches", allBranches));
            return print(component, () -> context.out().println(name + " may take from " + source + (allBranches ? ", on all branches." : ", on trusted branches.")));
        }
    }

    @Command(name = "token", description = "Makes a token that can publish versions of a component and nothing else, good for 90 days.",
            footer = {"", "Example:", "  PASEO_TOKEN=$(paseo component token hut-planner --label \"the works' build\")"})
    static final class PublishToken extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--label", required = true, paramLabel = "WORDS", description = "who uses it; at most 120 signs")
        private String label = "";

        PublishToken(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            Api api = api();
            JsonNode made = api.post(Api.path("components", name, "tokens"), api.object().put("label", label));
            return print(made, () -> context.out().println(made.path("token").asString()));
        }
    }
}
