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

    private static Harbour harbour;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        harbour = Harbour.open();
        repository = harbour.component();
        repository.push("developer", "main", Scenario.files());
        harbour.liveIn("staging", "1.4.1");
        long first = harbour.promote("1.4.1", "production");
        harbour.rule("approver-1", first, true, "The tables agree.").good();
        harbour.deploymentIs(first, "live");
    }

    @AfterAll
    static void close() {
        harbour.close();
    }

    private static Harbour.Said paseo(String who, String... arguments) {
        return harbour.paseo(who, arguments);
    }

    @Test
    void aCommitWalksAndProductionKeepsTheOldOneUntilItIsApproved() throws Exception {
        String said = repository.push("developer", "main", Map.of("README", "more"));
        assertTrue(said.contains("Paseo started tide-api#2 for main: it will be 1.4.2."), said);
        harbour.liveIn("staging", "1.4.2");
        assertEquals("version 1.4.1 ok", harbour.installed("lighthouse"));
        assertEquals(0, paseo("developer", "watch", "tide-api#2").code());

        Harbour.Said promoted = paseo("release-engineer", "promote", "tide-api", "1.4.2", "--to", "production");
        String id = promoted.out().replaceAll("(?s)Deployment ([0-9]+) .*", "$1");
        assertTrue(paseo("developer", "where", "tide-api").out().contains("1.4.2 waiting for 0 of 1 approval"));
        assertEquals(4, paseo("release-engineer", "approve", "deployment", id, "--comment", "mine").code(), "the requester may not");
        Harbour.Said approved = paseo("approver-1", "approve", "deployment", id, "--comment", "Heights agree.");
        assertEquals(0, approved.code(), approved.out());
        harbour.deploymentIs(Long.parseLong(id), "live");
        assertEquals("version 1.4.2 ok", harbour.installed("lighthouse"));

        String why = paseo("developer", "why", "deployment", id).out();
        for (String part : new String[] {"approved by approver-1: \"Heights agree.\"", "because of a request by release-engineer",
            "because of run tide-api#2", "because of push " + repository.head().substring(0, 7) + " to tide-api main by developer"}) {
            assertTrue(why.contains(part), why);
        }
        String audit = paseo("auditor", "audit", "list", "--subject", "tide-api 1.4.2").out();
        for (String part : new String[] {"promotion requested", "approved", "deployment live", "version sealed", "production", "a request by release-engineer"}) {
            assertTrue(audit.contains(part), audit);
        }
        Await.until("every entry is numbered", () -> paseo("auditor", "audit", "verify").out().contains(" 0 not yet covered"));
        assertEquals(0, paseo("auditor", "audit", "verify").code());
    }

    @Test
    void theBytesAreTheSameInTheStoreAndOnAllHosts() throws Exception {
        JsonNode artifact = harbour.as("developer").get("/api/v1/versions/tide-api/1.4.1").good().path("artifacts").get(0);
        String digest = artifact.path("digest").asString();
        assertTrue(Files.exists(harbour.folder.resolve("data/bytes").resolve(digest.substring(0, 2)).resolve(digest.substring(2))));
        assertEquals(0, paseo("developer", "fetch", "tide-api", "1.4.1", "app", "--into", harbour.folder.resolve("fetched").toString()).code());
        assertEquals("version 1.4.1 ok\n", Files.readString(harbour.folder.resolve("fetched")));
        assertTrue(paseo("developer", "show", "tide-api", "1.4.1").out().contains(digest));
    }

    @Test
    void theSecretIsInNoLogAndNotInTheDatabase() throws Exception {
        long id = harbour.as("developer").get("/api/v1/history/tide-api/test").good().get(0).path("id").asLong();
        JsonNode task = harbour.deployment(id).path("tasks").get(0);
        String log = harbour.as("developer").get("/api/v1/deployments/" + id + "/tasks/" + task.path("work").asString("") + "/log").good().toString();
        assertTrue(log.contains("key ••••••"), log);
        assertFalse(log.contains(Harbour.SECRET));
        assertEquals("0", harbour.database.as("select count(*) from secret_revision where instr(ciphertext, '" + Harbour.SECRET + "') > 0").strip());
        assertEquals("0", harbour.database.as("select count(*) from audit_entry where instr(body, '" + Harbour.SECRET + "') > 0").strip());
    }

    @Test
    void aBranchThatIsAllowedButNotTrustedRunsBesideAndNeverWalks() throws Exception {
        String said = repository.push("developer", "feature/night", Map.of("theme", "night"));
        assertTrue(said.contains("-feature-night.1"), said);
        String number = said.replaceAll("(?s).*it will be ([^ ]+-feature-night\\.1)\\..*", "$1");
        Await.until(number + " is sealed", () -> harbour.as("developer").get("/api/v1/versions/tide-api/" + number).status() == 200);
        Client.Answer refused = harbour.as("release-engineer").post("/api/v1/deployments",
                Map.of("component", "tide-api", "version", number, "environment", "test"));
        assertEquals(409, refused.status());
        assertTrue(refused.detail().contains("From a trusted branch"), refused.detail());
        assertEquals(Optional.empty(), harbour.live("test").filter(number::equals));
    }

    @Test
    void aPushElsewhereStartsNothingAndTheReasonIsKept() throws Exception {
        String said = repository.push("developer", "try/metres", Map.of("metres", "perhaps"));
        assertTrue(said.contains("Paseo started nothing of tide-api for try/metres: push to main, feature/*: the push was to try/metres"), said);
        assertTrue(paseo("developer", "why", "tide-api").out().contains("started nothing (tide-api, push to main, feature/*): the push was to"));
    }

    @Test
    void exitCodesAndHintsOfTheClient() {
        assertEquals(2, paseo("developer", "promote", "tide-api").code());
        assertEquals(2, paseo("developer", "watch", "tide-api").code());
        assertEquals(4, paseo("developer", "audit", "verify").code());
        assertTrue(paseo("developer", "where", "tide-apo").out().contains("did you mean tide-api?"));
        assertTrue(paseo("developer", "start", "tide-api", "--branch", "mian").out().contains("tide-api has no branch mian; did you mean main?"));
        assertTrue(paseo("release-engineer", "promote", "tide-api", "1.4.1", "--to", "prodution").out().contains("did you mean production?"));
    }
}
