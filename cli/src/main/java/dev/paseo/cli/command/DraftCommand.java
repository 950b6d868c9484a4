package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Failure;
import dev.paseo.language.draft.Draft;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "draft",
        description = "Looks at a repository and prints a first paseo.yaml, with a comment on why each stage is "
                + "there. Asks no service.",
        footer = {"", "Example:", "  paseo draft > paseo.yaml"})
final class DraftCommand implements Callable<Integer> {

    private static final int DEEPEST = 6;
    private static final long LARGEST = 1_000_000;

    @Parameters(arity = "0..1", defaultValue = ".", paramLabel = "FOLDER", description = "default: this folder")
    private Path folder = Path.of(".");

    @Option(names = "--component", paramLabel = "NAME", description = "default: the folder's name")
    private Optional<String> component = Optional.empty();

    @Option(names = "--branch", defaultValue = "main",
            description = "whose pushes start runs; default: ${DEFAULT-VALUE}")
    private String branch = "main";

    @Option(names = {"-h", "--help"}, usageHelp = true, description = "show this help")
    private boolean help;

    private final Context context;

    DraftCommand(Context context) {
        this.context = context;
    }

    @Override
    public Integer call() {
        if (!Files.isDirectory(folder)) {
            throw new Failure(Failure.Kind.USAGE, folder + " is not a folder");
        }
        context.out()
                .print(Draft.of(component.orElseGet(this::name), branch, new Draft.Repository(paths(), this::text)));
        return 0;
    }

    private String name() {
        String name = folder.toAbsolutePath().normalize().getFileName() == null ? "component"
                : folder.toAbsolutePath().normalize().getFileName().toString();
        String slug = name.toLowerCase(java.util.Locale.ROOT).replaceAll("\\.git$", "").replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return slug.isEmpty() ? "component" : slug.substring(0, Math.min(63, slug.length()));
    }

    private Set<String> paths() {
        try (Stream<Path> files = Files.walk(folder, DEEPEST)) {
            return files.filter(Files::isRegularFile).map(path -> folder.relativize(path).toString())
                    .filter(path -> !path.startsWith(".git/"))
                    .collect(Collectors.toSet());
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, folder + " cannot be read: " + unreadable.getMessage());
        }
    }

    private Optional<String> text(String path) {
        Path file = folder.resolve(path);
        try {
            return Files.isRegularFile(file) && Files.size(file) < LARGEST
                    ? Optional.of(Files.readString(file, StandardCharsets.UTF_8)) : Optional.empty();
        } catch (IOException unreadable) {
            return Optional.empty();
        }
    }
}
