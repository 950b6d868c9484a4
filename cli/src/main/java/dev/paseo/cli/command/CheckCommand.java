package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Failure;
import dev.paseo.language.Problem;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "check", description = "Checks a pipeline file without asking a service: errors by line, what would start it, its stages and its route.",
        footer = {"", "Example:", "  paseo check paseo.yaml"})
final class CheckCommand implements Callable<Integer> {

    @Parameters(arity = "0..1", defaultValue = "paseo.yaml", paramLabel = "FILE", description = "default: ${DEFAULT-VALUE}")
    private Path file = Path.of("paseo.yaml");

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    private final Context context;

    CheckCommand(Context context) {
        this.context = context;
    }

    @Override
    public Integer call() {
        Reading<PipelineFile> reading = PipelineFileReader.read(read());
        for (Problem problem : reading.problems()) {
            context.out().println(file + ":" + problem.line() + ":" + problem.column() + ": " + context.ink().bad("error: ")
                    + (problem.path().isEmpty() ? "" : problem.path() + " ") + problem.message());
        }
        for (Problem warning : reading.warnings()) {
            context.out().println(file + ":" + warning.line() + ":" + warning.column() + ": " + context.ink().warn("warning: ") + warning.path() + " " + warning.message());
        }
        reading.value().ifPresent(this::describe);
        return reading.problems().isEmpty() ? 0 : 1;
    }

    private String read() {
        try {
            return Files.readString(file, StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: " + (Files.exists(file) ? unreadable.getMessage() : "there is no such file"));
        }
    }

    private void describe(PipelineFile pipeline) {
        context.out().println(context.ink().good("good: ") + file + " is the pipeline file of " + pipeline.component());
        context.out().println("starts:  " + (pipeline.starts().isEmpty() ? "only when a person asks"
                : String.join("; ", pipeline.starts().stream().map(Words::of).toList())));
        pipeline.asks().forEach((name, ask) -> context.out().println("asks:    " + name + ", " + ask.question() + " (" + Words.of(ask.kind())
                + ", by default " + (ask.standard().isEmpty() ? "nothing" : ask.standard()) + ")"));
        if (pipeline.stages().isEmpty()) {
            context.out().println("stages:  none");
        }
        pipeline.stages().forEach(this::describe);
        context.out().println("version: " + pipeline.versions() + ", with "
                + String.join(", ", pipeline.stages().stream().flatMap(stage -> stage.keep().keySet().stream()).toList()));
        context.out().println("route:   " + (pipeline.route().isEmpty() ? "none" : String.join(" → ", pipeline.route().stream()
                .map(step -> String.join(" and ", step.entrySet().stream().map(entry -> entry.getKey() + " ("
                        + entry.getValue().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-') + ")").toList())).toList())));
    }

    private void describe(PipelineFile.Stage stage) {
        int variants = stage.variants().size();
        context.out().println("stage:   " + context.ink().strong(stage.name()) + (variants > 1 ? " in " + variants + " variants" : "") + Words.of(stage.order())
                + (stage.conditions().mayFail() ? ", may fail" : "") + stage.conditions().wantedIf().map(text -> ", wanted if " + text).orElse("")
                + (stage.wants().isEmpty() ? "" : ", on an agent that offers " + String.join(", ", stage.wants())));
    }
}
