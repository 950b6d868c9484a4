package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;

/** An environments file that asks less than the rules do now says so, and is loaded only where that is meant. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class LooseningTest {

    private static final String GATE = "    to-enter:\n      approvals: {from: approvers, count: 1, not-by: "
            + "[authors, requester], comment: required, within: 48h}\n";

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
        String sentence = "loosens production: To enter: “One of approvers approves, not an author or the "
                + "requester, with a comment, within 2 d of the request.” is no longer asked";
        Park.Said refused = park.paseo("admin", "environment", "load", bare.toString());
        assertEquals(1, refused.code());
        assertTrue(refused.out().contains(sentence) && refused.out().contains("If that is meant, say so: --loosen"),
                refused.out());
        Park.Said dry = park.paseo("admin", "environment", "load", bare.toString(), "--loosen", "--dry-run");
        assertEquals(0, dry.code());
        assertTrue(dry.out().contains(sentence) && dry.out().contains("Nothing was loaded: this was a dry run."),
                dry.out());
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

    /**
     * What goes live within a day under rules that were loosened is looked at by somebody else than who loosened them.
     */
    @Test
    void whatGoesLiveUnderLoosenedRulesIsReviewed() throws Exception {
        try (Park other = Park.open()) {
            other.account("keeper", List.of("operator", "approver"), List.of());
            other.component().push("developer", "main", Scenario.files());
            other.liveIn("staging", "1.4.1");
            String text = Scenario.environments(other::hostAddress);
            other.as("keeper").put("/api/v1/environments", Map.of("text", text.replace(GATE, ""), "loosen", true))
                    .good();
            long id = other.as("release-engineer")
                    .post("/api/v1/deployments",
                            Map.of("component", "daylight-api", "version", "1.4.1", "environment", "production"))
                    .good().path("id").asLong();
            other.liveIn("production", "1.4.1");
            assertEquals(0, other.as("keeper").get("/api/v1/waiting").good().path("reviews").size(),
                    "not by who loosened");
            JsonNode review = other.as("approver-1").get("/api/v1/waiting").good().path("reviews").path(0);
            assertEquals(id, review.path("deployment").asLong());
            assertTrue(
                    review.path("reason").asString().startsWith(
                            "keeper loosened the rules of production: To enter: “One of approvers approves"),
                    review::toString);
            assertTrue(other.paseo("developer", "show", "deployment", Long.toString(id)).out()
                    .contains("It went live within a day of this: keeper loosened"), "whoever looks sees it");
            assertTrue(other.as("keeper").get("/api/v1/notices").good().toString().contains("is to be reviewed"),
                    "who loosened is told");
            assertEquals(403, other.as("keeper")
                    .post("/api/v1/deployments/" + id + "/review", Map.of("comment", "fine")).status());
            other.as("approver-1").post("/api/v1/deployments/" + id + "/review",
                    Map.of("comment", "Meant: the gate moves to staging.")).good();
            assertEquals(0, other.as("approver-2").get("/api/v1/waiting").good().path("reviews").size());
            assertTrue(other.as("auditor").get("/api/v1/audit").good().toString().contains("deployment reviewed"));
        }
    }

    @Test
    void whatAFileLeavesOutStaysAndIsSaidAndAZoneNeverChangesSilently() throws Exception {
        Path partial = file("environments:\n  test:\n    zone: Europe/Madrid\n");
        String out = park.paseo("admin", "environment", "load", partial.toString()).out();
        assertTrue(out.contains("test: daylight-api is left out of the file: its place there stays as it is"), out);
        assertTrue(out.contains("test: its zone changes from UTC to Europe/Madrid"), out);
        assertEquals(200, park.as("developer").get("/api/v1/places/daylight-api/test").status());
        String absent = park
                .paseo("admin", "environment", "load", file("environments:\n  test: {}\n").toString(), "--dry-run")
                .out();
        assertTrue(
                absent.contains(
                        "test: its zone changes from Europe/Madrid to UTC, which holds where a file names none"),
                absent);
    }

    @Test
    void whatOthersChangedSinceTheFileWasCheckedIsNotOverwritten() {
        String text = Scenario.environments(park::hostAddress);
        String digest = park.as("admin").post("/api/v1/environments/check", Map.of("text", text)).good().path("digest")
                .asString();
        park.as("admin")
                .put("/api/v1/places/daylight-api/production/variables", Map.of("name", "LOG_LEVEL", "value", "error"))
                .good();
        assertEquals(409, park.as("admin").put("/api/v1/environments", Map.of("text", text, "base", digest)).status());
    }

    /**
     * Where the rules ask a second person, nothing of a loosening counts before somebody else of those they name has
     * agreed; then exactly what was shown does.
     */
    @Test
    void aLooseningWaitsForASecondPerson() throws Exception {
        try (Park other = Park.open()) {
            other.account("keeper", List.of("operator", "approver"), List.of("approvers"));
            other.component();
            String text = Scenario.environments(other::hostAddress).replace(GATE,
                    GATE + "    to-loosen: [approvers]\n");
            other.as("keeper").put("/api/v1/environments", Map.of("text", text, "loosen", true)).good();
            String looser = text.replace(GATE, "");
            assertTrue(other.paseo("developer", "environment", "rules", "production").out()
                    .contains("One of approvers agrees before, other than whoever wants it."));
            Client.Answer waits = other.as("keeper").put("/api/v1/environments",
                    Map.of("text", looser, "loosen", true));
            assertEquals(409, waits.status());
            assertEquals(
                    "Nothing is changed yet: it loosens what is asked for production, and waits as loosening 1 "
                            + "until one of approvers agrees, other than you; see paseo loosening show 1",
                    waits.detail());
            assertEquals(409,
                    other.as("keeper").put("/api/v1/environments", Map.of("text", looser, "loosen", true)).status());
            assertEquals(1, other.as("developer").get("/api/v1/loosenings").good().size(),
                    "the same, wanted twice, waits once");
            long revision = other.as("admin").get("/api/v1/environments").good().path(2).path("rulesRevision").asLong();
            JsonNode wanted = other.as("approver-1").get("/api/v1/waiting").good().path("loosenings").path(0);
            assertEquals(looser, wanted.path("text").asString());
            assertTrue(wanted.path("what").path(0).asString()
                    .startsWith("production is loosened: To enter: “One of approvers approves"), wanted::toString);
            assertEquals(0, other.as("keeper").get("/api/v1/waiting").good().path("loosenings").size(),
                    "not for who wants it");
            assertTrue(other.as("approver-2").get("/api/v1/notices").good().toString()
                    .contains("keeper wants to loosen what is asked"));
            assertTrue(said(other, "keeper", true, "", wanted).detail().contains("somebody else agrees to it"));
            assertTrue(said(other, "developer", true, "", wanted).detail()
                    .contains("You are not asked: for production one of approver-1, approver-2"));
            assertEquals(409, other.as("approver-1")
                    .post("/api/v1/loosenings/1/words", Map.of("yes", true, "subject", "0".repeat(64))).status(),
                    "what was not looked at is not agreed to");
            assertEquals(400, said(other, "approver-1", false, " ", wanted).status(), "a refusal says why");
            Park.Said agreed = other.paseo("approver-1", "loosening", "agree", "1", "--comment", "For the summer.");
            assertEquals(0, agreed.code(), agreed::out);
            assertTrue(agreed.out().contains("It is agreed to, and carried out now.")
                    || agreed.out().contains("done: approver-1 agreed"), agreed::out);
            Await.until("it is carried out", () -> loosening(other, 1).path("status").asString().equals("done"));
            JsonNode production = other.as("admin").get("/api/v1/environments").good().path(2);
            assertEquals(revision + 1, production.path("rulesRevision").asLong());
            assertEquals(0, production.path("rules").path("gates").path("toEnter").path("approvals").size());
            assertTrue(other.as("auditor").get("/api/v1/audit").good().toString()
                    .contains("\"agreed by\":\"approver-1\""));
            assertTrue(other.as("keeper").get("/api/v1/notices").good().toString()
                    .contains("approver-1 agreed, and it is so now"));
            branchesAndSecrets(other, text);
        }
    }

    /** What reaches the environment waits as well: branches that are trusted, secrets that are given. */
    private void branchesAndSecrets(Park other, String text) throws Exception {
        Client.Answer trust = other.as("release-engineer").post("/api/v1/components/daylight-api/changes",
                Map.of("trusted", List.of("main", "feature/*")));
        assertTrue(trust.detail().contains("waits as loosening 2"), trust::detail);
        assertEquals(List.of("main"), trusted(other));
        Client.Answer both = other.as("release-engineer").post("/api/v1/components/daylight-api/changes",
                Map.of("trusted", List.of("main", "feature/*"), "mainBranch", "main"));
        assertTrue(both.detail().contains("Change the trusted branches by themselves"), both::detail);
        assertEquals(0,
                other.paseo("approver-2", "loosening", "refuse", "2", "--comment", "Features stay untrusted.").code());
        assertEquals("refused", loosening(other, 2).path("status").asString());
        assertEquals(List.of("main"), trusted(other));
        Client.Answer grant = other.as("admin").put("/api/v1/components/daylight-api/grants/MAP_KEY", Map.of());
        assertTrue(grant.detail().contains("waits as loosening 3"), grant::detail);
        assertTrue(!other.as("developer").get("/api/v1/components/daylight-api/grants").good().toString()
                .contains("MAP_KEY"));
        said(other, "approver-1", true, "", loosening(other, 3)).good();
        Await.until("it is given", () -> other.as("developer").get("/api/v1/components/daylight-api/grants").good()
                .toString().contains("MAP_KEY"));
        Client.Answer unasked = other.as("keeper").put("/api/v1/environments",
                Map.of("text", text.replace("    to-loosen: [approvers]\n", ""), "loosen", true));
        assertTrue(unasked.detail().contains("waits as loosening 4"), unasked::detail);
        other.as("keeper").put("/api/v1/environments", Map.of("text", text)).good();
        said(other, "approver-1", true, "", loosening(other, 4)).good();
        Await.until("it has ended", () -> !loosening(other, 4).path("status").asString().equals("open"));
        assertEquals("failed", loosening(other, 4).path("status").asString(), "the environments have changed since");
        assertTrue(loosening(other, 4).path("ending").asString().contains("environments have changed since you began"),
                () -> loosening(other, 4).toString());
        assertTrue(other.as("admin").put("/api/v1/components/daylight-api/grants/NEXT_KEY", Map.of()).detail()
                .contains("waits as loosening 5"));
        other.as("keeper").put("/api/v1/environments", Map.of("text", text.replace("  staging:\n    follows: test\n",
                "  staging:\n    follows: test\n    to-loosen: [approver-2]\n"))).good();
        said(other, "approver-1", true, "", loosening(other, 5)).good();
        Await.until("it has ended", () -> !loosening(other, 5).path("status").asString().equals("open"));
        assertTrue(
                loosening(other, 5).path("ending").asString().contains("staging asks for a second person too by now"),
                () -> loosening(other, 5).toString());
        other.account("leaver", List.of("operator"), List.of());
        assertTrue(other.as("leaver").put("/api/v1/components/daylight-api/grants/LAST_KEY", Map.of()).detail()
                .contains("waits as loosening 6"));
        assertEquals(0, other.paseo("admin", "account", "disable", "leaver", "--reason", "left").code());
        said(other, "approver-1", true, "", loosening(other, 6)).good();
        said(other, "approver-2", true, "", loosening(other, 6)).good();
        Await.until("it has ended", () -> !loosening(other, 6).path("status").asString().equals("open"));
        assertTrue(
                loosening(other, 6).path("ending").asString()
                        .contains("leaver, who asked for it, may no longer sign in"),
                () -> loosening(other, 6).toString());
    }

    /**
     * A value that would hold further than before is not set, and not kept either, before somebody has agreed; what
     * holds in an environment that asks nobody is marked instead.
     */
    @Test
    void aSecretsValueThatHoldsFurtherWaitsForASecondPerson() throws Exception {
        try (Park other = Park.open()) {
            other.account("keeper", List.of("operator", "approver"), List.of("approvers"));
            Repository repository = other.component();
            other.as("keeper").put("/api/v1/environments", Map.of("text",
                    Scenario.environments(other::hostAddress).replace(GATE, GATE + "    to-loosen: [approvers]\n"),
                    "loosen", true)).good();
            Map<String, Object> wide = Map.of("name", "DATA_KEY", "value", "one-key-for-everywhere", "component",
                    "daylight-api");
            Client.Answer waits = other.as("keeper").put("/api/v1/secrets", wide);
            assertEquals(409, waits.status());
            assertTrue(waits.detail().contains("asked for production, and waits as loosening 1"), waits::detail);
            JsonNode wanted = loosening(other, 1);
            assertEquals("a value of DATA_KEY may hold for daylight-api in every environment, further than before",
                    wanted.path("what").path(0).asString());
            assertEquals("0", other.database
                    .as("select count(*) from secret where name = 'DATA_KEY' and environment_id = 0").strip());
            assertEquals(400,
                    other.as("keeper")
                            .put("/api/v1/secrets",
                                    Map.of("name", "DATA_KEY", "value", "short", "component", "daylight-api"))
                            .status());
            said(other, "approver-1", true, "", wanted).good();
            Await.until("it may hold there", () -> loosening(other, 1).path("status").asString().equals("done"));
            assertEquals(204, other.as("keeper").put("/api/v1/secrets", wide).status());
            assertEquals(204, other.as("keeper").put("/api/v1/secrets", wide).status(),
                    "and again: it holds no further than before");
            assertEquals(204,
                    other.as("keeper").put("/api/v1/secrets",
                            Map.of("name", "DATA_KEY", "value", "one-key-for-staging", "environment", "staging"))
                            .status(),
                    "staging asks nobody");
            assertTrue(other.as("keeper")
                    .put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "one-key-for-everything")).detail()
                    .contains("waits as loosening 2"));
            assertTrue(other.as("auditor").get("/api/v1/audit").good().toString().contains("secret may hold further"));
            repository.push("developer", "main", Scenario.files());
            other.liveIn("staging", "1.4.1");
            assertTrue(other.as("approver-1").get("/api/v1/waiting").good().path("reviews").toString()
                    .contains(
                            "keeper loosened where a secret holds: a value of DATA_KEY may hold for every component "
                                    + "in staging"),
                    "what goes live in staging is looked at");
        }
    }

    /** On the page of what waits, whoever wants it sees what it waits for, and takes it back there. */
    @Test
    void whoeverWantsItTakesItBackInTheConsole() throws Exception {
        try (Park other = Park.open()) {
            other.account("keeper", List.of("operator", "approver"), List.of());
            other.component();
            String text = Scenario.environments(other::hostAddress).replace(GATE,
                    GATE + "    to-loosen: [approvers]\n");
            other.as("keeper").put("/api/v1/environments", Map.of("text", text, "loosen", true)).good();
            assertEquals(409, other.as("keeper")
                    .put("/api/v1/environments", Map.of("text", text.replace(GATE, ""), "loosen", true)).status());
            try (Browser browser = new Browser(other.address())) {
                browser.signIn("keeper", Park.PASSWORD);
                browser.open("/waiting");
                browser.seeText("Waits for approver-1 or approver-2 or release-engineer");
                browser.click(By.xpath("//button[.='Take back']"));
                browser.click(By.xpath("//button[.='Take it back']"));
                Await.until("it is taken back",
                        () -> loosening(other, 1).path("status").asString().equals("withdrawn"));
                Await.until("it no longer stands there",
                        () -> browser.all(By.xpath("//h2[.='You asked for this loosening']")).isEmpty());
            }
        }
    }

    private static List<String> trusted(Park other) {
        return other.as("developer").get("/api/v1/components/daylight-api").good().path("trusted").valueStream()
                .map(JsonNode::asString).toList();
    }

    private static JsonNode loosening(Park other, long id) {
        return other.as("developer").get("/api/v1/loosenings/" + id).good();
    }

    private static Client.Answer said(Park other, String who, boolean yes, String comment, JsonNode seen) {
        return other.as(who).post("/api/v1/loosenings/" + seen.path("id").asLong() + "/words",
                Map.of("yes", yes, "comment", comment, "subject", seen.path("subject").asString()));
    }
}
