package dev.paseo.language.draft;

import dev.paseo.language.draft.Built.Form;
import dev.paseo.language.draft.Built.Stage;
import dev.paseo.language.draft.Draft.Repository;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** What is interpreted, packed or served as it is. */
final class ScriptBuilds {

    private static final Pattern SERVES = Pattern
            .compile("\"(express|fastify|koa|hono|@nestjs/core|next|nuxt)\"\\s*:");

    private ScriptBuilds() {}

    static Built npm(Repository repository, Answers answers) {
        String text = repository.text().apply("package.json").orElse("");
        boolean locked = repository.has("package-lock.json");
        List<String> lines = new ArrayList<>(List.of(
                "reuse: {key: [" + (locked ? "package-lock.json" : "package.json") + "], folders: [.npm]}", "steps:",
                "  - npm " + (locked ? "ci" : "install") + " --cache .npm"));
        Stream.of("lint", "test", "build").filter(script -> has(text, script))
                .forEach(script -> lines.add("  - npm " + (script.equals("test") ? "test" : "run " + script)));
        List<String> why = List.of("package.json is here: npm installs what it needs and runs its scripts.");
        boolean page = has(text, "build") && !SERVES.matcher(text).find();
        String what = answers.oneOf("what", "What comes of it?", List.of("page", "program"), page ? "page" : "program");
        if (what.equals("page")) {
            String folder = answers.shaped("page", "Into which folder is the page built?", Repository.PATH,
                    "a folder of the repository", text.contains("react-scripts") ? "build" : "dist");
            lines.add("  - mkdir -p out && tar -czf out/page.tar.gz -C " + Draft.quoted(folder) + " .");
            lines.add("keep: {page: out/page.tar.gz}");
            return Built.of(Form.PAGE, "page", new Stage("build", why, lines));
        }
        lines.add("  - npm prune --omit=dev --cache .npm");
        lines.add("  - mkdir -p out && tar -czf out/app.tar.gz --exclude=./out --exclude=./.npm .");
        lines.add("keep: {app: out/app.tar.gz}");
        return Built.of(Form.ARCHIVE, "app", new Stage("build", why, lines));
    }

    private static boolean has(String text, String script) {
        return Pattern.compile("\"" + script + "\"\\s*:").matcher(text).find();
    }

    static Built python(Repository repository, Answers answers) {
        boolean pytest = repository.has("pytest.ini") || repository.has("conftest.py")
                || repository.has("tests/conftest.py")
                || repository.text().apply("pyproject.toml").filter(text -> text.contains("pytest")).isPresent();
        boolean tests = repository.paths().stream()
                .anyMatch(path -> path.matches("(.*/)?(test_[^/]*|[^/]*_test)\\.py"));
        List<String> lines = new ArrayList<>(List.of("steps:"));
        if (pytest) {
            lines.add("  - python3 -m pytest --junitxml=reports/tests.xml");
        } else if (tests) {
            lines.add("  - python3 -m unittest discover -p \"*test*.py\"");
        }
        boolean requires = repository.has("requirements.txt");
        if (requires) {
            lines.add("  - python3 -m pip install --quiet --target lib -r requirements.txt");
        }
        lines.add("  - mkdir -p out && tar -czf out/app.tar.gz --exclude=./out --exclude=./reports "
                + "--exclude=__pycache__ .");
        if (pytest) {
            lines.add("reports: {tests: reports/tests.xml}");
        }
        lines.add("keep: {app: out/app.tar.gz}");
        return Built.of(Form.ARCHIVE, "app", new Stage("build", List.of("Python is here"
                + (pytest ? ", with pytest: it is tested" : tests ? ": it is tested" : "")
                + ", and what is deployed is packed into one file"
                + (requires ? ", with what it requires in lib (PYTHONPATH=lib)." : ".")), lines));
    }

    static Built scripts(Repository repository, Answers answers) {
        List<Stage> stages = new ArrayList<>();
        script(repository, "build", List.of("build.sh", "script/build", "scripts/build.sh", "bin/build"), "builds it")
                .ifPresent(stages::add);
        script(repository, "unit-tests", List.of("test.sh", "script/test", "scripts/test.sh", "bin/test"), "tests it")
                .ifPresent(stages::add);
        if (stages.size() == 2) {
            stages.getFirst().lines().add("files: [\"**\"]");
        }
        return NativeBuilds.left(answers, stages.getFirst(), stages, "the script");
    }

    private static Optional<Stage> script(Repository repository, String name, List<String> paths, String does) {
        return paths.stream().filter(repository::has).findFirst()
                .map(path -> new Stage(name, List.of(path + " is here, and by its name " + does + "."),
                        new ArrayList<>(List.of("steps: [./" + path + "]"))));
    }

    /** Nothing is built: the commit's files are the artifact, below the folder with the page where there is one. */
    static Built files(Repository repository, Answers answers) {
        String folder = repository.has("index.html") ? ""
                : Stream.of("site", "public", "www", "html", "docs")
                        .filter(each -> repository.has(each + "/index.html"))
                        .findFirst().orElse("");
        String tree = answers.shaped("tree", "Which folder's files are deployed? Empty: all files of the commit",
                Pattern.compile("|" + Repository.PATH.pattern()), "a folder of the repository, or nothing", folder);
        if (!tree.isEmpty() && repository.paths().stream().noneMatch(path -> path.startsWith(tree + "/"))) {
            throw new WrongAnswer("tree", "tree should be a folder of the repository; there is none named " + tree);
        }
        return new Built(List.of(), Optional.of(tree).filter(path -> !path.isEmpty()), Optional.of("tree"), Form.PAGE);
    }
}
