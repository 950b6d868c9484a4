package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo component register}: looks first, says what it found, and asks. */
@Command(name = "register", description = {
        "Registers a component by its repository, or by its pipeline file where its versions are built elsewhere.",
        "First says what the repository has and what the next push starts. Where that is likely to be meant "
                + "otherwise, it asks; in a script it refuses."},
        footer = {"", "Examples:",
                "  paseo component register daylight-api --repository file:///srv/git/daylight-api.git --trusted main",
                "  paseo component register daylight-api --repository ssh://git@git.park.example/daylight-api --key "
                        + "id --host-keys known_hosts --trusted main",
                "  paseo component register hut-planner --pipeline paseo.yaml"})
final class RegisterCommand extends ServiceCommand {
    @Parameters(paramLabel = "NAME", description = "the name that its pipeline file repeats")
    private String name = "";

    @Option(names = "--repository", paramLabel = "URL",
            description = "file:///path, https://host/path or ssh://user@host/path")
    private Optional<String> repository = Optional.empty();

    @Option(names = "--pipeline", paramLabel = "FILE",
            description = "the pipeline file of a component without a repository")
    private Optional<Path> pipeline = Optional.empty();

    @Mixin
    private CredentialOptions credentials = new CredentialOptions();

    @Option(names = "--file", description = "path of the pipeline file; default: paseo.yaml")
    private Optional<String> file = Optional.empty();

    @Option(names = "--main-branch", description = "default: main")
    private Optional<String> mainBranch = Optional.empty();

    @Option(names = "--trusted", paramLabel = "PATTERN",
            description = "branches whose runs may have secrets and whose versions may walk")
    private List<String> trusted = List.of();

    @Option(names = "--allowed", paramLabel = "PATTERN", description = "further branches whose pushes may start runs")
    private List<String> allowed = List.of();

    @Option(names = "--source", paramLabel = "COMPONENT",
            description = "components whose artifacts its trusted branches may take")
    private List<String> sources = List.of();

    @Option(names = "--open-source", paramLabel = "COMPONENT",
            description = "components whose artifacts all of its branches may take")
    private List<String> openSources = List.of();

    @Option(names = "--link", paramLabel = "TITLE=ADDRESS",
            description = "kept with the component: a dashboard, the runbook")
    private Map<String, String> links = Map.of();

    @Option(names = "--secret", paramLabel = "NAME",
            description = "secrets that its file may name; takes who may set secrets")
    private List<String> secrets = List.of();

    @Option(names = "--anyway", description = "registers it although something is likely to be meant otherwise")
    private boolean anyway;

    @Option(names = "--start", description = "starts a run of the newest commit of the main branch")
    private boolean start;

    RegisterCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        ObjectNode request = request(api);
        JsonNode found = api.post(Api.path("registrations"), request);
        if (!wantsJson()) {
            say(found);
        }
        if (!found.path("warnings").isEmpty() && !anyway
                && !Asking.yes(context, "Register " + name + " all the same?").orElse(false)) {
            throw new Failure(Failure.Kind.REFUSED, "Nothing was registered. If it is meant as it is, say so: --anyway"
                    + (wantsJson() ? "; " + found.path("warnings").valueStream().map(JsonNode::asString)
                            .collect(Collectors.joining("; ")) : ""));
        }
        JsonNode component = api.post(Api.path("components"), request);
        print(component, () -> context.out().println("Registered " + name + "."));
        start(api, found);
        return 0;
    }

    private ObjectNode request(Api api) {
        ObjectNode request = api.object().put("name", name);
        repository.ifPresent(url -> request.put("repository", url));
        pipeline.ifPresent(text -> request.put("text", SourceCommands.read(text)));
        credentials.into(request, context);
        file.ifPresent(path -> request.put("file", path));
        mainBranch.ifPresent(branch -> request.put("mainBranch", branch));
        fill(request.putArray("trusted"), trusted);
        fill(request.putArray("allowed"), allowed);
        fill(request.putArray("secrets"), secrets);
        fill(request.putArray("sources"), sources);
        fill(request.putArray("openSources"), openSources);
        ObjectNode named = request.putObject("links");
        links.forEach(named::put);
        return request;
    }

    private void start(Api api, JsonNode found) {
        boolean startable = found.path("starts").asBoolean();
        if (start && !startable) {
            throw new Failure(Failure.Kind.REFUSED,
                    name + " is registered, but no run could be started: " + found.path("next").asString());
        }
        if (startable
                && (start || !wantsJson() && Asking.yes(context, "Start a run of " + at(found) + "?").orElse(false))) {
            JsonNode run = api.post(Api.path("runs"), api.object().put("component", name));
            String words = name + "#" + run.path("number").asString("");
            if (!wantsJson()) {
                context.out().println("Started " + words + ". Watch it: paseo watch " + words);
            }
        } else if (startable && !wantsJson()) {
            context.out().println("Nothing was started. The newest commit can be: paseo start " + name);
        }
    }

    private static String at(JsonNode found) {
        return found.path("mainBranch").asString() + " at " + short8(found.path("commit"));
    }

    /** What the repository has, what is likely to be meant otherwise, and what follows. */
    private void say(JsonNode found) {
        int branches = found.path("branches").size();
        if (branches > 0) {
            context.out().println("It has " + branches + (branches == 1 ? " branch" : " branches")
                    + (found.has("commit") ? ", " + at(found) : "") + ".");
        }
        found.path("problems").forEach(problem -> context.out().println(file.orElse("paseo.yaml") + ":"
                + problem.path("line").asString("") + ": " + problem.path("message").asString()));
        found.path("warnings").forEach(warning -> context.out().println(
                context.ink().warn("warning: ") + warning.asString() + (warning.asString().endsWith("?") ? "" : ".")));
        context.out().println(found.path("next").asString() + ".");
    }

    private static void fill(ArrayNode array, List<String> words) {
        words.forEach(array::add);
    }
}
