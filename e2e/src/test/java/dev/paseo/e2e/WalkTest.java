package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A commit becomes a version and walks test, staging, approval, production; told by the client. */
class WalkTest {

    private static Park park;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        park = Park.open();
        repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        long first = park.promote("1.4.1", "production");
        park.rule("approver-1", first, true, "The tables agree.").good();
        park.deploymentIs(first, "live");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private static Park.Said paseo(String who, String... arguments) {
        return park.paseo(who, arguments);
    }

    @Test
    void aCommitWalksAndProductionKeepsTheOldOneUntilItIsApproved() throws Exception {
        String said = repository.push("developer", "main", Map.of("README", "more"));
        assertTrue(said.contains("Paseo started daylight-api#2 for main: it will be 1.4.2."), said);
        park.liveIn("staging", "1.4.2");
        assertEquals("version 1.4.1 ok", park.installed("valley-house"));
        assertEquals(0, paseo("developer", "watch", "daylight-api#2").code());
        Park.Said followed = paseo("developer", "watch", "daylight-api", "1.4.2", "--in", "staging");
        assertEquals(0, followed.code(), followed.out());
        assertTrue(followed.out().matches("(?s)deployment [0-9]+ live.*"), followed.out());
        assertTrue(paseo("developer", "watch", "daylight-api", "1.4.2", "--in", "elsewhere").out().contains(
                "daylight-api 1.4.2 does not go into elsewhere by its walk, and nobody promoted it there; its walk: "
                        + "test, staging"));
        String times = paseo("developer", "show", "daylight-api#2", "--times").out();
        assertTrue(times.lines().anyMatch(line -> line.matches("unit-tests \\* .*\u2588.*")), times);
        assertTrue(times.lines().anyMatch(line -> line.matches("  \\./build\\.sh .*\u2588.*")), times);

        Park.Said promoted = paseo("release-engineer", "promote", "daylight-api", "1.4.2", "--to", "production");
        String id = promoted.out().replaceAll("(?s)Deployment ([0-9]+) .*", "$1");
        assertTrue(paseo("developer", "where", "daylight-api").out().contains("1.4.2 waiting for 0 of 1 approval"));
        assertEquals(4, paseo("release-engineer", "approve", "deployment", id, "--comment", "mine").code(),
                "the requester may not");
        Park.Said approved = paseo("approver-1", "approve", "deployment", id, "--comment", "Times agree.");
        assertEquals(0, approved.code(), approved.out());
        park.deploymentIs(Long.parseLong(id), "live");
        assertEquals("version 1.4.2 ok", park.installed("valley-house"));

        String why = paseo("developer", "why", "deployment", id).out();
        for (String part : new String[]{"approved by approver-1: \"Times agree.\"",
                "because of a request by release-engineer",
                "because of run daylight-api#2",
                "because of push " + repository.head().substring(0, 7) + " to daylight-api main by developer"}) {
            assertTrue(why.contains(part), why);
        }
        String audit = paseo("auditor", "audit", "list", "--subject", "daylight-api 1.4.2").out();
        for (String part : new String[]{"asked for daylight-api 1.4.2 in", "approved",
                "daylight-api 1.4.2 went live in production", "daylight-api 1.4.2 was sealed",
                "a request by release-engineer"}) {
            assertTrue(audit.contains(part), audit);
        }
        Await.until("every entry is numbered",
                () -> paseo("auditor", "audit", "verify").out().contains(" 0 not yet covered"));
        assertEquals(0, paseo("auditor", "audit", "verify").code());
    }

    @Test
    void theBytesAreTheSameInTheStoreAndOnAllHosts() throws Exception {
        JsonNode artifact = park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").good().path("artifacts")
                .get(0);
        String digest = artifact.path("digest").asString();
        assertTrue(Files.exists(
                park.folder.resolve("data/bytes").resolve(digest.substring(0, 2)).resolve(digest.substring(2))));
        assertEquals(0, paseo("developer", "fetch", "daylight-api", "1.4.1", "app", "--into",
                park.folder.resolve("fetched").toString()).code());
        assertEquals("version 1.4.1 ok\n", Files.readString(park.folder.resolve("fetched")));
        assertTrue(paseo("developer", "show", "daylight-api", "1.4.1").out().contains(digest));
    }

    @Test
    void theSecretIsInNoLogAndNotInTheDatabase() throws Exception {
        long id = park.as("developer").get("/api/v1/history/daylight-api/test").good().get(0).path("id").asLong();
        JsonNode task = park.deployment(id).path("tasks").get(0);
        String log = park.as("developer")
                .get("/api/v1/deployments/" + id + "/tasks/" + task.path("work").asString("") + "/log").good()
                .toString();
        assertTrue(log.contains("key ••••••"), log);
        assertFalse(log.contains(Park.SECRET));
        assertEquals("0", park.database
                .as("select count(*) from secret_revision where instr(ciphertext, '" + Park.SECRET + "') > 0").strip());
        assertEquals("0", park.database
                .as("select count(*) from audit_entry where instr(body, '" + Park.SECRET + "') > 0").strip());
    }

    @Test
    void aBranchThatIsAllowedButNotTrustedRunsBesideAndNeverWalks() throws Exception {
        String said = repository.push("developer", "feature/night", Map.of("theme", "night"));
        assertTrue(said.contains("-feature-night.1"), said);
        String number = said.replaceAll("(?s).*it will be ([^ ]+-feature-night\\.1)\\..*", "$1");
        Await.until(number + " is sealed",
                () -> park.as("developer").get("/api/v1/versions/daylight-api/" + number).status() == 200);
        Client.Answer refused = park.as("release-engineer").post("/api/v1/deployments",
                Map.of("component", "daylight-api", "version", number, "environment", "test"));
        assertEquals(409, refused.status());
        assertTrue(refused.detail().contains("From a trusted branch"), refused.detail());
        assertEquals(Optional.empty(), park.live("test").filter(number::equals));
    }

    @Test
    void aPushElsewhereStartsNothingAndTheReasonIsKept() throws Exception {
        String said = repository.push("developer", "try/metres", Map.of("metres", "perhaps"));
        assertTrue(said.contains(
                "Paseo started nothing of daylight-api for try/metres: push to main, feature/*: the push was to "
                        + "try/metres"),
                said);
        assertTrue(paseo("developer", "why", "daylight-api").out()
                .contains("started nothing (daylight-api, push to main, feature/*): the push was to"));
    }

    @Test
    void exitCodesAndHintsOfTheClient() {
        assertEquals(2, paseo("developer", "promote", "daylight-api").code());
        assertEquals(2, paseo("developer", "watch", "daylight-api").code());
        assertEquals(2, paseo("developer", "watch", "daylight-api", "1.4.1").code());
        assertEquals(2, paseo("developer", "watch", "daylight-api#1", "--in", "test").code());
        assertEquals(4, paseo("developer", "audit", "verify").code());
        assertTrue(paseo("developer", "where", "daylight-apo").out().contains("did you mean daylight-api?"));
        assertTrue(paseo("developer", "start", "daylight-api", "--branch", "mian").out()
                .contains("daylight-api has no branch mian; did you mean main?"));
        assertTrue(paseo("release-engineer", "promote", "daylight-api", "1.4.1", "--to", "prodution").out()
                .contains("did you mean production?"));
    }
}
