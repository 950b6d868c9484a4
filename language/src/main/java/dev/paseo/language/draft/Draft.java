package dev.paseo.language.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Looks at the files of a repository and writes a first pipeline file, with a comment on every stage that says why it
 * is there.
 */
public final class Draft {

    /** The repository that is looked at: its paths, and the text of one. */
    public record Repository(Set<String> paths, Function<String, Optional<String>> text) {

        boolean has(String path) {
            return paths.contains(path);
        }
    }

    private record Stage(String name, List<String> why, List<String> lines) {}

    private static final Pattern MAKE_TARGET = Pattern.compile("(?m)^(check|test)\\s*:(?!=)");
    private static final List<String> CONTAINER_FILES = List.of("Containerfile", "Dockerfile");

    private final Repository repository;
    private final List<Stage> stages = new ArrayList<>();

    private Draft(Repository repository) {
        this.repository = repository;
    }

    /** The text of a file for a component of this name; it has no problems. */
    public static String of(String component, String branch, Repository repository) {
        Draft draft = new Draft(repository);
        draft.look();
        return draft.write(component, branch);
    }

    private void look() {
        if (repository.has("pom.xml")) {
            maven();
        }
        if (repository.has("package.json")) {
            npm();
        }
        if (stages.isEmpty() && (repository.has("Makefile") || repository.has("makefile"))) {
            make();
        }
        if (stages.isEmpty()) {
            scripts();
        }
        if (stages.isEmpty() && repository.has("go.mod")) {
            stages.add(new Stage("build",
                    List.of("go.mod is here: Go tests and builds it. Its store of modules is kept from run to run."),
                    List.of("reuse: {key: [go.sum, go.mod], folders: [.go]}", "steps:",
                            "  - GOMODCACHE=$PWD/.go go test ./...",
                            "  - GOMODCACHE=$PWD/.go go build -o out/ ./...",
                            "# keep: {app: out/NAME}    # the file that becomes an artifact")));
        }
        if (stages.isEmpty() && repository.paths().stream().anyMatch(path -> path.endsWith(".py"))) {
            python();
        }
        container();
        if (stages.isEmpty()) {
            stages.add(new Stage("build", List.of("Nothing here says how it is built: put the command in."),
                    List.of("steps: [\"echo put the build's command here\"]")));
        }
    }

    private void maven() {
        boolean many = repository.paths().stream().anyMatch(path -> path.endsWith("/pom.xml"));
        String wrapper = repository.has("mvnw") ? "./mvnw" : "mvn";
        stages.add(new Stage("build", List.of(
                "pom.xml is here" + (many ? ", with modules of their own below it" : "")
                        + ": Maven builds and tests it.",
                "Its store of dependencies is kept from run to run, as long as no pom.xml changes."),
                List.of("reuse: {key: [\"**/pom.xml\"], folders: [.m2]}", "steps:",
                        "  - " + wrapper + " -B -ntp -Dmaven.repo.local=.m2 verify",
                        "reports: {tests: \"**/target/surefire-reports/TEST-*.xml\"}",
                        many ? "# keep: {app: MODULE/target/NAME.jar}    # the file that becomes an artifact"
                                : "# keep: {app: target/NAME.jar}    # the file that becomes an artifact")));
    }

    private void npm() {
        String text = repository.text().apply("package.json").orElse("");
        boolean locked = repository.has("package-lock.json");
        List<String> steps = new ArrayList<>(
                List.of("steps:", "  - npm " + (locked ? "ci" : "install") + " --cache .npm"));
        for (String script : List.of("lint", "test", "build")) {
            if (Pattern.compile("\"" + script + "\"\\s*:").matcher(text).find()) {
                steps.add("  - npm " + (script.equals("test") ? "test" : "run " + script));
            }
        }
        List<String> lines = new ArrayList<>(
                List.of("reuse: {key: [" + (locked ? "package-lock.json" : "package.json") + "], folders: [.npm]}"));
        lines.addAll(steps);
        stages.add(new Stage(stages.isEmpty() ? "build" : "page",
                List.of("package.json is here: npm installs what it needs and runs its scripts."), lines));
    }

    private void python() {
        boolean pytest = repository.has("pytest.ini") || repository.has("conftest.py")
                || repository.text().apply("pyproject.toml").filter(text -> text.contains("pytest")).isPresent();
        String why = "Python is here" + (pytest ? ", with pytest" : "")
                + ": it is tested, and what is deployed is packed into one file.";
        stages.add(new Stage("build", List.of(why),
                List.of("steps:",
                        pytest ? "  - python3 -m pytest --junitxml=reports/tests.xml"
                                : "  - python3 -m unittest discover -p \"*test*.py\"",
                        "  - mkdir -p out && tar -czf out/app.tar.gz *.py    # correct what belongs into it",
                        pytest ? "reports: {tests: reports/tests.xml}" : "keep: {app: out/app.tar.gz}",
                        pytest ? "keep: {app: out/app.tar.gz}"
                                : "# reports: {tests: \"reports/*.xml\"}    # where its tests write JUnit XML")));
    }

    private void make() {
        String text = repository.text().apply(repository.has("Makefile") ? "Makefile" : "makefile").orElse("");
        stages.add(new Stage("build", List.of("A Makefile is here: its first target builds."),
                List.of("steps: [make]", "files: [\"**\"]")));
        Matcher target = MAKE_TARGET.matcher(text);
        if (target.find()) {
            stages.add(new Stage("unit-tests",
                    List.of("It has the target " + target.group(1) + ", which tests what was built."),
                    List.of("steps: [make " + target.group(1) + "]")));
        }
    }

    private void scripts() {
        script("build", List.of("build.sh", "script/build", "scripts/build.sh", "bin/build"), "builds it")
                .ifPresent(stages::add);
        script("unit-tests", List.of("test.sh", "script/test", "scripts/test.sh", "bin/test"), "tests it")
                .ifPresent(stages::add);
        if (stages.size() == 2) {
            stages.getFirst().lines()
                    .add("files: [\"out/**\"]    # what the stage after this one finds; correct the folder");
        }
    }

    private Optional<Stage> script(String name, List<String> paths, String does) {
        return paths.stream().filter(repository::has).findFirst()
                .map(path -> new Stage(name, List.of(path + " is here, and by its name " + does + "."),
                        new ArrayList<>(List.of("steps: [./" + path + "]"))));
    }

    private void container() {
        CONTAINER_FILES.stream().filter(repository::has).findFirst().ifPresent(file -> stages.add(new Stage("image",
                List.of(
                        file + " is here: an image is built from it, on an agent that offers containers.",
                        "Write the step that builds it above the one below; it has to leave out/image.tar behind, "
                                + "an archive in the OCI layout."),
                List.of("wants: [containers]", "steps:",
                        "  - test -s out/image.tar || { echo \"no step has left out/image.tar behind\" >&2; exit 1; }",
                        "keep: {image: out/image.tar}"))));
    }

    private String write(String component, String branch) {
        StringBuilder text = new StringBuilder(
                "# A first draft, from what is in the repository. Correct it, and check it: paseo check\npaseo: "
                        + "1\ncomponent: "
                        + component + "\n");
        repository.text().apply("README.md").or(() -> repository.text().apply("README")).flatMap(Draft::title)
                .ifPresent(title -> text.append("summary: \"").append(title).append("\"\n"));
        text.append("versions: \"0.1.{serial}\"       # {serial} counts runs\n\nstarts:\n  - push: [")
                .append(quoted(branch))
                .append("]              # a push to another branch starts nothing\n\nstages:\n");
        for (Stage stage : stages) {
            stage.why().forEach(why -> text.append("  # ").append(why).append('\n'));
            text.append("  ").append(stage.name()).append(":\n");
            stage.lines().forEach(line -> text.append("    ").append(line).append('\n'));
        }
        text.append("""

                # Once a stage keeps an artifact, this brings it to hosts, and the route says where:
                # deployment:
                #   on-each-host: [deploy/install.sh]
                # route:
                #   - test: automatic
                #   - production: on-request
                """);
        return text.toString();
    }

    private static String quoted(String branch) {
        return branch.matches("[A-Za-z0-9/_.-]+") ? branch : "\"" + branch.replace("\"", "") + "\"";
    }

    /** The first heading, or the first line. */
    private static Optional<String> title(String readme) {
        return readme.lines().map(line -> line.replaceFirst("^#+\\s*", "").strip()).filter(line -> !line.isEmpty())
                .findFirst()
                .map(line -> line.replaceAll("[\"\\\\]", "").chars().limit(200)
                        .mapToObj(sign -> String.valueOf((char) sign)).collect(Collectors.joining()));
    }
}
