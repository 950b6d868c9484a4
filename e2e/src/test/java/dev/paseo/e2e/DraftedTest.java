package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;

/** What is drafted is built, and live in test and staging, as it was drafted: each kind that this machine can build. */
class DraftedTest {

    private static final String RESTART = "echo \"$PASEO_COMPONENT $PASEO_VERSION\" > \"$PASEO_HOST_FOLDER/version\"";
    private static final Map<String, String> PROGRAM = Map.of("restart", RESTART, "check", "");

    private static final String POM = """
            <project xmlns="http://maven.apache.org/POM/4.0.0">
              <modelVersion>4.0.0</modelVersion>
              <groupId>park.example</groupId>
              <artifactId>board</artifactId>
              <version>1.0-SNAPSHOT</version>
              <properties>
                <maven.compiler.source>17</maven.compiler.source>
                <maven.compiler.target>17</maven.compiler.target>
                <project.build.sourceEncoding>UTF-8</project.build.sourceEncoding>
              </properties>
            </project>
            """;

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder");
        for (String host : List.of("test-1", "staging-1", "staging-2")) {
            park.startAgent(host);
        }
        park.as("admin").put("/api/v1/environments", Map.of("text",
                "environments: {test: {components: {}}, staging: {follows: test, components: {}}}\n", "loosen", true))
                .good();
    }

    @AfterAll
    static void close() {
        park.close();
    }

    /** Kind, the tool that it takes, its files, answers, and what lies on a host afterwards. */
    static Stream<Arguments> kinds() {
        return Stream.of(
                Arguments.of("files", "tar", Map.of("site/index.html", "open"), Map.of(), "live/index.html"),
                Arguments.of("make", "make",
                        Map.of("Makefile", "all:\n\tmkdir -p out\n\techo x > out/board\ncheck:\n\tgrep x out/board\n"),
                        with(PROGRAM, "artifact", "out/board"), "live/drafted-make"),
                Arguments.of("scripts", "sh",
                        Map.of("build.sh",
                                "#!/bin/sh\nmkdir -p out && echo x > out/a && tar -cf out/all.tar -C out a\n",
                                "test.sh", "#!/bin/sh\ntest -s out/all.tar\n"),
                        with(PROGRAM, "artifact", "out/*.tar"), "live/a"),
                Arguments.of("maven", "mvn", Map.of("pom.xml", POM, "src/main/java/Board.java",
                        "class Board {\n    public static void main(String[] names) {\n    }\n}\n"),
                        PROGRAM, "live/drafted-maven.jar"),
                Arguments.of("npm", "npm",
                        Map.of("package.json",
                                "{\"name\": \"board\", \"version\": \"1.0.0\", "
                                        + "\"scripts\": {\"test\": \"true\", \"build\": "
                                        + "\"mkdir -p dist && echo open > dist/index.html\"}}\n"),
                        Map.of(), "live/index.html"),
                Arguments.of("python", "python3",
                        Map.of("board.py", "print('open')\n", "test_board.py",
                                "import unittest\n\n\nclass Board(unittest.TestCase):\n    def test_opens(self):\n"
                                        + "        import board\n"),
                        PROGRAM, "live/board.py"),
                Arguments.of("rust", "cargo",
                        Map.of("Cargo.toml", "[package]\nname = \"board\"\nversion = \"0.1.0\"\nedition = \"2021\"\n",
                                "src/main.rs", "fn main() { println!(\"open\"); }\n"),
                        PROGRAM, "live/drafted-rust"),
                Arguments.of("own", "sh",
                        Map.of("build.sh", "#!/bin/sh\nmkdir -p out && echo open > out/board\n", "deploy/install.sh",
                                "#!/bin/sh\ncp \"$PASEO_ARTIFACTS/app/board\" \"$PASEO_HOST_FOLDER/own-board\"\n",
                                "deploy/remove.sh", "#!/bin/sh\nrm -f \"$PASEO_HOST_FOLDER/own-board\"\n"),
                        Map.of("artifact", "out/board"), "../own-board"));
    }

    private static Map<String, String> with(Map<String, String> answers, String name, String answer) {
        Map<String, String> all = new LinkedHashMap<>(answers);
        all.put(name, answer);
        return all;
    }

    @Test
    void whatIsGivenIsShownAndLoadedByTheClient() throws Exception {
        park.bring("lantern", Map.of());
        String offered = park.paseo("admin", "environment", "place", "lantern", "test").out();
        assertTrue(offered.contains("test-1"), offered);
        String dry = park.paseo("admin", "environment", "place", "lantern", "test", "test-1", "--dry-run").out();
        assertTrue(dry.contains("test: lantern") && dry.contains("Nothing was loaded: this was a dry run."), dry);
        Park.Said given = park.paseo("admin", "environment", "place", "lantern", "test",
                "test-1=http://127.0.0.1:9797");
        assertTrue(given.out().contains("lantern has 1 host in test."), given::out);
        park.bring("candle", Map.of());
        Park.Said taken = park.paseo("admin", "environment", "place", "candle", "test", "test-1=http://127.0.0.1:9797");
        assertTrue(
                taken.out()
                        .contains(
                                "The address 127.0.0.1:9797 is that of lantern in test; http://127.0.0.1:9798 is free"),
                taken::out);
        Park.Said unknown = park.paseo("admin", "environment", "place", "candle", "test", "tset-1");
        assertTrue(unknown.out().contains("tset-1 is not offered in test; did you mean test-1?"), unknown::out);
        assertEquals(403, park.as("developer").put("/api/v1/environments",
                Map.of("text", "environments: {test: {components: {}}}\n")).status(), "whoever may not load, may not");
    }

    /** As it is offered, but with the addresses of the pages here. */
    private static void placed(String name, Map<String, List<String>> hosts) {
        Map<String, Map<String, String>> places = new LinkedHashMap<>();
        hosts.forEach((environment, wanted) -> {
            JsonNode offers = park.as("release-engineer").get("/api/v1/components/" + name + "/places/offers").good();
            List<String> offered = offers.valueStream().filter(each -> each.path("environment").asString()
                    .equals(environment)).flatMap(each -> each.path("hosts").valueStream())
                    .map(each -> each.path("host").asString()).toList();
            assertTrue(offered.containsAll(wanted), offers::toString);
            Map<String, String> urls = new LinkedHashMap<>();
            wanted.forEach(host -> urls.put(host, ""));
            places.put(environment, urls);
        });
        JsonNode drafted = park.as("release-engineer").post("/api/v1/components/" + name + "/places/draft",
                Map.of("places", places)).good();
        String text = drafted.path("text").asString();
        park.as("admin").put("/api/v1/environments", Map.of("text", text, "base", drafted.path("digest").asString()))
                .good();
    }

    /** Outside of somebody's home, which no step sees. */
    private static boolean has(String tool) throws Exception {
        return new ProcessBuilder("sh", "-c",
                "case $(command -v " + tool + ") in /usr/*|/bin/*|/opt/*) ;; *) exit 1; esac")
                .start().waitFor() == 0;
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void whatIsDraftedIsBuiltAndLive(String kind, String tool, Map<String, String> files, Map<String, String> answers,
            String left) throws Exception {
        assumeTrue(has(tool), tool + " is not on this machine");
        String name = "drafted-" + kind;
        Repository repository = new Repository(park.folder.resolve("repositories"), name);
        repository.push("developer", "main", files);
        JsonNode drafted = park.as("release-engineer").post("/api/v1/drafts",
                Map.of("component", name, "repository", repository.url(), "answers", answers)).good();
        assertTrue(drafted.path("asked").valueStream().anyMatch(each -> each.path("name").asString()
                .equals("environments") && each.path("answer").asString().equals("test, staging")), drafted::toString);
        park.as("admin").post("/api/v1/components", Map.of("name", name, "repository", repository.url(), "trusted",
                List.of("main"), "allowed", List.of(), "secrets", List.of())).good();
        park.installHook(repository, name, script -> script);
        placed(name, Map.of("test", List.of("test-1"), "staging", List.of("staging-1", "staging-2")));
        // The last environment of a draft's route is on request.
        String text = drafted.path("text").asString().replace("staging: on-request", "staging: automatic")
                .replace("pause: 10s", "pause: 1s");
        Map<String, String> all = new LinkedHashMap<>(files);
        all.put("paseo.yaml", text);
        repository.push("developer", "main", all);
        JsonNode run = park.runEnds(name, 1);
        assertEquals("passed", run.path("run").path("status").asString(), () -> run + "\n" + text);
        Await.until(name + " is live in staging",
                () -> park.live(name, "staging").equals(Optional.of("0.1.1")));
        for (String host : List.of("test-1", "staging-1", "staging-2")) {
            Path file = park.hostFolder(host).resolve(name).resolve(left).normalize();
            assertTrue(Files.exists(file), () -> file + " is not there\n" + text);
        }
    }

    @Test
    void ofARepositoryThatCannotBeDraftedFromItIsSaidWhy() throws Exception {
        Repository there = new Repository(park.folder.resolve("repositories"), "has-one");
        there.push("developer", "main", Map.of("paseo.yaml", "paseo: 1\ncomponent: has-one\n"));
        JsonNode view = park.as("release-engineer").post("/api/v1/drafts",
                Map.of("component", "has-one", "repository", there.url())).good();
        assertTrue(view.path("there").asBoolean());
        assertEquals("paseo: 1\ncomponent: has-one\n", view.path("text").asString());
        Repository two = new Repository(park.folder.resolve("repositories"), "two-kinds");
        two.push("developer", "main", Map.of("pom.xml", "<project/>", "package.json", "{}"));
        Client.Answer wrong = park.as("release-engineer").post("/api/v1/drafts",
                Map.of("component", "two-kinds", "repository", two.url(), "answers", Map.of("build", "gradel")));
        assertEquals(400, wrong.status());
        assertEquals("/answers/build", wrong.body().path("pointer").asString());
        assertEquals("build should be one of maven, npm; got “gradel”", wrong.detail());
    }
}
