package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@Command(name = "start", description = "Starts a run of the newest commit of a branch.",
        footer = {"", "Example:", "  paseo start daylight-api --branch main --up-to staging --answer verbose=true"})
final class StartCommand extends ServiceCommand {

    @Parameters(paramLabel = "COMPONENT")
    private String component = "";

    @Option(names = "--branch", description = "default: the component's main branch")
    private Optional<String> branch = Optional.empty();

    @Option(names = "--up-to", paramLabel = "ENVIRONMENT", description = "how far the version may walk by itself")
    private Optional<String> upTo = Optional.empty();

    @Option(names = "--answer", paramLabel = "NAME=ANSWER",
            description = "an answer to what its pipeline file asks; what is not answered takes its default")
    private Map<String, String> answers = Map.of();

    @Option(names = "--file", paramLabel = "FILE",
            description = "tries this pipeline file with the newest commit of the branch: on a branch of its own, "
                    + "which is not trusted, so that the run has no secrets and its version goes nowhere")
    private Optional<Path> file = Optional.empty();

    StartCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        if (file.isPresent()) {
            return attempt(api, file.get());
        }
        ObjectNode request = api.object().put("component", component);
        branch.ifPresent(name -> request.put("branch", name));
        upTo.ifPresent(name -> request.put("upTo", name));
        ObjectNode given = request.putObject("answers");
        answers.forEach(given::put);
        JsonNode run = api.post(Api.path("runs"), request);
        return print(run,
                () -> context.out().println("Started " + component + "#" + run.path("number").asString("") + " of "
                        + run.path("branch").asString() + " at " + short8(run.path("commit")) + "; it will be "
                        + run.path("version").asString()
                        + ". Watch it: paseo watch " + component + "#" + run.path("number").asString("")));
    }

    private int attempt(Api api, Path path) {
        if (upTo.isPresent()) {
            throw new Failure(Failure.Kind.USAGE, "What is tried goes nowhere: leave --up-to out");
        }
        JsonNode about = api.get(Api.path("components", component));
        String of = branch.orElse(about.path("mainBranch").asString());
        if (!about.path("heads").has(of)) {
            throw new Failure(Failure.Kind.REFUSED, component + " has no branch " + of);
        }
        ObjectNode request = api.object().put("base", about.path("heads").path(of).asString())
                .put("text", SourceCommands.read(path));
        ObjectNode given = request.putObject("answers");
        answers.forEach(given::put);
        JsonNode tried = api.post(Api.path("components", component, "pipeline", "trials"), request);
        return print(tried, () -> context.out().println("Started " + component + "#" + tried.path("run").asString("")
                + " of " + tried.path("branch").asString() + ", a branch of its own with " + path
                + ": it has no secrets and goes nowhere. Watch it: paseo watch " + component + "#"
                + tried.path("run").asString("")));
    }
}
