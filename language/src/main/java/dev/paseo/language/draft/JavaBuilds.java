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

/** Builds that leave a jar. */
final class JavaBuilds {

    private static final Pattern ARTIFACT = Pattern.compile("<artifactId>\\s*([\\w.-]+)\\s*</artifactId>");
    private static final Pattern NAME = Pattern.compile("<finalName>\\s*([\\w.-]+)\\s*</finalName>");
    /** What makes a jar that runs by itself, or an application of it. */
    private static final Pattern RUNS = Pattern.compile(
            "spring-boot-maven-plugin|maven-shade-plugin|maven-assembly-plugin|<mainClass>|quarkus-maven-plugin"
                    + "|org\\.springframework\\.boot['\"]|id\\s*\\(?['\"]application['\"]|com\\.gradleup\\.shadow");
    private static final String WHICH = "Which file does the build leave that is deployed? A path, or a pattern that "
            + "matches one file";

    private JavaBuilds() {}

    static Built maven(Repository repository, Answers answers) {
        List<String> modules = below(repository, "pom.xml");
        String wrapper = repository.has("mvnw") ? "./mvnw" : "mvn";
        List<String> why = new ArrayList<>(List.of("pom.xml is here"
                + (modules.isEmpty() ? "" : ", with modules of their own below it") + ": Maven builds and tests it"
                + (repository.has("mvnw") ? ", by the wrapper that the repository brings" : "") + ".",
                "Its store of dependencies is kept from run to run, as long as no pom.xml changes."));
        String module = module(repository, modules, "pom.xml");
        String pom = repository.text().apply(module + "pom.xml").orElse("");
        String artifact = answers.shaped("artifact", WHICH, Repository.PATTERN, Repository.PATTERN_WORDS,
                module + "target/" + jar(pom));
        List<String> lines = new ArrayList<>(List.of("reuse: {key: [\"**/pom.xml\"], folders: [.m2]}", "steps:",
                "  - " + wrapper + " -B -ntp -Dmaven.repo.local=.m2 verify"));
        reports(repository, "\"**/target/surefire-reports/TEST-*.xml\"", lines, why);
        return built(artifact, why, lines);
    }

    static Built gradle(Repository repository, Answers answers) {
        List<String> modules = Stream.concat(below(repository, "build.gradle").stream(),
                below(repository, "build.gradle.kts").stream()).toList();
        String wrapper = repository.has("gradlew") ? "./gradlew" : "gradle";
        List<String> why = new ArrayList<>(List.of("A Gradle build is here"
                + (modules.isEmpty() ? "" : ", with projects of their own below it") + ": it builds and tests"
                + (repository.has("gradlew") ? ", by the wrapper that the repository brings" : "") + ".",
                "Its store of dependencies is kept from run to run, as long as its settings do not change."));
        String module = modules.isEmpty() ? ""
                : modules.stream().filter(each -> runs(repository, each + "build.gradle")
                        || runs(repository, each + "build.gradle.kts")).findFirst().orElse(modules.getFirst());
        String artifact = answers.shaped("artifact", WHICH, Repository.PATTERN, Repository.PATTERN_WORDS,
                module + "build/libs/*[0-9a-z].jar");
        List<String> lines = new ArrayList<>(List.of(
                "reuse: {key: [\"**/*.gradle\", \"**/*.gradle.kts\", gradle/**], folders: [.gradle-home]}", "steps:",
                "  - GRADLE_USER_HOME=$PWD/.gradle-home " + wrapper + " --no-daemon build"));
        reports(repository, "\"**/build/test-results/test/*.xml\"", lines, why);
        return built(artifact, why, lines);
    }

    private static Built built(String artifact, List<String> why, List<String> lines) {
        if (artifact.isEmpty()) {
            return Built.unknown(List.of(new Stage("build", why, lines)));
        }
        lines.add("keep: {app: " + Draft.quoted(artifact) + "}");
        return Built.of(Form.JAR, "app", new Stage("build", why, lines));
    }

    /** A report that is named has to come; without tests there is none. */
    private static void reports(Repository repository, String pattern, List<String> lines, List<String> why) {
        if (repository.paths().stream().anyMatch(path -> ("/" + path).contains("/src/test/"))) {
            lines.add("reports: {tests: " + pattern + "}");
        } else {
            why.add("It has no tests yet. Once it has: reports: {tests: " + pattern + "}");
        }
    }

    /** The folders below the first one that have such a file, each with its slash. */
    private static List<String> below(Repository repository, String file) {
        return repository.paths().stream().filter(path -> path.endsWith("/" + file))
                .map(path -> path.substring(0, path.length() - file.length())).sorted().toList();
    }

    private static boolean runs(Repository repository, String path) {
        return repository.text().apply(path).filter(text -> RUNS.matcher(text).find()).isPresent();
    }

    /** The module whose jar is likely to be what runs. */
    private static String module(Repository repository, List<String> modules, String file) {
        return modules.isEmpty() ? ""
                : modules.stream().filter(each -> runs(repository, each + file)).findFirst()
                        .orElse(modules.getFirst());
    }

    /** The jar's name, whatever version it says: that of the pom may change. */
    private static String jar(String pom) {
        String own = pom.replaceAll("(?s)<parent>.*?</parent>|<dependencies>.*?</dependencies>|<build>.*?</build>", "");
        Optional<String> name = found(NAME, pom);
        return name.map(text -> text + ".jar").or(() -> found(ARTIFACT, own).map(text -> text + "-[0-9]*.jar"))
                .orElse("*.jar");
    }

    private static Optional<String> found(Pattern pattern, String text) {
        Matcher found = pattern.matcher(text);
        return found.find() ? Optional.of(found.group(1)) : Optional.empty();
    }
}
