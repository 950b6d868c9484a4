package dev.paseo.cli.command;

import dev.paseo.cli.Context;
import dev.paseo.cli.output.Table;
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

/** {@code paseo piece ...}: named parts of pipeline files that others are like. */
final class PieceCommands {

    private static final Map<String, String> STANDINGS = Map.of("current", "the newest", "alike",
            "an older version that says the same", "behind", "its next run takes another that says something else",
            "held-back", "kept from the newest by what it asks for", "broken", "its next run is refused");
    private static final Map<String, String> OUTCOMES = Map.of("unchanged", "says the same", "changed",
            "good, and says "
                    + "something else",
            "broken", "would be refused", "not-taken", "asks for another version");

    private PieceCommands() {}

    @Command(name = "list", description = "The pieces of a component, with what each is given and lets be changed.",
            footer = {"", "Example:", "  paseo piece list park-pieces"})
    static final class ListAll extends ServiceCommand {
        @Parameters(paramLabel = "COMPONENT")
        private String name = "";

        ListAll(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode view = api().get(Api.path("components", name, "pieces"));
            return print(view, () -> {
                context.out().println(view.path("pieces").isEmpty() ? name + " has no pieces"
                        : "The pieces of " + name + " " + view.path("version").asString("(none is sealed yet)"));
                view.path("pieces").forEach(this::piece);
            });
        }

        private void piece(JsonNode view) {
            JsonNode piece = view.path("piece");
            int users = view.path("users").asInt();
            context.out().println();
            context.out().println(context.ink().strong(piece.path("name").asString()) + "  "
                    + piece.path("summary").asString("") + context.ink().quiet("  " + short8(piece.path("digest"))
                            + ", used by " + users + (users == 1 ? " component" : " components")));
            context.out().println("brings " + joined(piece.path("parts")) + "; lets be changed: "
                    + (piece.path("mayChange").isEmpty() ? "nothing" : joined(piece.path("mayChange"))));
            if (!piece.path("inputs").isEmpty()) {
                Table table = new Table("GIVEN", "KIND", "IF ABSENT", "WHAT IT IS");
                piece.path("inputs").forEach(input -> table.row(input.path("name").asString(),
                        input.path("kind").asString()
                                + (input.path("of").isEmpty() ? "" : ": " + joined(input.path("of"))),
                        input.path("standard").asString("has to be given"), input.path("words").asString()));
                table.print(context.out(), context.ink());
            }
        }
    }

    private static String joined(JsonNode texts) {
        return String.join(", ", texts.valueStream().map(JsonNode::asString).toList());
    }

    @Command(name = "users",
            description = "Who uses the pieces of a component, in which version, and what the next run of each takes.",
            footer = {"", "Example:", "  paseo piece users park-pieces --piece java-service"})
    static final class Users extends ServiceCommand {
        @Parameters(paramLabel = "COMPONENT")
        private String name = "";

        @Option(names = "--piece", paramLabel = "NAME", description = "only of this one")
        private Optional<String> piece = Optional.empty();

        Users(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode users = api().get(Api.path("components", name, "pieces", "users")
                    + piece.map(word -> "?piece=" + Api.encode(word)).orElse(""));
            return print(users, () -> {
                if (users.isEmpty()) {
                    context.out()
                            .println("Nobody uses " + piece.map(word -> word + " of ").orElse("a piece of ") + name);
                    return;
                }
                Table table = new Table("COMPONENT", "PIECE", "ASKS FOR", "HAS", "NEXT RUN", "");
                users.forEach(user -> table.row(user.path("component").asString(), user.path("piece").asString()
                        + (user.path("at").asString("").isEmpty() ? "" : " in " + user.path("at").asString()),
                        user.path("wanted").asString(),
                        user.path("version").asString("none")
                                + (user.has("digest") ? " " + short8(user.path("digest")) : ""),
                        user.path("next").asString("none"), standing(user)));
                table.print(context.out(), context.ink());
            });
        }

        private String standing(JsonNode user) {
            String standing = user.path("standing").asString();
            String words = STANDINGS.getOrDefault(standing, standing)
                    + (user.has("why") ? ": " + user.path("why").asString() : "");
            return standing.equals("broken") ? context.ink().bad(words)
                    : standing.equals("behind") || standing.equals("held-back") ? context.ink().warn(words) : words;
        }
    }

    @Command(name = "try",
            description = "Reads the file of everybody who uses the pieces of a component as it would be with a new "
                    + "version of them. Nothing is kept or started; exit code 1 where somebody's would be refused.",
            footer = {"", "Examples:", "  paseo piece try park-pieces --branch longer-checks",
                    "  paseo piece try park-pieces --file paseo.yaml"})
    static final class Try extends ServiceCommand {
        @Parameters(paramLabel = "COMPONENT")
        private String name = "";

        @Option(names = "--branch", paramLabel = "BRANCH", description = "the branch whose file has the new version")
        private Optional<String> branch = Optional.empty();

        @Option(names = "--file", paramLabel = "FILE", description = "a pipeline file that has the new version")
        private Optional<Path> file = Optional.empty();

        Try(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            if (branch.isPresent() == file.isPresent()) {
                throw new Failure(Failure.Kind.USAGE, "Say where the new version is: --branch or --file");
            }
            ObjectNode request = api().object();
            branch.ifPresent(word -> request.put("branch", word));
            file.ifPresent(path -> request.put("text", SourceCommands.read(path)));
            JsonNode trial = api().post(Api.path("components", name, "pieces", "trials"), request);
            print(trial, () -> show(trial));
            return trial.path("problems").isEmpty() && trial.path("users").valueStream()
                    .noneMatch(user -> user.path("outcome").asString().equals("broken")) ? 0 : 1;
        }

        private void show(JsonNode trial) {
            trial.path("problems").forEach(problem -> problem("", problem));
            if (!trial.path("problems").isEmpty()) {
                context.out().println("It has problems of its own, so nobody's file was tried with it.");
                return;
            }
            context.out().println(context.ink().strong(name) + " as it would be in " + trial.path("version").asString()
                    + (trial.path("users").isEmpty() ? ": nobody uses a piece of it" : ""));
            trial.path("users").forEach(user -> {
                String outcome = user.path("outcome").asString();
                String words = OUTCOMES.getOrDefault(outcome, outcome);
                context.out().println();
                context.out().println(context.ink().strong(user.path("component").asString()) + "  "
                        + (outcome.equals("broken") ? context.ink().bad(words) : words)
                        + context.ink().quiet("  asks for " + joined(user.path("wanted"))));
                user.path("problems").forEach(problem -> problem("  ", problem));
                user.path("changes").forEach(line -> context.out().println("  " + coloured(line.asString())));
            });
        }

        private void problem(String indent, JsonNode problem) {
            context.out().println(indent + problem.path("line").asString("") + ":" + problem.path("column").asString("")
                    + ": " + context.ink().bad("error: ") + problem.path("path").asString("") + " "
                    + problem.path("message").asString());
        }

        private String coloured(String line) {
            return line.startsWith("+") ? context.ink().good(line)
                    : line.startsWith("-") ? context.ink().bad(line) : context.ink().quiet(line);
        }
    }

    @Command(name = "file", description = "The pipeline file of a component as it is in force.",
            footer = {"", "Examples:", "  paseo component file daylight-api",
                    "  paseo component file daylight-api --expanded"})
    static final class InForce extends ServiceCommand {
        @Parameters(paramLabel = "NAME")
        private String name = "";

        @Option(names = "--branch", paramLabel = "BRANCH", description = "default: the main branch")
        private Optional<String> branch = Optional.empty();

        @Option(names = "--expanded", description = "with every piece in its place, and where each comes from")
        private boolean expanded;

        InForce(Context context) {
            super(context);
        }

        @Override
        public Integer call() {
            JsonNode file = api().get(Api.path("components", name, "pipeline")
                    + branch.map(word -> "?branch=" + Api.encode(word)).orElse(""));
            print(file, () -> {
                String text = expanded ? file.path("expanded").asString(file.path("text").asString())
                        : file.path("text").asString();
                context.out().print(text.endsWith("\n") ? text : text + "\n");
                file.path("problems").forEach(problem -> context.out().println(file.path("path").asString() + ":"
                        + problem.path("line").asString("") + ": " + context.ink().bad("error: ")
                        + problem.path("message").asString()));
            });
            return file.path("problems").isEmpty() ? 0 : 1;
        }
    }
}
