package dev.paseo.language.draft;

import dev.paseo.language.draft.Built.Form;
import dev.paseo.language.draft.Built.Stage;
import dev.paseo.language.draft.Draft.Repository;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Builds that leave a program of the machine, or an image. */
final class NativeBuilds {

    private static final Pattern MAKE_TARGET = Pattern.compile("(?m)^(check|test)\\s*:(?!=)");
    private static final Pattern CRATE = Pattern
            .compile("(?s)\\[package].*?\\bname\\s*=\\s*\"([A-Za-z0-9_-]+)\"");
    /** The last part of a module's path, without its major version. */
    private static final Pattern MODULE = Pattern
            .compile("(?m)^module\\s+(?:\\S*/)?(?!v\\d+\\s*$)([A-Za-z0-9._-]+)(?:/v\\d+)?\\s*$");
    private static final Pattern EXPOSED = Pattern.compile("(?mi)^EXPOSE\\s+(\\d{1,5})");

    private NativeBuilds() {}

    static Built go(Repository repository, Answers answers) {
        Optional<String> command = repository.paths().stream().filter(path -> path.matches("cmd/[^/]+/main\\.go"))
                .sorted().findFirst().map(path -> path.split("/")[1]);
        String name = command.or(() -> found(MODULE, repository, "go.mod")).orElse("app");
        String what = command.map(each -> "./cmd/" + each).orElse(".");
        return Built.of(Form.BINARY, "app", new Stage("build", List.of(
                "go.mod is here: Go tests and builds it. Its store of modules is kept from run to run."),
                List.of("reuse: {key: [go.sum, go.mod], folders: [.go]}", "steps:",
                        "  - GOMODCACHE=$PWD/.go go test ./...",
                        "  - GOMODCACHE=$PWD/.go CGO_ENABLED=0 go build -trimpath -o out/" + name + " " + what,
                        "keep: {app: out/" + name + "}")));
    }

    static Built rust(Repository repository, Answers answers) {
        String name = answers.shaped("artifact", "Which program does Cargo build that is deployed? Its name",
                Pattern.compile("[A-Za-z0-9_-]*"), "a name of letters, digits, _ and -",
                found(CRATE, repository, "Cargo.toml").orElse(""));
        Stage stage = new Stage("build", List.of("Cargo.toml is here: Cargo tests and builds it.",
                "What it fetched and built is kept from run to run, as long as what it depends on stays."),
                new ArrayList<>(List.of("reuse: {key: [\"**/Cargo.toml\", Cargo.lock], folders: [.cargo-home, target]}",
                        "steps:", "  - CARGO_HOME=$PWD/.cargo-home cargo test --release",
                        "  - CARGO_HOME=$PWD/.cargo-home cargo build --release")));
        if (name.isEmpty()) {
            return Built.unknown(List.of(stage));
        }
        stage.lines().add("keep: {app: target/release/" + name + "}");
        return Built.of(Form.BINARY, "app", stage);
    }

    static Built make(Repository repository, Answers answers) {
        String file = Stream.of("GNUmakefile", "makefile", "Makefile").filter(repository::has).findFirst()
                .orElseThrow();
        Matcher target = MAKE_TARGET.matcher(repository.text().apply(file).orElse(""));
        Stage build = new Stage("build", List.of("A Makefile is here: its first target builds."),
                new ArrayList<>(List.of("steps: [make]")));
        List<Stage> stages = new ArrayList<>(List.of(build));
        if (target.find()) {
            build.lines().add("files: [\"**\"]");
            stages.add(new Stage("unit-tests",
                    List.of("It has the target " + target.group(1) + ", which tests what was built."),
                    List.of("steps: [make " + target.group(1) + "]")));
        }
        return left(answers, build, stages, "make");
    }

    /** A program or an archive that was left somewhere, which only a person knows. */
    static Built left(Answers answers, Stage build, List<Stage> stages, String by) {
        String artifact = answers.shaped("artifact",
                "Which file does " + by + " leave that is deployed? A path, or a pattern that matches one file",
                Repository.PATTERN, Repository.PATTERN_WORDS, "");
        if (artifact.isEmpty()) {
            return Built.unknown(stages);
        }
        build.lines().add("keep: {app: " + Draft.quoted(artifact) + "}");
        Form form = artifact.endsWith(".jar") ? Form.JAR
                : artifact.matches(".*\\.(tar|tgz|tar\\.gz|tar\\.xz|tar\\.bz2)") ? Form.ARCHIVE : Form.BINARY;
        return new Built(stages, Optional.empty(), Optional.of("app"), form);
    }

    static Built container(Repository repository, Answers answers) {
        String file = repository.has("Containerfile") ? "Containerfile" : "Dockerfile";
        String engine = answers.oneOf("engine", "Which engine builds images on the agent, and runs them on hosts?",
                List.of("podman", "docker"), "podman");
        return Built.of(Form.IMAGE, "image", new Stage("image",
                List.of(file + " is here: an image is built from it, on an agent that offers containers."),
                List.of("wants: [containers]", "steps:",
                        "  - " + engine + " build -f " + file + " -t \"$PASEO_COMPONENT:$PASEO_VERSION\" .",
                        "  - mkdir -p out && " + engine + " save -o out/image.tar \"$PASEO_COMPONENT:$PASEO_VERSION\"",
                        "keep: {image: out/image.tar}")));
    }

    /** The port that a container file names. */
    static String port(Repository repository) {
        return found(EXPOSED, repository, "Containerfile").or(() -> found(EXPOSED, repository, "Dockerfile"))
                .orElse("8080");
    }

    private static Optional<String> found(Pattern pattern, Repository repository, String path) {
        return repository.text().apply(path).map(pattern::matcher).filter(Matcher::find).map(found -> found.group(1));
    }
}
