package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.service.Api;
import dev.paseo.cli.service.Failure;
import dev.paseo.cli.output.Table;
import dev.paseo.language.Document;
import dev.paseo.language.Value;
import dev.paseo.language.draft.Draft;
import dev.paseo.language.draft.LikeAnother;
import dev.paseo.language.draft.Question;
import dev.paseo.language.draft.WrongAnswer;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "draft",
        description = {"Looks at a repository and prints a first paseo.yaml, to the end: stages, deployment and route, "
                + "each with a comment on why it is there. Asks no service, but for --like.",
                "What the files do not tell is asked at a terminal; in a script it is answered with --answer or "
                        + "--answers, and what is not answered takes what is likely."},
        footer = {"", "Examples:", "  paseo draft --into paseo.yaml", "  paseo draft --questions",
                "  paseo draft --like daylight-api --into paseo.yaml",
                "  paseo draft --answer 'environments=test, production' --answer deployed=service > paseo.yaml"})
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

    @Option(names = "--answer", paramLabel = "NAME=ANSWER",
            description = "an answer to what is asked; may be given several times")
    private Map<String, String> answers = new LinkedHashMap<>();

    @Option(names = "--answers", paramLabel = "FILE", description = "a file with a line NAME: ANSWER for each (YAML)")
    private Optional<Path> answersFile = Optional.empty();

    @Option(names = "--questions", description = "prints what is asked, and what holds, instead of the draft")
    private boolean questions;

    @Option(names = "--into", paramLabel = "FILE", description = "a new file for the draft; default: it is printed")
    private Optional<Path> into = Optional.empty();

    @Option(names = "--like", paramLabel = "COMPONENT",
            description = "begins as the pipeline file of this component, which a service is asked for")
    private Optional<String> like = Optional.empty();

    @Option(names = "--service", paramLabel = "NAME|URL",
            description = "the service to ask for it; default: the one signed in to last")
    private Optional<String> service = Optional.empty();

    @Option(names = "--anyway", description = "also where the folder has a paseo.yaml already")
    private boolean anyway;

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
        into.filter(Files::exists).ifPresent(file -> {
            throw new Failure(Failure.Kind.USAGE, file + " is here already; name another with --into");
        });
        Path there = folder.resolve("paseo.yaml");
        if (!anyway && Files.exists(there)) {
            throw new Failure(Failure.Kind.USAGE,
                    there + " is here already: check it with paseo check, or say --anyway for a draft beside it");
        }
        if (like.isPresent()) {
            write(LikeAnother.of(context.api(service).get(Api.path("components", like.get(), "pipeline")).path("text")
                    .asString(), like.get(), component.orElseGet(this::name)));
            return 0;
        }
        Map<String, String> given = new LinkedHashMap<>();
        answersFile.ifPresent(file -> given.putAll(read(file)));
        given.putAll(answers);
        Draft.Repository repository = new Draft.Repository(paths(), this::text);
        Draft.Drafted drafted = draft(repository, given);
        if (questions) {
            tell(drafted);
            return 0;
        }
        if (given.isEmpty()) {
            drafted = asked(repository, drafted);
        }
        write(drafted.text());
        return 0;
    }

    private Draft.Drafted draft(Draft.Repository repository, Map<String, String> given) {
        try {
            return Draft.of(component.orElseGet(this::name), branch, repository, List.of(), given);
        } catch (WrongAnswer wrong) {
            throw new Failure(Failure.Kind.USAGE, String.valueOf(wrong.getMessage()));
        }
    }

    /** Asks at a terminal, one question after the other: what is answered may bring about others. */
    private Draft.Drafted asked(Draft.Repository repository, Draft.Drafted first) {
        Map<String, String> given = new LinkedHashMap<>();
        Draft.Drafted drafted = first;
        Optional<Question> next = open(drafted, given);
        while (next.isPresent()) {
            Question question = next.get();
            Optional<String> answer = Asking.text(context, question.words()
                    + (question.of().isEmpty() ? "" : " (" + String.join(", ", question.of()) + ")"),
                    question.standard());
            if (answer.isEmpty()) {
                return drafted;
            }
            try {
                given.put(question.name(), answer.get());
                drafted = draft(repository, given);
            } catch (Failure wrong) {
                given.remove(question.name());
                context.out().println(context.ink().warn(String.valueOf(wrong.getMessage())));
            }
            next = open(drafted, given);
        }
        return drafted;
    }

    private static Optional<Question> open(Draft.Drafted drafted, Map<String, String> given) {
        return drafted.asked().stream().filter(question -> !given.containsKey(question.name())).findFirst();
    }

    private void tell(Draft.Drafted drafted) {
        Table table = new Table("NAME", "HOLDS", "QUESTION");
        drafted.asked().forEach(question -> table.row(question.name(),
                question.answer().isEmpty() ? "nothing" : question.answer(), question.words()
                        + (question.of().isEmpty() ? "" : " One of " + String.join(", ", question.of()))));
        table.print(context.out(), context.ink());
    }

    private void write(String text) {
        if (into.isEmpty()) {
            context.out().print(text);
            return;
        }
        try {
            Files.writeString(into.get(), text, StandardOpenOption.CREATE_NEW);
            context.out().println("The draft is in " + into.get() + "; correct it, and check it: paseo check "
                    + into.get());
        } catch (IOException failed) {
            throw new Failure(Failure.Kind.USAGE, into.get() + " cannot be written: " + failed.getMessage());
        }
    }

    private static Map<String, String> read(Path file) {
        try {
            Document document = new Document(Files.readString(file));
            Map<String, String> answers = new LinkedHashMap<>();
            document.root().map(Value::entries).orElse(Map.of())
                    .forEach((name, value) -> answers.put(name, value.plain()));
            document.reading(Optional.of(answers)).problems().stream().findFirst().ifPresent(problem -> {
                throw new Failure(Failure.Kind.USAGE, file + ":" + problem);
            });
            return answers;
        } catch (IOException unreadable) {
            throw new Failure(Failure.Kind.USAGE, file + " cannot be read: " + unreadable.getMessage());
        }
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
