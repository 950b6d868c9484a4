package dev.paseo.language.draft;

import dev.paseo.language.NearestName;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Looks at the files of a repository and writes a first pipeline file, to the end: stages, deployment and route, each
 * with a comment that says why it is there. What the files do not tell is asked.
 */
public final class Draft {

    /** The repository that is looked at: its paths, and the text of one. */
    public record Repository(Set<String> paths, Function<String, Optional<String>> text) {

        static final Pattern PATTERN = Pattern.compile("|[A-Za-z0-9_*\\[][A-Za-z0-9_./*?\\[\\]+-]{0,199}");
        static final String PATTERN_WORDS = "a path below the repository, or a pattern; empty: none is deployed";
        static final Pattern PATH = Pattern.compile("[A-Za-z0-9_][A-Za-z0-9_.-]*(/[A-Za-z0-9_][A-Za-z0-9_.-]*)*");

        boolean has(String path) {
            return paths.contains(path);
        }
    }

    /**
     * An environment that exists.
     *
     * @param hosts how many hosts it has, about
     */
    public record Environment(String name, int hosts) {}

    /**
     * A draft.
     *
     * @param text a file that has no problems
     * @param asked what was asked, with what holds
     */
    public record Drafted(String text, List<Question> asked) {}

    private static final Pattern NAMES = Pattern.compile("|[a-z0-9-]+(\\s*[, ]\\s*[a-z0-9-]+)*");

    private final String component;
    private final Repository repository;
    private final Answers answers;
    private final StringBuilder text = new StringBuilder();

    private Draft(String component, Repository repository, Answers answers) {
        this.component = component;
        this.repository = repository;
        this.answers = answers;
    }

    /**
     * A first file for a component of this name.
     *
     * @param environments those that there are, in their order; empty: they are not known here
     * @param answers      to questions of a draft before, by their names
     * @throws WrongAnswer where one cannot be used, or answers nothing; and where there is nothing to look at
     */
    public static Drafted of(String component, String branch, Repository repository, List<Environment> environments,
            Map<String, String> answers) {
        if (repository.paths().isEmpty()) {
            throw new WrongAnswer("", "The repository has no files on " + branch + ": there is nothing to draft from");
        }
        Draft draft = new Draft(component, repository, new Answers(answers));
        return draft.write(branch, environments);
    }

    private Drafted write(String branch, List<Environment> environments) {
        List<Kind> kinds = Kind.of(repository);
        Kind kind = kinds.size() == 1 ? kinds.getFirst() : oneOf(kinds);
        Built built = kind.build(repository, answers);
        List<String> route = route(environments);
        Optional<List<String>> recipe = new RecipeDraft(component, repository, built, answers)
                .lines(hosts(route, environments));
        head(branch, kinds, kind);
        stages(built);
        recipe.ifPresentOrElse(this::deployment, () -> text.append("""

                # Which file is deployed was not said, or that none is. Once it is, this brings it to hosts:
                # deployment:
                #   on-each-host: [deploy/install.sh]
                """));
        walk(recipe.isPresent() ? route : List.of());
        return new Drafted(text.toString(), answers.asked());
    }

    private Kind oneOf(List<Kind> kinds) {
        List<String> words = kinds.stream().map(kind -> kind.word).toList();
        String word = answers.oneOf("build", "What of this builds what is deployed?", words, words.getFirst());
        return kinds.get(words.indexOf(word));
    }

    private List<String> route(List<Environment> environments) {
        List<String> known = environments.stream().map(Environment::name).toList();
        String answer = answers.shaped("environments",
                "Through which environments does a version walk, in their order? "
                        + (known.isEmpty() ? "" : "There are " + String.join(", ", known) + ". ")
                        + "Empty: through none",
                NAMES,
                "environments' names with commas between them", String.join(", ", known));
        List<String> route = Stream.of(answer.split("[,\\s]+")).filter(name -> !name.isEmpty()).distinct().toList();
        route.stream().filter(name -> !known.isEmpty() && !known.contains(name)).findFirst().ifPresent(name -> {
            throw new WrongAnswer("environments",
                    "There is no environment " + name + NearestName.hint(name, known));
        });
        return route;
    }

    /** How many hosts a version comes to at once. */
    private int hosts(List<String> route, List<Environment> environments) {
        if (!environments.isEmpty()) {
            return environments.stream().filter(each -> route.contains(each.name())).mapToInt(Environment::hosts).max()
                    .orElse(1);
        }
        return route.isEmpty() ? 1 : Integer.parseInt(answers.shaped("hosts",
                "How many hosts does the largest of these environments have?", Pattern.compile("[1-9]\\d{0,3}"),
                "a whole number from 1", "1"));
    }

    private void head(String branch, List<Kind> kinds, Kind kind) {
        text.append("# A first draft, from what is in the repository. Correct it, and check it: paseo check\n");
        kinds.stream().filter(other -> other != kind).forEach(
                other -> text.append("# Not built here: ").append(other.sign).append(" (").append(other.word)
                        .append(").\n"));
        text.append("paseo: 1\ncomponent: ").append(component).append('\n');
        repository.text().apply("README.md").or(() -> repository.text().apply("README")).flatMap(Draft::title)
                .ifPresent(title -> text.append("summary: \"").append(title).append("\"\n"));
        text.append("versions: \"0.1.{serial}\"       # {serial} counts runs\n\nstarts:\n  - push: [")
                .append(quoted(branch)).append("]              # a push to another branch starts nothing\n");
    }

    private void stages(Built built) {
        if (built.stages().isEmpty()) {
            text.append("\n# Nothing is built: the commit's files are the artifact.\n");
            built.tree().ifPresent(folder -> text.append("tree: ").append(folder).append('\n'));
            return;
        }
        text.append("\nstages:\n");
        for (Built.Stage stage : built.stages()) {
            stage.why().forEach(why -> text.append("  # ").append(why).append('\n'));
            text.append("  ").append(stage.name()).append(":\n");
            stage.lines().forEach(line -> text.append("    ").append(line).append('\n'));
        }
    }

    private void deployment(List<String> lines) {
        text.append("\ndeployment:\n");
        lines.forEach(line -> text.append("  ").append(line).append('\n'));
    }

    /** By itself to all but the last of several, where a person decides. */
    private void walk(List<String> names) {
        if (names.isEmpty()) {
            text.append("""

                    # Where a version goes by itself, and where a person asks for it:
                    # route:
                    #   - test: automatic
                    #   - production: on-request
                    """);
            return;
        }
        text.append("\n# By itself as far as the last environment, where a person asks for it.\nroute:\n");
        for (int at = 0; at < names.size(); at++) {
            text.append("  - ").append(names.get(at)).append(": ")
                    .append(at > 0 && at == names.size() - 1 ? "on-request" : "automatic").append('\n');
        }
    }

    /** A word as it may stand in a list of YAML. */
    static String quoted(String word) {
        return word.matches("[A-Za-z0-9/_.-]+") ? word : "'" + word.replace("'", "''") + "'";
    }

    /** A line as YAML takes it, whatever it has: between single quotes where it has to be. */
    static String single(String line) {
        return line.matches("[A-Za-z][A-Za-z0-9/_.=-]* [A-Za-z0-9 /_.=-]*") ? line
                : "'" + line.replace("'", "''") + "'";
    }

    /** The first heading, or the first line. */
    private static Optional<String> title(String readme) {
        return readme.lines().map(line -> line.replaceFirst("^#+\\s*", "").strip()).filter(line -> !line.isEmpty())
                .findFirst()
                .map(line -> line.replaceAll("[\"\\\\\\p{Cc}\\u2028\\u2029]", "").chars().limit(200)
                        .mapToObj(sign -> String.valueOf((char) sign)).collect(Collectors.joining()));
    }
}
