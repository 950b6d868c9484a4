package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A component of which nothing is built: a push is live with the commit's files. */
class WithoutStagesTest {

    private static final String FILE = """
            paseo: 1
            component: NAME
            versions: "1.{serial}"
            starts: [{push: [main]}]
            tree: site
            deployment:
              on-each-host:
                - mkdir -p "$PASEO_HOST_FOLDER/$PASEO_VERSION"
                - tar -xf "$PASEO_ARTIFACTS/tree/tree.tar" -C "$PASEO_HOST_FOLDER/$PASEO_VERSION"
                - ln -sfn "$PASEO_VERSION" "$PASEO_HOST_FOLDER/notes"
            route: [{test: automatic}]
            """;

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("test-1");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static Repository bring(String name) throws Exception {
        Repository repository = park.bring(name, Map.of());
        park.as("admin").put("/api/v1/environments", Map.of("text",
                "environments: {test: {components: {" + name + ": {hosts: {test-1: {}}}}}}\n", "loosen", true)).good();
        return repository;
    }

    private static String push(Repository repository, String name, String notes) throws Exception {
        return repository.push("developer", "main",
                Map.of("paseo.yaml", FILE.replace("NAME", name), "README", "How to", "site/index.html", notes));
    }

    @Test
    void aPushIsLiveWithTheFilesOfItsFolder() throws Exception {
        String said = push(bring("trail-notes"), "trail-notes", "The ridge is open.");
        assertTrue(said.contains("trail-notes") && said.contains("#1"), said);
        Await.until("1.1 is live", () -> park.live("trail-notes", "test").equals(Optional.of("1.1")));
        Path host = park.hostFolder("test-1");
        assertEquals("The ridge is open.", Files.readString(host.resolve("notes/index.html")));
        assertFalse(Files.exists(host.resolve("notes/README")), "it is of another folder");
        JsonNode run = park.run("trail-notes", 1);
        assertEquals("passed", run.path("run").path("status").asString());
        assertEquals(0, run.path("stages").size());
        JsonNode artifacts = park.as("developer").get("/api/v1/versions/trail-notes/1.1").good().path("artifacts");
        assertEquals("tree", artifacts.path(0).path("name").asString());
        assertEquals("tree.tar", artifacts.path(0).path("fileName").asString());
        Path fetched = park.folder.resolve("fetched.tar");
        assertEquals(0, park.paseo("developer", "fetch", "trail-notes", "1.1", "tree", "--into", fetched.toString())
                .code());
        Process list = new ProcessBuilder("tar", "-tf", fetched.toString()).start();
        assertEquals("index.html\n", new String(list.getInputStream().readAllBytes(), StandardCharsets.UTF_8));
        String shown = park.paseo("developer", "show", "trail-notes#1").out();
        assertTrue(shown.contains("no stages: nothing is built, the commit's files are the artifact"), shown);
    }

    @Test
    void aFolderThatIsNotThereFailsTheRunWithItsName() throws Exception {
        Repository repository = bring("hut-notes");
        repository.push("developer", "main", Map.of("paseo.yaml", FILE.replace("NAME", "hut-notes")));
        JsonNode ended = park.runEnds("hut-notes", 1);
        assertEquals("failed", ended.path("run").path("status").asString());
        assertEquals("tree: the commit has no folder site", ended.path("run").path("reason").asString());
    }

    @Test
    void aPersonStartsItTooAndTheSameCommitGivesTheSameBytes() throws Exception {
        push(bring("river-notes"), "river-notes", "The ford is closed.");
        park.runEnds("river-notes", 1);
        park.as("developer").post("/api/v1/runs", Map.of("component", "river-notes")).good();
        JsonNode again = park.runEnds("river-notes", 2);
        JsonNode before = park.run("river-notes", 1);
        assertEquals(before.path("run").path("commit"), again.path("run").path("commit"));
        assertEquals(1, again.path("outputs").size());
        assertEquals(before.path("outputs"), again.path("outputs"));
    }
}
