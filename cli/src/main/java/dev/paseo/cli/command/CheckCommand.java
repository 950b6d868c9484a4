package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Times;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.check.BesideChecks;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.piece.PieceSource;
import dev.paseo.language.piece.PipelineText;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(name = "check",
        description = "Checks a pipeline file: errors by line, scripts that are not beside it, what would start it, "
                + "its stages and its route.",
        footer = {"", "Examples:", "  paseo check paseo.yaml", "  paseo check --service",
                "  paseo check --dry-run --days 30"})
final class CheckCommand implements Callable<Integer> {

    private static final int DEEPEST = 20;
    private static final int MOST_FILES = 100_000;

    @Parameters(arity = "0..1", defaultValue = "paseo.yaml", paramLabel = "FILE",
            description = "default: ${DEFAULT-VALUE}")
    private Path file = Path.of("paseo.yaml");

    @Option(names = "--service", arity = "0..1", fallbackValue = "", paramLabel = "NAME|URL",
            description = "also checks it against what a service knows: components, environments, agents, secrets, "
                    + "branches; without a name, the one signed in to last")
    private Optional<String> service = Optional.empty();

    @Option(names = "--dry-run",
            description = "also says which runs its triggers would have started lately, and which not any more; by a "
                    + "service")
    private boolean dryRun;

    @Option(names = "--days", paramLabel = "N", defaultValue = "90",
            description = "how far --dry-run looks back, 1 to 365; default: ${DEFAULT-VALUE}")
    private int days = 90;

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    private final Context context;

    CheckCommand(Context context) {
        this.context = context;
    }

    @Override
    public Integer call() {
        PipelineText text = PipelineText.read(read(), PieceSource.NONE);
        if (dryRun) {
            int checked = checked(text);
            return checked == 0 ? tried(text) : checked;
        }
        return checked(text);
    }

    private int tried(PipelineText text) {
        String component = text.component().orElseThrow();
        Api api = context.api(service.filter(given -> !given.isEmpty()));
        JsonNode view = api.post(Api.path("components", component, "pipeline", "dry-run"),
                api.object().put("text", read()).put("days", days));
        context.out().println("past:    of " + view.path("events").asString("") + " in " + days + " days"
                + (view.path("all").asBoolean() ? "" : " (the newest)") + " " + view.path("now").asString("")
                + " start a run by the file of its main branch, " + view.path("then").asString("")
                + " would by this one" + (view.path("unknown").asInt() == 0 ? "" : "; of "
                        + view.path("unknown").asString("") + " it cannot be told"));
        view.path("differing").forEach(each -> context.out().println("  " + words(each.path("then").asString())
                + ": " + each.path("sentence").asString() + context.ink().quiet(", " + Times.exact(each.path("at"))
                        + each.path("why").valueStream().map(JsonNode::asString).collect(Collectors.joining("; ", " (",
                                ")")))));
        return 0;
    }

    private String words(String answer) {
        return switch (answer) {
            case "starts" -> context.ink().good("would start");
            case "starts-nothing" -> context.ink().bad("would start nothing any more");
            default -> context.ink().warn("cannot be told");
        };
    }

    private int checked(PipelineText text) {
        if (!text.missing().isEmpty() && service.isPresent()) {
            return withPieces(service.get(), text);
        }
        Reading<PipelineFile> reading = text.reading();
        List<Problem> problems = new ArrayList<>(reading.problems());
        List<Problem> warnings = new ArrayList<>(reading.warnings());
        reading.value().ifPresent(read -> {
            warnings.addAll(BesideChecks.of(read, text.places(), beside()));
            service.ifPresent(name -> ask(name, read.component(), problems, warnings));
        });
        return say(problems, warnings, reading.value());
    }

    /** A file whose pieces the service has: it puts them in their places, and says what is wrong. */
    private int withPieces(String name, PipelineText text) {
        List<Problem> problems = new ArrayList<>();
        List<Problem> warnings = new ArrayList<>();
        Optional<JsonNode> found = text.component().isEmpty() ? Optional.empty()
                : ask(name, text.component().get(), problems, warnings);
        if (found.isEmpty()) {
            problems.addAll(text.reading().problems());
        }
        found.ifPresent(view -> view.path("pieces").forEach(piece -> context.out().println("piece:   "
                + piece.path("piece").asString() + " of " + piece.path("of").asString() + " "
                + piece.path("version").asString())));
        return say(problems, warnings, found.map(view -> view.path("expanded").asString(""))
                .flatMap(whole -> PipelineText.read(whole, PieceSource.NONE).reading().value()));
    }

    private int say(List<Problem> problems, List<Problem> warnings, Optional<PipelineFile> read) {
        problems.stream().sorted().distinct().forEach(problem -> say(problem, context.ink().bad("error: ")));
        warnings.stream().sorted().distinct().forEach(warning -> say(warning, context.ink().warn("warning: ")));
        read.filter(file -> problems.isEmpty()).ifPresent(this::describe);
        return problems.isEmpty() ? 0 : 1;
    }

    private void say(Problem problem, String kind) {
        context.out().println(file + ":" + problem.line() + ":" + problem.column() + ": " + kind
                + (problem.path().isEmpty() ? "" : problem.path() + " ") + problem.message());
    }

    /** What the service says of it, as the file of the component that it names; empty where it says nothing. */
    private Optional<JsonNode> ask(String name, String component, List<Problem> problems, List<Problem> warnings) {
        Api api = context.api(Optional.of(name).filter(given -> !given.isEmpty()));
        JsonNode found;
        try {
            found = api.post(Api.path("components", component, "pipeline", "check"),
                    api.object().put("text", read()));
        } catch (Failure failed) {
            if (failed.kind() == Failure.Kind.NOT_FOUND) {
                warnings.add(new Problem(1, 1, "", component
                        + " is not registered there yet: paseo component register looks at its file too, and asks "
                        + "before it registers"));
            } else {
                problems.add(
                        new Problem(1, 1, "", "it could not be checked against the service: " + failed.getMessage()));
            }
            return Optional.empty();
        }
        found.path("problems").forEach(each -> problems.add(problem(each)));
        found.path("warnings").forEach(each -> warnings.add(problem(each)));
        return Optional.of(found);
    }

    private static Problem problem(JsonNode node) {
        return new Problem(node.path("line").asInt(), node.path("column").asInt(), node.path("path").asString(""),
                node.path("message").asString());
    }

    /** The files below the folder that the pipeline file lies in, by their paths from there. */
    private List<String> beside() {
        Path folder = Optional.ofNullable(file.toAbsolutePath().getParent()).orElseThrow();
        try (Stream<Path> all = Files.walk(folder, DEEPEST)) {
            return all.filter(path -> !path.startsWith(folder.resolve(".git"))).filter(Files::isRegularFile)
                    .limit(MOST_FILES)
                    .map(path -> folder.relativize(path).toString().replace('\\', '/')).toList();
        } catch (IOException | UncheckedIOException unreadable) {
            throw new Failure(Failure.Kind.USAGE,
                    "What lies beside " + file + " cannot be read: " + unreadable.getMessage());
        }
    }

    private String read() {
        try {
            return Files.readString(file, StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: "
                    + (Files.exists(file) ? unreadable.getMessage() : "there is no such file"));
        }
    }

    private void describe(PipelineFile pipeline) {
        context.out().println(context.ink().good("good: ") + file + " is the pipeline file of " + pipeline.component());
        context.out().println("starts:  " + (pipeline.starts().isEmpty() ? "only when a person asks"
                : String.join("; ", pipeline.starts().stream().map(Words::of).toList())));
        pipeline.asks()
                .forEach((name, ask) -> context.out()
                        .println("asks:    " + name + ", " + ask.question() + " (" + Words.of(ask.kind())
                                + ", by default " + (ask.standard().isEmpty() ? "nothing" : ask.standard()) + ")"));
        if (pipeline.stages().isEmpty()) {
            context.out().println("stages:  none: " + (pipeline.isOfTree()
                    ? "nothing is built, the commit's files" + pipeline.tree().map(" below "::concat).orElse("")
                            + " are the artifact"
                    : "versions arrive from elsewhere"));
        }
        pipeline.stages().forEach(this::describe);
        List<String> kept = pipeline.stages().stream().flatMap(stage -> stage.keep().keySet().stream()).toList();
        context.out().println("version: " + pipeline.versions() + (kept.isEmpty() ? ""
                : ", with " + String.join(", ", kept)));
        context.out().println("route:   " + (pipeline.route().isEmpty() ? "none" : String.join(" → ", pipeline.route()
                .stream()
                .map(step -> String.join(" and ", step.entrySet().stream().map(entry -> entry.getKey() + " ("
                        + entry.getValue().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-') + ")").toList()))
                .toList())));
    }

    private void describe(PipelineFile.Stage stage) {
        int variants = stage.variants().size();
        context.out().println("stage:   " + context.ink().strong(stage.name())
                + (variants > 1 ? " in " + variants + " variants" : "") + Words.of(stage.order())
                + (stage.conditions().mayFail() ? ", may fail" : "")
                + stage.conditions().wantedIf().map(text -> ", wanted if " + text).orElse("")
                + (stage.wants().isEmpty() ? "" : ", on an agent that offers " + String.join(", ", stage.wants())));
    }
}
