package dev.paseo.language.draft;

import dev.paseo.language.draft.Draft.Repository;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.Stream;

/** What a repository may be built with, the likeliest first. */
enum Kind {
    MAVEN("maven", "pom.xml is here", JavaBuilds::maven, "pom.xml"),
    GRADLE("gradle", "a Gradle build is here", JavaBuilds::gradle, "build.gradle", "build.gradle.kts",
            "settings.gradle", "settings.gradle.kts"),
    NPM("npm", "package.json is here", ScriptBuilds::npm, "package.json"),
    GO("go", "go.mod is here", NativeBuilds::go, "go.mod"),
    RUST("rust", "Cargo.toml is here", NativeBuilds::rust, "Cargo.toml"),
    PYTHON("python", "Python is here", ScriptBuilds::python, "pyproject.toml", "setup.py", "requirements.txt",
            "setup.cfg"),
    MAKE("make", "a Makefile is here", NativeBuilds::make, "Makefile", "makefile", "GNUmakefile"),
    SCRIPTS("scripts", "scripts are here", ScriptBuilds::scripts, "build.sh", "script/build", "scripts/build.sh",
            "bin/build", "test.sh", "script/test", "scripts/test.sh", "bin/test"),
    CONTAINER("container", "a container file is here", NativeBuilds::container, "Containerfile", "Dockerfile"),
    FILES("files", "plain files are here", ScriptBuilds::files);

    /** As it is answered. */
    final String word;
    final String sign;
    private final BiFunction<Repository, Answers, Built> build;
    private final List<String> signs;

    Kind(String word, String sign, BiFunction<Repository, Answers, Built> build, String... signs) {
        this.word = word;
        this.sign = sign;
        this.build = build;
        this.signs = List.of(signs);
    }

    /** Those that there are signs of; plain files where there are no others. */
    static List<Kind> of(Repository repository) {
        List<Kind> found = Stream.of(values()).filter(kind -> kind.signs.stream().anyMatch(repository::has)
                || kind == PYTHON && repository.paths().stream().anyMatch(path -> path.matches("[^/]+\\.py")))
                .toList();
        return found.isEmpty() ? List.of(FILES) : found;
    }

    Built build(Repository repository, Answers answers) {
        return build.apply(repository, answers);
    }
}
