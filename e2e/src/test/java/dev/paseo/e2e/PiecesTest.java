package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Parts of pipeline files that several components share, each version of them tried before it is released. */
class PiecesTest {

    private static final String PIECES = """
            paseo: 1
            component: NAME
            versions: "2.0.{serial}"
            starts: [{push: [main]}]
            stages:
              like: {piece: notes, given: {file: tried.txt}}
            pieces:
              notes:
                summary: Writes notes and lays them down
                inputs:
                  file: {words: Where the notes are written to, kind: text}
                  words: {words: What they say, kind: text, default: open}
                may-change: [stages.write.timeout]
                stages:
                  write:
                    timeout: 5m
                    steps: ["echo '{given.words}' > {given.file}"]
                    keep: {notes: "{given.file}"}
                deployment:
                  artifacts: [notes]
                  on-each-host: ["cp \\"$PASEO_ARTIFACTS/notes/{given.file}\\" \\"$PASEO_HOST_FOLDER/{given.file}\\""]
            """;

    private static final String USER = """
            paseo: 1
            component: NAME
            versions: "1.{serial}"
            starts: [{push: [main]}]
            like: {piece: notes, of: PIECES, version: "2.*", given: {file: NAME.txt}}
            route: [{test: automatic}]
            """;

    private static Park park;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("test-1");
        park.startAgent("builder");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static String pieces(String name) {
        return PIECES.replace("NAME", name);
    }

    private static Repository released(String name) throws Exception {
        Repository repository = park.bring(name, Map.of());
        repository.push("developer", "main", Map.of("paseo.yaml", pieces(name)));
        assertEquals("passed", park.runEnds(name, 1).path("run").path("status").asString());
        return repository;
    }

    /** A component whose file is like a piece, with a place in test. */
    private static Repository user(String name, String of, boolean opened) throws Exception {
        Repository repository = park.bring(name, opened ? Map.of("sources", List.of(of)) : Map.of());
        park.as("admin").put("/api/v1/environments", Map.of("text",
                "environments: {test: {components: {" + name + ": {hosts: {test-1: {}}}}}}\n", "loosen", true)).good();
        return repository;
    }

    private static String file(String name, String of) {
        return USER.replace("NAME", name).replace("PIECES", of);
    }

    @Test
    void aComponentIsBuiltAndDeployedByAPieceAndSaysWhich() throws Exception {
        released("trail-pieces");
        Repository repository = user("trail-board", "trail-pieces", true);
        repository.push("developer", "main", Map.of("paseo.yaml", file("trail-board", "trail-pieces")));
        Await.until("it is live", () -> park.live("trail-board", "test").equals(Optional.of("1.1")));
        assertEquals("open\n", Files.readString(park.hostFolder("test-1").resolve("trail-board.txt")));
        JsonNode used = park.run("trail-board", 1).path("pieces").path(0);
        assertEquals("2.0.1", used.path("version").asString());
        assertEquals("2.*", used.path("wanted").asString());
        assertTrue(park.paseo("developer", "show", "trail-board#1").out()
                .contains("piece: notes of trail-pieces 2.0.1"));
        String expanded = park.paseo("developer", "component", "file", "trail-board", "--expanded").out();
        assertTrue(expanded.contains("# from notes of trail-pieces 2.0.1") && expanded.contains("trail-board.txt"),
                expanded);
        String listed = park.paseo("developer", "piece", "list", "trail-pieces").out();
        assertTrue(listed.contains("used by 1 component") && listed.contains("What they say"), listed);
        String names = park.paseo("developer", "component", "names", "trail-board").out();
        assertTrue(names.contains("of trail-pieces, 2.0.1: Writes notes") && names.contains("an environment"), names);
    }

    /** A new version is tried against everybody, taken by the next run, and what ran stays as it was. */
    @Test
    void aNewVersionIsTriedAgainstEverybodyAndThenTaken() throws Exception {
        Repository pieces = released("ridge-pieces");
        Repository repository = user("ridge-board", "ridge-pieces", true);
        repository.push("developer", "main", Map.of("paseo.yaml", file("ridge-board", "ridge-pieces")));
        park.runEnds("ridge-board", 1);
        Await.until("it is live", () -> park.live("ridge-board", "test").equals(Optional.of("1.1")));
        String broken = pieces("ridge-pieces").replace("words, kind: text, default: open", "words, kind: text")
                .replace("inputs:", "inputs:\n      mood: {words: How they sound, kind: text}")
                .replace("echo '", "echo '{given.mood}").replace("file: tried.txt", "file: tried.txt, mood: calm");
        pieces.push("developer", "calmer", Map.of("paseo.yaml", broken));
        Park.Said tried = park.paseo("developer", "piece", "try", "ridge-pieces", "--branch", "calmer");
        assertEquals(1, tried.code());
        assertTrue(tried.out().contains("ridge-board  would be refused")
                && tried.out().contains("needs given.mood: How they sound"), tried.out());
        String good = pieces("ridge-pieces").replace("timeout: 5m", "timeout: 7m");
        Path proposed = Files.writeString(park.folder.resolve("ridge.yaml"), good);
        Park.Said again = park.paseo("developer", "piece", "try", "ridge-pieces", "--file", proposed.toString());
        assertEquals(0, again.code());
        assertTrue(again.out().contains("good, and says something else") && again.out().contains("+    timeout: 7m"),
                again.out());
        pieces.push("developer", "main", Map.of("paseo.yaml", good));
        park.runEnds("ridge-pieces", 2);
        assertTrue(park.paseo("developer", "piece", "users", "ridge-pieces").out()
                .contains("its next run takes another that says something else"));
        park.as("developer").post("/api/v1/runs", Map.of("component", "ridge-board")).good();
        park.runEnds("ridge-board", 2);
        assertEquals("2.0.1", park.run("ridge-board", 1).path("pieces").path(0).path("version").asString());
        assertEquals("2.0.2", park.run("ridge-board", 2).path("pieces").path(0).path("version").asString());
        String compared = park.paseo("developer", "compare", "ridge-board", "1.1", "1.2").out();
        assertTrue(compared.contains("piece notes of ridge-pieces  2.0.1"), compared);
        assertTrue(park.paseo("developer", "piece", "users", "ridge-pieces").out().contains("the newest"));
    }

    /** What is blocked is not taken any more; what runs with it goes on. */
    @Test
    void aBlockedVersionIsRefusedAtTheNextStartAndSaysWhy() throws Exception {
        released("river-pieces");
        Repository repository = user("river-board", "river-pieces", true);
        repository.push("developer", "main", Map.of("paseo.yaml", file("river-board", "river-pieces")));
        park.runEnds("river-board", 1);
        park.as("admin").put("/api/v1/versions/river-pieces/2.0.1/block", Map.of("reason", "It loses notes")).good();
        JsonNode refused = park.as("developer").post("/api/v1/runs", Map.of("component", "river-board")).body();
        assertTrue(refused.path("detail").asString().contains("the piece notes of river-pieces is wanted in version "
                + "2.0.1, which is blocked"), refused.toString());
        Client.Answer again = park.as("developer").post("/api/v1/runs/river-board/1/repetition", Map.of());
        assertTrue(again.status() == 422 && again.detail().contains("2.0.1, which is blocked"), again.detail());
        String users = park.paseo("developer", "piece", "users", "river-pieces").out();
        assertTrue(users.contains("its next run is refused: the piece notes is wanted in version 2.0.1"), users);
        assertEquals("passed", park.run("river-board", 1).path("run").path("status").asString());
    }

    @Test
    void whatIsNotOpenedIsToldBothToTheUserAndToWhoeverHasThePieces() throws Exception {
        released("shore-pieces");
        Repository repository = user("shore-board", "shore-pieces", false);
        String said = repository.push("developer", "main",
                Map.of("paseo.yaml", file("shore-board", "shore-pieces")));
        assertTrue(said.contains("is not opened to shore-board: paseo component open shore-board --source "
                + "shore-pieces"), said);
        String users = park.paseo("developer", "piece", "users", "shore-pieces").out();
        assertTrue(users.contains("shore-board") && users.contains("is not opened to shore-board"), users);
        park.paseo("admin", "component", "open", "shore-board", "--source", "shore-pieces");
        park.as("developer").post("/api/v1/runs", Map.of("component", "shore-board")).good();
        assertEquals("passed", park.runEnds("shore-board", 1).path("run").path("status").asString());
    }

    /** A branch that is not trusted has pieces only of what is opened to every branch. */
    @Test
    void anUntrustedBranchHasNoPiecesThatAreForTrustedOnesAlone() throws Exception {
        released("lake-pieces");
        Repository repository = user("lake-board", "lake-pieces", true);
        String file = file("lake-board", "lake-pieces").replace("push: [main]", "push: [main, \"feature/*\"]");
        repository.push("developer", "main", Map.of("paseo.yaml", file));
        park.runEnds("lake-board", 1);
        String said = repository.push("developer", "feature/it", Map.of("paseo.yaml", file + "# once more\n"));
        assertTrue(
                said.contains("feature/it is not a trusted branch of lake-board, and its pipeline file uses pieces of "
                        + "lake-pieces, opened to trusted branches alone"),
                said);
        String base = park.as("developer").get("/api/v1/components/lake-board").good().path("heads").path("main")
                .asString();
        assertEquals("No run could be started: try/developer-1 is not a trusted branch of lake-board, and its pipeline "
                + "file uses pieces of lake-pieces, opened to trusted branches alone. The branch try/developer-1 has "
                + "the text all the same",
                park.as("developer").post("/api/v1/components/lake-board/pipeline/trials",
                        Map.of("base", base, "text", file + "# tried\n")).detail());
    }

    @Test
    void theClientChecksAFileWithItsPieces() throws Exception {
        released("moor-pieces");
        user("moor-board", "moor-pieces", true);
        Path file = Files.writeString(park.folder.resolve("moor.yaml"), file("moor-board", "moor-pieces"));
        Park.Said alone = park.paseo("developer", "check", file.toString());
        assertEquals(1, alone.code());
        assertTrue(alone.out().contains("is looked up by a service, and none was asked: paseo check --service"),
                alone.out());
        Park.Said asked = park.paseo("developer", "check", file.toString(), "--service");
        assertEquals(0, asked.code(), asked.out());
        assertTrue(asked.out().contains("stage:   write") && asked.out().contains("notes of moor-pieces 2.0.1"),
                asked.out());
        Files.writeString(file, file("moor-board", "moor-pieces").replace("file: moor-board.txt", "fil: a"));
        Park.Said wrong = park.paseo("developer", "check", file.toString(), "--service");
        assertTrue(wrong.out().contains("moor.yaml:5:") && wrong.out().contains("did you mean file?"), wrong.out());
    }
}
