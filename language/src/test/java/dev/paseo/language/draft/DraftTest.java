package dev.paseo.language.draft;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.environment.Route;
import dev.paseo.language.Reading;
import dev.paseo.language.file.PipelineFile;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.language.file.Recipe;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DraftTest {

    private static final Map<String, String> TEXTS = Map.of(
            "package.json", "{\"scripts\": {\"test\": \"x\", \"build\": \"y\"}}", "Makefile",
            "all:\n\tcc\ncheck: all\n\t./check\n",
            "README.md", "# Daylight \"boards\"\n\nMore.", "pom.xml",
            "<project><parent><artifactId>park</artifactId></parent><artifactId>hut-times</artifactId></project>",
            "b/pom.xml", "<project><artifactId>b-part</artifactId><build>spring-boot-maven-plugin</build></project>",
            "Cargo.toml", "[package]\nversion = \"1\"\nname = \"sun-rise\"\n", "go.mod",
            "module park.example/huts/turning-time/v2\n\ngo 1.22\n", "Dockerfile", "FROM x\nEXPOSE 8090\n");
    /** Names that git takes. */
    private static final List<String> BRANCHES = List.of("main", "season/é", "a'b", "x#y", "{x}", "say-\"no\"", "%20",
            "true");
    private static final List<Draft.Environment> KNOWN = List.of(new Draft.Environment("test", 1),
            new Draft.Environment("production", 3));

    private static Draft.Repository repository(String paths) {
        Set<String> all = Arrays.stream(paths.split(" ")).filter(path -> !path.isEmpty()).collect(Collectors.toSet());
        return new Draft.Repository(all,
                path -> all.contains(path) ? Optional.ofNullable(TEXTS.get(path)) : Optional.empty());
    }

    private static Draft.Drafted draft(String paths, Map<String, String> answers) {
        return Draft.of("sun-board", "season/\u00e9", repository(paths), KNOWN, answers);
    }

    private static PipelineFile read(Draft.Drafted drafted) {
        Reading<PipelineFile> reading = PipelineFileReader.read(drafted.text());
        assertEquals(List.of(), reading.problems(), drafted.text());
        return reading.value().orElseThrow();
    }

    private static String words(PipelineFile file) {
        return Stream.concat(file.stages().stream().map(stage -> stage.name() + ": "
                + String.join("; ", stage.steps().stream().map(PipelineFile.Step::command).toList()) + " keeps "
                + stage.keep()),
                Stream.of("tree " + file.tree().orElse("of all"),
                        "recipe: " + file.deployment().map(recipe -> recipe.artifacts() + " "
                                + recipe.parts().onEachHost().stream().map(Recipe.Command::command).toList()
                                + " removed by "
                                + recipe.parts().removal().stream().map(Recipe.Command::command).toList())
                                .orElse("none")))
                .collect(Collectors.joining("\n"));
    }

    /** Every draft is a good file, whatever the repository has, with a stage, an artifact, a recipe and a route. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "pom.xml README.md               | build: mvn -B -ntp; {app=target/hut-times-[0-9]*.jar}; "
                    + "$PASEO_VERSION/sun-board.jar",
            "pom.xml a/pom.xml b/pom.xml mvnw | build: ./mvnw -B -ntp; {app=b/target/b-part-[0-9]*.jar}",
            "build.gradle.kts gradlew        | ./gradlew --no-daemon build; {app=build/libs/*[0-9a-z].jar}",
            "package.json package-lock.json  | build: npm ci; npm test; npm run build; {page=out/page.tar.gz}; [page]",
            "package.json                    | build: npm install; -C dist .",
            "Makefile src/sun.c              | build: make; unit-tests: make check; recipe: none",
            "build.sh test.sh                | build: ./build.sh; unit-tests: ./test.sh; recipe: none",
            "script/test                     | unit-tests: ./script/test; recipe: none",
            "Dockerfile                      | image: podman build -f Dockerfile; -p 8090:8090; "
                    + "removed by [podman rm -f sun-board]",
            "go.mod main.go                  | go test ./...; -o out/turning-time .; chmod 755",
            "go.mod cmd/board/main.go        | -o out/board ./cmd/board",
            "Cargo.toml src/main.rs          | cargo test --release; {app=target/release/sun-rise}",
            "serve.py test_serve.py          | build: python3 -m unittest discover; {app=out/app.tar.gz}; "
                    + "systemctl --user stop sun-board",
            "serve.py conftest.py requirements.txt | python3 -m pytest; pip install --quiet --target lib",
            "index.html trail.css            | tree of all; [tree]; tar -xf \"$PASEO_ARTIFACTS/tree/\"*",
            "site/index.html README.md       | tree site",
            "notes.txt                       | tree of all"})
    void aDraftIsAGoodFileToTheEnd(String paths, String expected) {
        Draft.Drafted drafted = draft(paths, Map.of());
        PipelineFile file = read(drafted);
        for (String part : expected.split("; ")) {
            assertTrue(words(file).contains(part), () -> words(file));
        }
        file.stages().forEach(stage -> assertTrue(
                drafted.text().lines().toList()
                        .get(drafted.text().lines().toList().indexOf("  " + stage.name() + ":") - 1)
                        .startsWith("  # "),
                "each stage says why"));
        if (file.deployment().isPresent()) {
            assertEquals(List.of(Map.of("test", Route.Mode.AUTOMATIC),
                    Map.of("production", Route.Mode.ON_REQUEST)), file.route());
            assertEquals(Recipe.Strategy.Kind.ROLLING, file.deployment().get().strategy().kind(),
                    "production has three hosts");
            assertFalse(file.deployment().get().parts().removal().isEmpty());
        }
    }

    @Test
    void ofTwoKindsOneIsChosenAndTheOtherIsTold() {
        String paths = "pom.xml package.json Makefile";
        assertEquals(List.of("maven", "npm", "make"), draft(paths, Map.of()).asked().getFirst().of());
        Draft.Drafted npm = draft(paths, Map.of("build", "npm"));
        assertTrue(words(read(npm)).contains("npm run build"));
        assertTrue(npm.text().contains("# Not built here: pom.xml is here (maven)."), npm.text());
    }

    /** A program that runs cannot be written onto, which a repair of the live version would do. */
    @Test
    void aProgramIsLaidInThePlaceOfTheOneThatRuns() {
        assertTrue(words(read(draft("go.mod main.go", Map.of()))).contains("""
                cp "$PASEO_ARTIFACTS/app/"* "$PASEO_VERSION/new"
                chmod 755 "$PASEO_VERSION/new"
                mv "$PASEO_VERSION/new" "$PASEO_VERSION/sun-board"
                """));
    }

    @Test
    void answersChangeTheDraft() {
        String text = draft("Makefile", Map.of("artifact", "out/sun.tar.gz", "environments", "test", "restart", "",
                "check", "/health")).text();
        PipelineFile file = read(draft("Makefile", Map.of("artifact", "out/sun.tar.gz", "environments", "test",
                "restart", "", "check", "/health")));
        assertTrue(words(file).contains("tar -xf"), text);
        assertEquals(Recipe.Strategy.TOGETHER, file.deployment().orElseThrow().strategy());
        assertTrue(text.contains("{http: \"{host.url}/health\""), text);
        assertTrue(words(read(draft("pom.xml deploy/install.sh deploy/remove.sh", Map.of())))
                .contains("[./deploy/install.sh] removed by [./deploy/remove.sh]"));
        assertTrue(read(draft("pom.xml", Map.of("deployed", "none"))).deployment().isEmpty());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "pom.xml      | artefact     | x        | Nothing named artefact is asked of this repository; "
                    + "did you mean artifact?",
            "pom.xml      | artifact     | ../x     | artifact should be a path below the repository, or a "
                    + "pattern; empty: none is deployed; got \u201c../x\u201d",
            "pom.xml go.mod | build      | mavn     | build should be one of maven, go; "
                    + "got \u201cmavn\u201d; did you mean maven?",
            "pom.xml      | environments | tset     | There is no environment tset; did you mean test?",
            "pom.xml      | check        | health   | check should be a path that begins with /, or "
                    + "nothing; got \u201chealth\u201d",
            "Dockerfile   | port         | 70000    | port should be a port, 1 to 65535; got \u201c70000\u201d",
            "index.html   | tree         | sites    | tree should be a folder of the repository; "
                    + "there is none named sites"})
    void anAnswerThatCannotBeUsedIsTold(String paths, String name, String answer, String message) {
        WrongAnswer wrong = assertThrows(WrongAnswer.class, () -> draft(paths.strip(), Map.of(name, answer)));
        assertEquals(message, wrong.getMessage());
        assertEquals(name, wrong.name());
    }

    @Test
    void ofNothingNothingIsDrafted() {
        assertEquals("The repository has no files on main: there is nothing to draft from",
                assertThrows(WrongAnswer.class,
                        () -> Draft.of("x", "main", repository(""), KNOWN, Map.of())).getMessage());
    }

    @Test
    void whereNoEnvironmentIsKnownTheyAreAskedFor() {
        Draft.Drafted none = Draft.of("x", "main", repository("pom.xml"), List.of(), Map.of());
        assertTrue(read(none).route().isEmpty());
        Draft.Drafted many = Draft.of("x", "main", repository("pom.xml"), List.of(),
                Map.of("environments", "test, live", "hosts", "4"));
        assertEquals(2, read(many).route().size());
        assertEquals(Recipe.Strategy.Kind.ROLLING, read(many).deployment().orElseThrow().strategy().kind());
    }

    /** Whatever is answered, and whatever a README says, the draft is a good file or the answer is refused. */
    @Test
    void noAnswerBreaksTheFile() {
        Random random = new Random(20);
        List<String> odd = List.of("'", "\"", ": ", "# x", "- ", "{", "$(rm)", "\\", "a b", "%", "true", "\u2028", "\n",
                "\u00e9", "|", "x: y", "&a", "*b", "!t", "[", "echo 'it''s'");
        for (int round = 0; round < 2000; round++) {
            Map<String, String> answers = new HashMap<>();
            for (String name : List.of("artifact", "restart", "check", "deployed", "environments")) {
                if (random.nextBoolean()) {
                    answers.put(name, odd.get(random.nextInt(odd.size())) + odd.get(random.nextInt(odd.size())));
                }
            }
            Draft.Repository repository = new Draft.Repository(Set.of("Makefile", "README.md"),
                    path -> Optional
                            .of(odd.get(random.nextInt(odd.size())) + "x" + odd.get(random.nextInt(odd.size()))));
            answers.putIfAbsent("artifact", "out/app");
            try {
                read(Draft.of("sun-board", BRANCHES.get(random.nextInt(BRANCHES.size())), repository, KNOWN, answers));
            } catch (WrongAnswer refused) {
                assertFalse(String.valueOf(refused.getMessage()).isBlank());
            }
        }
    }
}
