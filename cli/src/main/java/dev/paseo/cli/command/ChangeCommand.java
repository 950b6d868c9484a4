package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** {@code paseo component change}: what is given is changed, all of it or nothing. */
@Command(name = "change",
        description = {"Changes a component: its name, where its source is, its file, what its branches may.",
                "What is not given stays. The branches are looked at again; nothing is started."},
        footer = {"", "Examples:", "  paseo component change daylight-api --main-branch trunk --trusted trunk",
                "  paseo component change hut-planner --name hut-plans",
                "  paseo component change daylight-api --repository ssh://git@git.park.example/daylight --key id "
                        + "--host-keys known_hosts",
                "",
                "A component is still reached by the names that it had. A new repository is that of all components "
                        + "of the old one."})
final class ChangeCommand extends ServiceCommand {

    @Parameters(paramLabel = "COMPONENT")
    private String component = "";

    @Option(names = "--name", description = "its new name")
    private Optional<String> name = Optional.empty();

    @Option(names = "--repository", paramLabel = "URL",
            description = "file:///path, https://host/path or ssh://user@host/path")
    private Optional<String> repository = Optional.empty();

    @Mixin
    private CredentialOptions credentials = new CredentialOptions();

    @Option(names = "--file", description = "path of its pipeline file")
    private Optional<String> file = Optional.empty();

    @Option(names = "--main-branch")
    private Optional<String> mainBranch = Optional.empty();

    @Option(names = "--trusted", paramLabel = "PATTERN",
            description = "in place of all trusted ones: branches whose runs may have secrets and whose versions "
                    + "may walk")
    private List<String> trusted = List.of();

    @Option(names = "--allowed", paramLabel = "PATTERN",
            description = "in place of all allowed ones: further branches whose pushes may start runs")
    private List<String> allowed = List.of();

    @Option(names = "--none-allowed", description = "no further branches: only pushes to trusted ones start runs")
    private boolean noneAllowed;

    ChangeCommand(Context context) {
        super(context);
    }

    @Override
    public Integer call() {
        Api api = api();
        ObjectNode request = api.object();
        name.ifPresent(value -> request.put("name", value));
        repository.ifPresent(value -> request.put("repository", value));
        credentials.into(request, context);
        file.ifPresent(value -> request.put("file", value));
        mainBranch.ifPresent(value -> request.put("mainBranch", value));
        if (!trusted.isEmpty()) {
            trusted.forEach(request.putArray("trusted")::add);
        }
        if (!allowed.isEmpty() || noneAllowed) {
            allowed.forEach(request.putArray("allowed")::add);
        }
        if (request.isEmpty()) {
            throw new Failure(Failure.Kind.USAGE, "Nothing was given to change: paseo component change --help");
        }
        JsonNode changed = api.post(Api.path("components", component, "changes"), request);
        return print(changed, () -> {
            context.out()
                    .println(changed.path("name").asString() + ": "
                            + (changed.has("repository") ? changed.path("repository").asString() + ", " : "")
                            + changed.path("file").asString() + ", main branch " + changed.path("mainBranch").asString()
                            + "; trusted " + words(changed.path("trusted"))
                            + "; allowed " + words(changed.path("allowed")) + ".");
            changed.path("problems").forEach(problem -> context.out().println(changed.path("file").asString() + ":"
                    + problem.path("line").asString("") + ": " + problem.path("message").asString()));
            if (!changed.path("heads").has(changed.path("mainBranch").asString())) {
                context.out().println(context.ink().warn("warning: ") + "it has no branch "
                        + changed.path("mainBranch").asString() + ".");
            }
        });
    }

    private static String words(JsonNode patterns) {
        return patterns.isEmpty() ? "none" : String.join(", ", patterns.valueStream().map(JsonNode::asString).toList());
    }
}
