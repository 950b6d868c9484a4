package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;

/** An environments file that asks less than the rules do now says so, and is loaded only where that is meant. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class LooseningTest {

    private static final String GATE = "    to-enter:\n      approvals: {from: approvers, count: 1, not-by: [authors, requester], comment: required, within: 48h}\n";

    private Park park;

    @BeforeAll
    void open() throws Exception {
        park = Park.open();
        park.component();
    }

    @AfterAll
    void close() {
        park.close();
    }

    private JsonNode production() {
        return park.as("admin").get("/api/v1/environments").good().path(2);
    }

    private Path file(String text) throws Exception {
        return Files.writeString(park.folder.resolve("environments.yaml"), text);
    }

    @Test
    void aFileWithoutTheGateThatIsThereIsRefusedAndSaysWhatItLoosens() throws Exception {
        String good = Scenario.environments(park::hostAddress);
        assertTrue(good.contains(GATE));
        Path bare = file(good.replace(GATE, ""));
        long revision = production().path("rulesRevision").asLong();
        String sentence = "loosens production: To enter: “One of approvers approves, not an author or the requester, with a comment, within 2 d of the request.” is no longer asked";
        Park.Said refused = park.paseo("admin", "environment", "load", bare.toString());
        assertEquals(1, refused.code());
        assertTrue(refused.out().contains(sentence) && refused.out().contains("If that is meant, say so: --loosen"), refused.out());
        Park.Said dry = park.paseo("admin", "environment", "load", bare.toString(), "--loosen", "--dry-run");
        assertEquals(0, dry.code());
        assertTrue(dry.out().contains(sentence) && dry.out().contains("Nothing was loaded: this was a dry run."), dry.out());
        Client.Answer unsaid = park.as("admin").put("/api/v1/environments", Map.of("text", good.replace(GATE, "")));
        assertEquals(409, unsaid.status());
        assertTrue(unsaid.detail().contains("for the file loosens rules: production: To enter"), unsaid.detail());
        assertEquals(revision, production().path("rulesRevision").asLong(), "nothing has changed");
        assertEquals(0, park.paseo("admin", "environment", "load", bare.toString(), "--loosen").code());
        assertEquals(revision + 1, production().path("rulesRevision").asLong());
        assertTrue(park.as("auditor").get("/api/v1/audit").good().toString().contains("rules loosened"));
        Park.Said back = park.paseo("admin", "environment", "load", file(good).toString());
        assertEquals(0, back.code(), "asking more needs no word: " + back.out());
    }

    @Test
    void whatAFileLeavesOutStaysAndIsSaidAndAZoneNeverChangesSilently() throws Exception {
        Path partial = file("environments:\n  test:\n    zone: Europe/Madrid\n");
        String out = park.paseo("admin", "environment", "load", partial.toString()).out();
        assertTrue(out.contains("test: daylight-api is left out of the file: its place there stays as it is"), out);
        assertTrue(out.contains("test: its zone changes from UTC to Europe/Madrid"), out);
        assertEquals(200, park.as("developer").get("/api/v1/places/daylight-api/test").status());
        String absent = park.paseo("admin", "environment", "load", file("environments:\n  test: {}\n").toString(), "--dry-run").out();
        assertTrue(absent.contains("test: its zone changes from Europe/Madrid to UTC, which holds where a file names none"), absent);
    }

    @Test
    void whatOthersChangedSinceTheFileWasCheckedIsNotOverwritten() {
        String text = Scenario.environments(park::hostAddress);
        String digest = park.as("admin").post("/api/v1/environments/check", Map.of("text", text)).good().path("digest").asString();
        park.as("admin").put("/api/v1/places/daylight-api/production/variables", Map.of("name", "LOG_LEVEL", "value", "error")).good();
        assertEquals(409, park.as("admin").put("/api/v1/environments", Map.of("text", text, "base", digest)).status());
    }
}
