package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Bad input: a clear answer, and nothing lost or half done. */
@TestMethodOrder(MethodOrderer.Random.class)
class RefusalTest {

    private static Park park;
    private static Repository repository;

    @BeforeAll
    static void open() throws Exception {
        park = Park.open();
        repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.liveIn("staging", "1.4.1");
    }

    @AfterAll
    static void close() {
        park.close();
    }

    /** A fresh version that is live in staging. */
    private static synchronized String next(String author, Map<String, String> files) throws Exception {
        String said = repository.push(author, "main", files);
        String version = said.replaceAll("(?s).*it will be ([^ ]+)\\.\\s.*", "$1");
        park.liveIn("staging", version);
        return version;
    }

    private static String fresh() throws Exception {
        return next("developer", Map.of("README", Instant.now().toString()));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "daylight-apo | 1.4.1 | test       | There is no component daylight-apo; did you mean daylight-api?",
            "daylight-api | 9.9.9 | test       | daylight-api has no version 9.9.9; the newest is",
            "daylight-api | 1.4.1 | prodution  | There is no environment prodution; did you mean production?"})
    void unknownNames(String component, String version, String environment, String reason) {
        Client.Answer refused = park.as("release-engineer").post("/api/v1/deployments",
                Map.of("component", component, "version", version, "environment", environment));
        assertEquals(404, refused.status());
        assertTrue(refused.detail().startsWith(reason), refused.detail());
    }

    @Test
    void aPromotionOfWhatHasNotBeenLiveBefore() throws Exception {
        Map<String, String> broken = Map.of("health", "broken " + Instant.now());
        String said = repository.push("developer", "main", broken);
        String version = said.replaceAll("(?s).*it will be ([0-9.]+[0-9])\\..*", "$1");
        Await.until(version + " is undone in test", () -> park.as("developer").get("/api/v1/history/daylight-api/test")
                .body().toString()
                .contains("\"version\":\"" + version
                        + "\",\"environment\":\"test\",\"kind\":\"promotion\",\"emergency\":false,"
                        + "\"status\":\"undone\""));
        Client.Answer refused = park.as("release-engineer").post("/api/v1/deployments",
                Map.of("component", "daylight-api", "version", version, "environment", "staging"));
        assertEquals(409, refused.status());
        assertTrue(refused.detail().contains("It has not passed test yet"), refused.detail());
        next("developer", Map.of("health", "ok"));
    }

    @Test
    void aBodyThatIsNotWhatIsWantedSaysWhichField() {
        assertEquals("yes should be true or false",
                park.as("approver-1").post("/api/v1/deployments/1/decision", Map.of("yes", "perhaps")).detail());
        assertEquals("by should be a length of time, such as PT6H (ISO 8601)",
                park.as("admin").post("/api/v1/clock", Map.of("by", "six hours")).detail());
        assertEquals("trusted should be a list", park.as("release-engineer").post("/api/v1/components",
                Map.of("name", "x", "trusted", "main", "allowed", java.util.List.of(), "secrets", java.util.List.of()))
                .detail());
    }

    @Test
    void secretsAreGivenByThoseWhoMaySetThem() {
        Map<String, Object> wanted = Map.of("name", "pickpocket", "trusted", java.util.List.of("main"), "allowed",
                java.util.List.of(), "secrets", java.util.List.of("DATA_KEY"),
                "text", "paseo: 1\ncomponent: pickpocket\nversions: \"1.{serial}\"\n");
        Client.Answer refused = park.as("release-engineer").post("/api/v1/components", wanted);
        assertEquals(403, refused.status());
        assertTrue(refused.detail().contains("give secrets to pickpocket"), refused.detail());
        Map<String, Object> own = new java.util.LinkedHashMap<>(wanted);
        own.put("secrets", java.util.List.of("PASEO_OUTSIDE_KEY"));
        assertEquals(400, park.as("admin").post("/api/v1/components", own).status());
    }

    @Test
    void approvalsByTheAuthorTheRequesterAndForAChangedSubject() throws Exception {
        park.as("admin").put("/api/v1/groups/approvers/members/developer", Map.of()).good();
        long id = park.promote(fresh(), "production");
        park.account("author-" + id, List.of("approver", "developer"), List.of("approvers"));
        assertEquals(403, park.rule("release-engineer", id, true, "mine").status());
        assertEquals(403, park.rule("developer", id, true, "mine").status(), "a developer has no role that decides");
        Client.Answer comment = park.rule("approver-1", id, true, " ");
        assertEquals(400, comment.status());
        assertEquals("/comment", comment.body().path("pointer").asString());
        Client.Answer unseen = park.as("approver-1").post("/api/v1/deployments/" + id + "/decision",
                Map.of("yes", true, "comment", "good"));
        assertEquals(400, unseen.status());
        assertEquals("/subject", unseen.body().path("pointer").asString());
        String seen = park.deployment(id).path("subject").asString();
        park.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "another-key-" + id, "component",
                "daylight-api", "environment", "production")).good();
        Client.Answer changed = park.as("approver-1").post("/api/v1/deployments/" + id + "/decision",
                Map.of("yes", true, "comment", "good", "subject", seen));
        assertEquals(409, changed.status());
        assertTrue(changed.detail().contains("has changed since you looked"), changed.detail());
        assertEquals(200,
                park.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).status());
    }

    @Test
    void anAuthorMayNotApproveAlsoAsCoAuthorOfAnyCommitBetween() throws Exception {
        park.account("guide", List.of("approver"), List.of("approvers"));
        next("guide", Map.of("guiding", "new"));
        long id = park.promote(fresh(), "production");
        Client.Answer refused = park.rule("guide", id, true, "good");
        assertEquals(403, refused.status());
        assertTrue(refused.detail().contains("guide wrote or pushed a commit"), refused.detail());
        park.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).good();
    }

    @Test
    void twoApprovalsAtTheSameInstantGiveOneOutcomeAndBothAreTold() throws Exception {
        long id = park.promote(fresh(), "production");
        CountDownLatch together = new CountDownLatch(1);
        try (ExecutorService threads = Executors.newFixedThreadPool(2)) {
            Future<Client.Answer> first = threads.submit(() -> {
                together.await();
                return park.rule("approver-1", id, true, "first");
            });
            Future<Client.Answer> second = threads.submit(() -> {
                together.await();
                return park.rule("approver-2", id, true, "second");
            });
            together.countDown();
            List<Integer> codes = List.of(first.get().status(), second.get().status()).stream().sorted().toList();
            assertEquals(List.of(200, 409), codes, first.get() + " " + second.get());
        }
        park.deploymentIs(id, "live");
        assertEquals(1, park.deployment(id).path("decisions").size());
    }

    @Test
    void aNewerRequestOvertakesTheOneThatWaitsAndApprovalsAreNotCarriedOver() throws Exception {
        long first = park.promote(fresh(), "production");
        String newer = fresh();
        assertEquals("waiting", park.status(first));
        assertEquals(newer, park.deployment(first).path("newer").asString(), "it names the newer one");
        long second = park.promote(newer, "production");
        assertEquals("overtaken", park.status(first));
        assertEquals("waiting", park.status(second));
        assertEquals(409, park.rule("approver-1", first, true, "late").status());
        park.rule("approver-1", second, false, "The board flickers.").good();
        park.deploymentIs(second, "rejected");
        assertEquals("rejected by approver-1: \"The board flickers.\"",
                park.deployment(second).path("deployment").path("reason").asString());
    }

    @Test
    void aBrokenOrMissingPipelineFileStartsNothingAndSaysWhere() throws Exception {
        String broken = repository.push("developer", "feature/broken",
                Map.of("paseo.yaml", Scenario.PIPELINE.replace("stages:", "stage:")));
        assertTrue(broken.contains("paseo.yaml:8:1 stage: is not a key that is known here; did you mean stages?"),
                broken);
        String named = repository.push("developer", "feature/named",
                Map.of("paseo.yaml", Scenario.PIPELINE.replace("component: daylight-api", "component: daylight-apo")));
        assertTrue(named.contains("says daylight-apo, but this repository is registered as daylight-api"), named);
        repository.push("developer", "feature/good", Map.of("paseo.yaml", Scenario.PIPELINE));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "out/*.war | matches no file of the workspace",
            "out/*     | matches more than one file"})
    void anArtifactPatternThatIsWrongFailsTheRunWithThatSentence(String pattern, String reason) throws Exception {
        String said = repository.push("developer", "feature/pattern",
                Map.of("paseo.yaml", Scenario.PIPELINE.replace("out/app.txt", pattern),
                        "build.sh", "#!/bin/sh\nmkdir -p out\necho a > out/a\necho b > out/b\n"));
        JsonNode run = park.runEnds(Long.parseLong(said.replaceAll("(?s).*started daylight-api#([0-9]+) .*", "$1")));
        assertEquals("failed", run.path("run").path("status").asString());
        assertTrue(run.path("run").path("reason").asString().contains(reason),
                run.path("run").path("reason").asString());
        repository.push("developer", "feature/good", Scenario.files());
    }

    @Test
    void aNumberThatIsSealedIsNotGivenAgain() throws Exception {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE.replace("1.4.{serial}", "0-{commit}"));
        String said = repository.push("developer", "feature/commit", files);
        JsonNode run = park.runEnds(Long.parseLong(said.replaceAll("(?s).*started daylight-api#([0-9]+) .*", "$1")));
        assertEquals("passed", run.path("run").path("status").asString());
        files.put("paseo.yaml", Scenario.PIPELINE.replace("1.4.{serial}", "1.0.0-{commit}"));
        String main = next("developer", files);
        Client.Answer refused = park.as("developer").post("/api/v1/runs", Map.of("component", "daylight-api"));
        assertEquals(409, refused.status());
        assertTrue(refused.detail().startsWith("Version " + main + " of daylight-api is sealed already"),
                refused.detail());
        next("developer", Scenario.files());
    }

    @Test
    void aPatternThatClimbsOutIsAProblemOfTheFile() throws Exception {
        String said = repository.push("developer", "feature/climb",
                Map.of("paseo.yaml", Scenario.PIPELINE.replace("out/app.txt", "../app.txt")));
        assertTrue(said.contains("should be a path below the workspace"), said);
        repository.push("developer", "feature/good", Scenario.files());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "file:///etc                 | 403 | is not below a place from which components may come",
            "https://park.example/x   | 403 | is not below a place from which components may come",
            "http://park.example/x    | 400 | A repository is given as file:///path",
            "file:///nowhere/at/all.git  | 400 | There is no folder"})
    void aComponentFromOutsideTheAllowedFolders(String repositoryUrl, int status, String reason) {
        Client.Answer refused = park.as("release-engineer").post("/api/v1/components",
                Map.of("name", "intruder", "repository", repositoryUrl,
                        "trusted", List.of("main"), "allowed", List.of(), "secrets", List.of()));
        assertEquals(status, refused.status());
        assertTrue(refused.detail().contains(reason), refused.detail());
        assertEquals(404, park.as("developer").get("/api/v1/components/intruder").status(), "nothing is left of it");
    }

    @Test
    void whatIsTooLongOrTooManyIsRefused() throws Exception {
        assertEquals(400, park.as("admin")
                .put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "x".repeat(16_001))).status());
        park.as("admin").put("/api/v1/secrets", Map.of("name", "LONG_KEY", "value", "x".repeat(16_000))).good();
        Map<String, Object> file = Map.of("kind", "artifact", "name", "app", "fileName", "app", "size", 1, "digest",
                "0".repeat(64));
        Client.Answer many = park.as("release-engineer").post("/api/v1/components/daylight-api/uploads",
                Map.of("number", "9.9", "files", java.util.Collections.nCopies(201, file)));
        assertEquals(400, many.status());
        assertTrue(many.detail().contains("An upload has 1 to 200 files"), many::detail);
        HttpResponse<String> nobody = new Client(park.address(), "").raw(HttpRequest.newBuilder()
                .POST(HttpRequest.BodyPublishers.ofString("{\"name\": \"" + "x".repeat(16_384) + "\"}"))
                .header("Content-Type", "application/json"), "/api/v1/tokens");
        assertEquals(413, nobody.statusCode(), nobody.body());
    }

    @Test
    void aLinkOutOfTheAllowedFoldersIsSeenThrough() throws Exception {
        Files.createSymbolicLink(park.folder.resolve("repositories/link.git"), java.nio.file.Path.of("/etc"));
        assertEquals(403,
                park.as("release-engineer").post("/api/v1/components", Map.of("name", "intruder", "repository",
                        "file://" + park.folder.resolve("repositories/link.git"), "trusted", List.of(), "allowed",
                        List.of(), "secrets", List.of())).status());
    }

    private static HttpResponse<String> hook(String id, long at, String key, String body) throws Exception {
        return hook("push", id, at, key, body);
    }

    private static HttpResponse<String> hook(String kind, String id, long at, String key, String body)
            throws Exception {
        Mac mac = Mac.getInstance("HmacSHA256");
        mac.init(new SecretKeySpec(Base64.getDecoder().decode(key), "HmacSHA256"));
        String signature = Base64.getEncoder()
                .encodeToString(mac.doFinal((id + "." + at + "." + body).getBytes(StandardCharsets.UTF_8)));
        return park.as("developer")
                .raw(HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofString(body))
                        .header("Content-Type", "application/json")
                        .header("webhook-id", id).header("webhook-timestamp", Long.toString(at))
                        .header("webhook-signature", "v1," + signature), "/hooks/v1/" + kind + "/daylight-api");
    }

    /** The signature is made here by the standard's words, not by our own code. */
    @Test
    void aForgedAnOldAndAReplayedHook() throws Exception {
        String script = Files.readString(park.folder.resolve("repositories/daylight-api.git/hooks/post-receive"));
        String key = script.replaceAll("(?s).*secret='([^']*)'.*", "$1");
        long now = Instant.now().getEpochSecond();
        assertEquals(401,
                hook("msg_forged", now,
                        Base64.getEncoder().encodeToString("not the key".getBytes(StandardCharsets.UTF_8)), "{}")
                        .statusCode());
        assertEquals(401, hook("msg_old", now - 3600, key, "{}").statusCode());
        assertEquals(
                "Nothing has moved since Paseo looked last: what was pushed was noticed already. What came of it: "
                        + "paseo why daylight-api\n",
                hook("msg_good", now, key, "{}").body());
        assertTrue(hook("msg_good", now, key, "{}").body().startsWith("Paseo had this message before"));
        assertEquals(400, hook("msg_garbage", now, key, "not json").statusCode());
        assertEquals("A message's id has 1 to 120 characters", Client.JSON
                .readTree(hook("m".repeat(121), now, key, "{}").body()).path("detail").asString());
        assertEquals("should be a structured CloudEvent of version 1.0", Client.JSON
                .readTree(hook("events", "msg_event", now, key, "{}").body()).path("detail").asString());
        assertEquals(413, hook("msg_huge", now, key, "x".repeat(2 << 20)).statusCode());
    }

    @Test
    void anEnvironmentsFileWithProblemsChangesNothing() {
        Client.Answer refused = park.as("admin").put("/api/v1/environments",
                Map.of("text", Scenario.environments(park::hostAddress).replace("from: approvers", "from: aprovers")
                        .replace("daylight-api:", "daylight-apo:")));
        assertEquals(422, refused.status());
        assertTrue(refused.detail().contains("there is no component daylight-apo; did you mean daylight-api?"),
                refused.detail());
        assertTrue(refused.detail().contains("there is no group or account aprovers; did you mean approvers?"),
                refused.detail());
        assertEquals("approvers", park.as("admin").get("/api/v1/environments").body().get(2).path("rules").path("gates")
                .path("toEnter").path("approvals").path(0).path("from").path(0).asString());
    }

    @Test
    void aSecretThatIsTooShortToMask() {
        Client.Answer refused = park.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "short"));
        assertEquals(400, refused.status());
        assertTrue(refused.detail().contains("could not be masked"), refused.detail());
    }

    @Test
    void whoIsNotSignedInOrMayNot() {
        assertEquals(401, new Client(park.address(), "nonsense").get("/api/v1/whereabouts").status());
        assertEquals(403,
                park.as("developer")
                        .post("/api/v1/deployments",
                                Map.of("component", "daylight-api", "version", "1.4.1", "environment", "test"))
                        .status());
        assertEquals(403,
                park.as("approver-1").put("/api/v1/environments", Map.of("text", "", "loosen", true)).status());
        assertEquals(401, new Client(park.address(), "")
                .post("/api/v1/tokens", Map.of("name", "admin", "password", "guess", "description", "x")).status());
    }
}
