package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.text.Sha256;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What a file is: its story by the service, and its signed statement without. */
class OriginTest {

    private static final JsonMapper JSON = JsonMapper.shared();
    private static Park park;
    private static long production;

    @TempDir
    Path folder;

    @BeforeAll
    static void aVersionIsInProduction() throws Exception {
        park = Park.open();
        park.component().push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
        production = park.promote("1.4.1", "production");
        park.rule("approver-1", production, true, "Good.").good();
        park.deploymentIs(production, "live");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private Path copied() throws Exception {
        return Files.copy(park.hostFolder("north-hut").resolve("version"), folder.resolve("version"),
                StandardCopyOption.REPLACE_EXISTING);
    }

    private static String told(int code, String... arguments) {
        Park.Said said = park.paseo("auditor", arguments);
        assertEquals(code, said.code(), said.out());
        return said.out();
    }

    private Path written(String name, String text) throws Exception {
        return Files.writeString(folder.resolve(name), text);
    }

    private static JsonNode payload(String envelope) {
        return JSON.readTree(Base64.getDecoder().decode(JSON.readTree(envelope).path("payload").asString()));
    }

    @Test
    void aFileOfAHostTellsItsStory() throws Exception {
        String said = told(0, "verify", copied().toString());
        assertTrue(said.contains("daylight-api 1.4.1, its app (app.txt)")
                && said.contains("built by run daylight-api#1 from ")
                && said.contains("signature good: the service's statement is about this very file"), said);
        assertTrue(said.lines().anyMatch(line -> line.contains("live in production since ")
                && line.contains("on north-hut")
                && line.contains("deployment " + production + "; approved by approver-1")),
                said);
        assertTrue(said.contains("live in test since "), said);
        String digest = said.lines().findFirst().orElseThrow().replaceAll(".*sha256 ([0-9a-f]{64}).*", "$1");
        assertEquals(said, told(0, "verify", digest.toUpperCase(Locale.ROOT)));
    }

    @Test
    void aChangedByteMakesItNoneOfOurs() throws Exception {
        byte[] bytes = Files.readAllBytes(copied());
        bytes[0] ^= 1;
        Path changed = Files.write(folder.resolve("changed"), bytes);
        assertTrue(told(1, "verify", changed.toString()).contains("the file is none of ours, or was changed since"));
        assertTrue(told(2, "verify", folder.resolve("none").toString()).contains("there is no such file"));
        assertEquals(404, park.as("auditor").get("/api/v1/origins/" + "z".repeat(64)).status());
        assertEquals(404, park.as("auditor").get("/api/v1/origins/" + "0".repeat(64)).status());
    }

    @Test
    void aStatementAndTheKeyDoWithoutTheService() throws Exception {
        Path file = copied();
        String envelope = told(0, "statement", "daylight-api", "1.4.1");
        Path statement = written("statement.json", envelope);
        Path key = written("key.txt", told(0, "audit", "key"));
        String[] verify = {"verify", file.toString(), "--statement", statement.toString(), "--key", key.toString(),
                "--service", "http://127.0.0.1:1"};
        String said = told(0, verify);
        assertTrue(said.contains("good: signed, and about this very file") && said.contains("daylight-api 1.4.1")
                && said.contains("branch: main"), said);
        assertTrue(told(2, "verify", file.toString(), "--statement", statement.toString())
                .contains("needs --key FILE"));
        Files.writeString(key, "MCowBQYDK2VwAyEAGb9ECWmEzf6FQbrBZ9w7lshQhqowtrbLDFw4rXAxZuE=");
        assertTrue(told(1, verify).contains("is not signed by this key: it was changed, or is another service's"));
        Files.writeString(key, told(0, "audit", "key"));
        Files.writeString(file, "another file");
        assertTrue(told(1, verify).contains("wrong: the statement is about another file: app "));
        String moved = new String(Base64.getDecoder().decode(JSON.readTree(envelope).path("payload").asString()),
                StandardCharsets.UTF_8).replaceAll("[0-9a-f]{64}", Sha256.hex("another file"));
        Files.writeString(statement, envelope.replace(JSON.readTree(envelope).path("payload").asString(),
                Base64.getEncoder().encodeToString(moved.getBytes(StandardCharsets.UTF_8))));
        assertTrue(told(1, verify).contains("is not signed by this key"));
        for (String none : List.of("", "{}", "[1]", "{\"payload\":\"&\"}", "{\"payload\":\"" + "e30=" + "\"")) {
            Files.writeString(statement, none);
            assertTrue(told(2, verify).contains("holds no statement"), none);
        }
    }

    @Test
    void aVersionsStatementSaysHowItCameAbout() {
        JsonNode stated = payload(told(0, "statement", "daylight-api", "1.4.1"));
        assertEquals("https://in-toto.io/Statement/v1 https://slsa.dev/provenance/v1",
                stated.path("_type").asString() + " " + stated.path("predicateType").asString());
        assertEquals(List.of("app", "bundle"),
                stated.path("subject").valueStream().map(each -> each.path("name").asString()).toList());
        JsonNode version = park.as("auditor").get("/api/v1/versions/daylight-api/1.4.1").good();
        JsonNode predicate = stated.path("predicate");
        JsonNode definition = predicate.path("buildDefinition");
        assertEquals(version.path("commit"), definition.path("externalParameters").path("commit"));
        assertEquals(version.path("commit"),
                definition.path("resolvedDependencies").path(0).path("digest").path("gitCommit"));
        assertTrue(definition.path("externalParameters").path("because").path(0).asString().startsWith("push "));
        assertEquals(version.path("digest"), predicate.path("paseo_version").path("digest"));
        JsonNode stage = predicate.path("paseo_stages").path(0);
        assertEquals("compile passed ./build.sh", stage.path("name").asString() + " " + stage.path("status").asString()
                + " " + stage.path("steps").path(0).path("name").asString());
        assertTrue(stage.has("agent"), stage.toString());
        assertEquals(told(0, "statement", "daylight-api", "1.4.1"), told(0, "statement", "daylight-api", "1.4.1"));
    }

    @Test
    void aDeploymentsStatementSaysWhoAllowedIt() {
        JsonNode stated = payload(told(0, "statement", "deployment", Long.toString(production)));
        assertEquals("https://paseo.example/live/v1", stated.path("predicateType").asString());
        JsonNode predicate = stated.path("predicate");
        assertEquals("production approver-1 yes", predicate.path("environment").asString() + " "
                + predicate.path("decisions").path(0).path("by").asString() + " "
                + predicate.path("decisions").path(0).path("decision").asString());
        assertEquals(predicate.path("approvedSubject"), predicate.path("decisions").path(0).path("subject"));
        assertTrue(predicate.path("hosts").valueStream().anyMatch(host -> host.asString().equals("north-hut")));
        park.as("release-engineer").put("/api/v1/places/daylight-api/staging/hold", Map.of("reason", "Snow"))
                .good();
        long waits = park.promote("1.4.1", "staging");
        Client.Answer none = park.as("auditor").get("/api/v1/deployments/" + waits + "/statement");
        assertEquals(404, none.status());
        assertEquals("Deployment " + waits + " has never been live: there is nothing to state",
                none.body().path("detail").asString());
        assertTrue(told(2, "statement", "daylight-api#1").contains("only these are stated"));
    }

    @Test
    void whatWasStatedCannotBeChangedBehindItsBack() throws Exception {
        park.as("auditor").get("/api/v1/versions/daylight-api/1.4.1/statement").good();
        Path file = copied();
        park.tamper("update statement set envelope = replace(envelope, '\"sig\":\"', '\"sig\":\"A') "
                + "where deployment_id is not null");
        told(0, "verify", file.toString());
        JsonNode before = JSON.readTree(told(0, "statement", "daylight-api", "1.4.1"));
        park.tamper("update statement set envelope = replace(envelope, '\"sig\":\"', '\"sig\":\"A') "
                + "where version_id is not null");
        assertTrue(told(1, "verify", file.toString()).contains("wrong: the statement is not signed by this key"));
        park.tamper("update statement set envelope = replace(envelope, '\"sig\":\"A', '\"sig\":\"')");
        assertEquals(before, JSON.readTree(told(0, "statement", "daylight-api", "1.4.1")));
    }

    @Test
    void theConsoleSaysItToo() throws Exception {
        Path file = copied();
        try (Browser browser = new Browser(park.address())) {
            browser.signIn("auditor", Park.PASSWORD);
            browser.open("/versions/daylight-api/1.4.1");
            browser.see(By.xpath("//a[@aria-label='Where app.txt came from and went']")).click();
            browser.see(By.xpath("//h2[contains(., 'its app')]"));
            browser.see(By.xpath("//dd[contains(., 'signed by this service, unaltered')]"));
            browser.see(
                    By.xpath("//tr[contains(., 'production')][contains(., 'live now')][contains(., 'approver-1')]"));
            browser.open("/origins");
            browser.see(By.xpath("//h1[.='What is this file?']"));
            browser.all(By.xpath("//input[@type='file']")).getFirst().sendKeys(file.toString());
            browser.see(By.xpath("//h2[contains(., 'its app')]"));
            Files.writeString(file, "something else");
            browser.all(By.xpath("//input[@type='file']")).getFirst().sendKeys(file.toString());
            browser.see(By.xpath("//*[contains(., 'none of ours')]"));
        }
    }
}
