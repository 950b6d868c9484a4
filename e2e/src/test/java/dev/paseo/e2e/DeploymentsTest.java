package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Strategies, ways back, and what restrains a place, with real agents on real hosts. */
class DeploymentsTest {

    /** A version whose {@code health} is bad is so in production only. */
    private static final String INSTALL = """
            #!/bin/sh
            set -e
            text=$(cat "$PASEO_ARTIFACTS/app/app.txt")
            case "$PASEO_ENVIRONMENT $text" in "production "*bad*) text=broken ;; esac
            echo "$text" >"$PASEO_HOST_FOLDER/version"
            echo "$PASEO_VERSION $LOG_LEVEL" >>"$PASEO_HOST_FOLDER/history"
            """;

    private static Map<String, String> files(String strategy, String more) {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml",
                Scenario.PIPELINE
                        .replace("  on-each-host: [deploy/install.sh]",
                                "  installed: {app: \"{host.folder}/version\"}\n  strategy: " + strategy
                                        + "\n  on-each-host: [deploy/install.sh]\n" + more)
                        .replace("contains: \"version {version} ok\"", "contains: \"version {version}\"")
                        .replace("production: on-request", "production: on-request"));
        files.put("deploy/install.sh", INSTALL);
        files.put("deploy/traffic.sh",
                "#!/bin/sh\necho \"$PASEO_SIDE $PASEO_SHARE ${PASEO_OTHER_SIDE:-none}\" >>\"$TRAFFIC\"\n");
        return files;
    }

    private static String environments(Park park, boolean sided) {
        String text = Scenario.environments(park::hostAddress)
                .replace("LOG_LEVEL: warn", "LOG_LEVEL: warn, TRAFFIC: " + park.folder.resolve("traffic"))
                .replace("        secrets: [DATA_KEY]",
                        "        variables: {LOG_LEVEL: info, TRAFFIC: " + park.folder.resolve("traffic")
                                + "}\n        secrets: [DATA_KEY]")
                .replaceFirst("(variables: \\{LOG_LEVEL: warn[^\\n]*\\n)\\s*variables:[^\\n]*\\n", "$1");
        return sided
                ? text.replaceFirst("north-hut: \\{url", "north-hut: {side: blue, url")
                        .replaceFirst("ridge-hut: \\{url", "ridge-hut: {side: green, url")
                        .replaceFirst(", valley-house: \\{[^}]*}", "").replaceFirst("test-1: \\{url", "test-1: {url")
                : text;
    }

    private static Repository component(Park park, boolean sided) throws IOException, InterruptedException {
        Repository repository = park.component();
        park.as("admin").put("/api/v1/environments", Map.of("text", environments(park, sided), "loosen", true)).good();
        return repository;
    }

    private static long promoted(Park park, String version) {
        long id = park.promote(version, "production");
        park.rule("approver-1", id, true, "Looks good.").good();
        return id;
    }

    private static JsonNode place(Park park, String environment) {
        return park.as("developer").get("/api/v1/places/daylight-api/" + environment).body();
    }

    private static JsonNode newest(Park park, String environment) {
        return park.as("developer").get("/api/v1/history/daylight-api/" + environment).body().path(0);
    }

    private static List<String> traffic(Park park) throws IOException {
        Path file = park.folder.resolve("traffic");
        return Files.exists(file) ? Files.readAllLines(file) : List.of();
    }

    @Test
    void aRollingDeploymentStopsAtTheFirstBadHostAndIsUndoneThere() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, false);
            repository.push("developer", "main", files("{rolling: {batch: 1, pause: 200ms}}", ""));
            park.liveIn("staging", "1.4.1");
            JsonNode plan = park.as("developer").get("/api/v1/places/daylight-api/production/plan?version=1.4.1").body()
                    .path("plan");
            assertEquals(List.of("install", "pause", "install", "pause", "install", "live", "settled"),
                    plan.valueStream().map(each -> each.path("what").asString()).toList());
            park.deploymentIs(promoted(park, "1.4.1"), "live");
            assertEquals("version 1.4.1 ok", park.installed("valley-house"));
            repository.push("developer", "main", Map.of("health", "bad"));
            park.liveIn("staging", "1.4.2");
            long bad = promoted(park, "1.4.2");
            park.deploymentIs(bad, "undone");
            assertEquals("version 1.4.1 ok", park.installed("north-hut"));
            assertEquals(1, Files.readAllLines(park.hostFolder("valley-house").resolve("history")).size(),
                    "the other hosts were never touched");
            assertEquals(Optional.of("1.4.1"), park.live("production"));
        }
    }

    @Test
    void blueGreenSwitchesAndARollbackOnlyMovesTheTraffic() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, true);
            repository.push("developer", "main", files("{rolling: {}}", ""));
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "main",
                    files("{blue-green: {old-side-stays: 1h}}", "  traffic: [deploy/traffic.sh]\n"));
            park.liveIn("staging", "1.4.2");
            assertEquals(List.of(), traffic(park), "without sides there is nothing to switch");
            repository.push("developer", "main", Map.of("health", "ok again"));
            park.liveIn("staging", "1.4.3");
            park.deploymentIs(promoted(park, "1.4.3"), "live");
            assertTrue(traffic(park).contains("blue 100 none"), () -> "nothing was live there before");
            repository.push("developer", "main", Map.of("health", "newer"));
            park.liveIn("staging", "1.4.4");
            park.deploymentIs(promoted(park, "1.4.4"), "live");
            assertEquals("green 100 blue", traffic(park).getLast());
            assertEquals("version 1.4.3 ok again", park.installed("north-hut"), "the old side keeps what it has");
            int installs = Files.readAllLines(park.hostFolder("north-hut").resolve("history")).size();
            JsonNode back = park.as("release-engineer")
                    .post("/api/v1/places/daylight-api/production/rollback", Map.of("reason", "times run backwards"))
                    .good();
            park.deploymentIs(back.path("id").asLong(), "live");
            assertEquals("blue 100 green", traffic(park).getLast());
            assertEquals(installs, Files.readAllLines(park.hostFolder("north-hut").resolve("history")).size(),
                    "nothing was installed again");
            assertEquals("times run backwards",
                    place(park, "production").path("hold").path("reason").asString("").replaceFirst(".*: ", ""));
        }
    }

    private static String everywhereSided(Park park) {
        return environments(park, true).replaceFirst("test-1: \\{url", "test-1: {side: blue, url")
                .replaceFirst("(test-1: \\{[^}]*})", "$1, valley-house: {side: green, url: \""
                        + park.hostAddress("valley-house") + "\"}")
                .replaceFirst("staging-1: \\{url", "staging-1: {side: blue, url")
                .replaceFirst("staging-2: \\{url", "staging-2: {side: green, url");
    }

    @Test
    void aCanaryIsStoppedByItsCheckAndGoesOnWhenAPersonSaysSo() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            park.as("admin").put("/api/v1/environments", Map.of("text", everywhereSided(park), "loosen", true)).good();
            repository.push("developer", "main",
                    files("{canary: {shares: [{percent: 10, stay: 4s, facts: \"version != '1.4.3'\", ask: true}]}}",
                            "  traffic: [deploy/traffic.sh]\n"));
            park.liveIn("staging", "1.4.1");
            park.deploymentIs(promoted(park, "1.4.1"), "live");
            repository.push("developer", "main", Map.of("health", "second"));
            Await.until("test asks whether the canary goes on",
                    () -> park.deployment(newest(park, "test").path("id").asLong()).path("asksToGoOn").asBoolean());
            long canary = newest(park, "test").path("id").asLong();
            assertEquals("green 10 blue", traffic(park).getLast());
            assertEquals(403, park.as("developer")
                    .post("/api/v1/deployments/" + canary + "/answer", Map.of("yes", true)).status());
            park.as("release-engineer").post("/api/v1/deployments/" + canary + "/answer", Map.of("yes", true)).good();
            park.deploymentIs(canary, "live");
            assertEquals("green 100 blue", traffic(park).getLast());
            Await.until("staging asks too",
                    () -> park.deployment(newest(park, "staging").path("id").asLong()).path("asksToGoOn").asBoolean());
            park.as("release-engineer")
                    .post("/api/v1/deployments/" + newest(park, "staging").path("id").asLong() + "/answer",
                            Map.of("yes", true))
                    .good();
            park.liveIn("staging", "1.4.2");
            long watched = promoted(park, "1.4.2");
            Await.until("production gives it a share", () -> park.deployment(watched).path("share").asInt() == 10);
            Files.writeString(park.hostFolder("ridge-hut").resolve("version"), "worn out");
            park.deploymentIs(watched, "undone");
            assertEquals("green 0 blue", traffic(park).getLast());
            assertTrue(
                    park.deployment(watched).path("deployment").path("reason").asString().contains("3 times in a row"));
            assertEquals(Optional.of("1.4.1"), park.live("production"));
            repository.push("developer", "main", Map.of("health", "third"));
            Await.until("facts stop the third", () -> newest(park, "test").path("status").asString().equals("undone"));
            assertEquals("with 10 % of the traffic, version != '1.4.3': It does not hold: version is 1.4.3.",
                    newest(park, "test").path("reason").asString());
        }
    }

    @Test
    void aRollbackLeavesAHoldThatKeepsTheNextAutomaticOneOut() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, false);
            repository.push("developer", "main", files("together", ""));
            park.liveIn("staging", "1.4.1");
            assertEquals(409,
                    park.as("release-engineer")
                            .post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "x")).status(),
                    "nothing to go back to");
            repository.push("developer", "main", Map.of("health", "second"));
            park.liveIn("staging", "1.4.2");
            assertEquals(403, park.as("developer")
                    .post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "x")).status());
            JsonNode back = park.as("release-engineer")
                    .post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "wrong times")).good();
            assertEquals("rollback", back.path("kind").asString());
            park.deploymentIs(back.path("id").asLong(), "live");
            assertEquals("version 1.4.1 ok", park.installed("staging-2"));
            repository.push("developer", "main", Map.of("health", "third"));
            park.liveIn("test", "1.4.3");
            Await.until("1.4.3 waits in staging",
                    () -> newest(park, "staging").path("version").asString("").equals("1.4.3"));
            long held = newest(park, "staging").path("id").asLong();
            park.deploymentIs(held, "waiting");
            assertTrue(park.deployment(held).path("gate").toString().contains("Held by release-engineer"));
            park.as("release-engineer").delete("/api/v1/places/daylight-api/staging/hold?reason=mended").good();
            park.deploymentIs(held, "live");
            assertTrue(park.as("auditor").get("/api/v1/audit").body().toString().contains("hold lifted"));
            String moment = park.deployment(back.path("id").asLong()).path("deployment").path("liveAt").asString();
            assertEquals("1.4.1",
                    park.as("developer").get("/api/v1/whereabouts/at?moment=" + moment).body().path("places")
                            .valueStream()
                            .filter(row -> row.path("environment").asString().equals("staging")).findFirst()
                            .orElseThrow().path("version").asString());
        }
    }

    @Test
    void closedBlockedAndEmergencies() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, false);
            repository.push("developer", "main", files("together", ""));
            park.liveIn("staging", "1.4.1");
            assertEquals(403, park.as("release-engineer")
                    .put("/api/v1/environments/production/closure", Map.of("reason", "hill race")).status());
            assertEquals(400,
                    park.as("admin").put("/api/v1/environments/production/closure", Map.of("reason", " ")).status());
            park.as("admin").put("/api/v1/environments/production/closure", Map.of("reason", "hill race")).good();
            Client.Answer refused = park.as("release-engineer").post("/api/v1/deployments",
                    Map.of("component", "daylight-api", "version", "1.4.1", "environment", "production"));
            assertEquals(409, refused.status());
            assertTrue(refused.body().path("detail").asString().contains("closed by admin"));
            assertEquals(403,
                    park.as("release-engineer")
                            .post("/api/v1/deployments",
                                    Map.of("component", "daylight-api", "version", "1.4.1", "environment", "production",
                                            "emergency", "a party is out on the ridge"))
                            .status());
            park.account("head-warden", List.of("operator"), List.of());
            long urgent = park.as("head-warden")
                    .post("/api/v1/deployments",
                            Map.of("component", "daylight-api", "version", "1.4.1", "environment", "production",
                                    "emergency", "a party is out on the ridge"))
                    .good().path("id").asLong();
            park.deploymentIs(urgent, "live");
            assertEquals("a party is out on the ridge", park.deployment(urgent).path("emergency").asString());
            assertEquals(403, park.as("head-warden")
                    .post("/api/v1/deployments/" + urgent + "/review", Map.of("comment", "fine")).status());
            String review = "/api/v1/deployments/" + urgent + "/review";
            assertEquals("Say what you found",
                    park.as("approver-1").post(review, Map.of("comment", " ")).detail());
            park.as("approver-1").post(review, Map.of("comment", "It was right.")).good();
            assertEquals("Deployment " + urgent + " was reviewed already",
                    park.as("approver-1").post(review, Map.of("comment", "again")).detail());
            park.as("admin").delete("/api/v1/environments/production/closure").good();
            repository.push("developer", "main", Map.of("health", "second"));
            park.liveIn("staging", "1.4.2");
            long waiting = park.promote("1.4.2", "production");
            park.deploymentIs(waiting, "waiting");
            park.as("release-engineer").put("/api/v1/versions/daylight-api/1.4.2/block", Map.of("reason", "leaks keys"))
                    .good();
            park.deploymentIs(waiting, "withdrawn");
            assertEquals(409,
                    park.as("head-warden")
                            .post("/api/v1/deployments",
                                    Map.of("component", "daylight-api", "version", "1.4.2", "environment", "production",
                                            "emergency", "now"))
                            .status(),
                    "never past a block");
            assertEquals(403,
                    park.as("release-engineer").delete("/api/v1/versions/daylight-api/1.4.2/block?reason=x").status());
            park.as("admin").delete("/api/v1/versions/daylight-api/1.4.2/block?reason=keys%20were%20changed").good();
            assertEquals("waiting", park.status(park.promote("1.4.2", "production")));
        }
    }

    @Test
    void checksOfEveryKindAndWhatFollowsGoingLive() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, false);
            Map<String, String> files = files("together", """
                      once-before: ['echo "before $PASEO_HOST" >>"$PASEO_HOST_FOLDER/once"']
                      once-after: ['echo "after $PASEO_HOST" >>"$PASEO_HOST_FOLDER/once"']
                      tests:
                        acceptance: {steps: [deploy/accept.sh], reports: {tests: "out/*.xml"}}
                    """);
            files.put("paseo.yaml", files.get("paseo.yaml").replace("  checks:\n",
                    "  checks:\n    whole:\n      - {command: 'test -s \"$PASEO_HOST_FOLDER/version\"', within: 5s}\n"
                            + "    keep-checking: 3s\n"));
            files.put("deploy/accept.sh",
                    "#!/bin/sh\nmkdir -p out\necho '<testsuite name=\"a\"><testcase classname=\"times\" "
                            + "name=\"high\"/></testsuite>' >out/a.xml\n");
            repository.push("developer", "main", files);
            park.liveIn("test", "1.4.1");
            park.liveIn("staging", "1.4.1");
            assertEquals(List.of("before staging-1", "after staging-1"),
                    Files.readAllLines(park.hostFolder("staging-1").resolve("once")));
            assertFalse(Files.exists(park.hostFolder("staging-2").resolve("once")));
            assertTrue(park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").body().path("evidence")
                    .toString().contains("acceptance"));
            repository.push("developer", "main", Map.of("health", "second", "paseo.yaml",
                    files.get("paseo.yaml").replace("keep-checking: 3s", "keep-checking: 10m")));
            Await.until("1.4.2 is live in test", () -> newest(park, "test").path("version").asString("").equals("1.4.2")
                    && newest(park, "test").path("status").asString("").equals("live"));
            Files.writeString(park.hostFolder("test-1").resolve("version"), "worn out");
            Await.until("going live is taken back",
                    () -> newest(park, "test").path("status").asString("").equals("undone"));
            assertEquals("version 1.4.1 ok", park.installed("test-1"));
            assertEquals(Optional.of("1.4.1"), park.live("test"));
            Map<String, String> unset = new LinkedHashMap<>(Map.of("paseo.yaml",
                    files.get("paseo.yaml").replace("{version}\"", "{version} {variables.MISSING}\"")));
            repository.push("developer", "main", unset);
            Await.until("the missing variable is told",
                    () -> park.as("auditor").get("/api/v1/audit").body().toString().contains("no variable MISSING"));
        }
    }

    @Test
    void aPromotionARollbackAndAClosureAtOneInstantHaveOneOutcome() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park, false);
            repository.push("developer", "main", files("together", ""));
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "main", Map.of("health", "second"));
            park.liveIn("staging", "1.4.2");
            java.util.concurrent.CountDownLatch start = new java.util.concurrent.CountDownLatch(1);
            List<java.util.function.Supplier<Client.Answer>> askers = List.of(
                    () -> park.as("release-engineer").post("/api/v1/deployments",
                            Map.of("component", "daylight-api", "version", "1.4.2", "environment", "staging")),
                    () -> park.as("release-engineer").post("/api/v1/places/daylight-api/staging/rollback",
                            Map.of("reason", "a")),
                    () -> park.as("admin").post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "b")),
                    () -> park.as("admin").put("/api/v1/environments/staging/closure", Map.of("reason", "c")));
            List<java.util.concurrent.CompletableFuture<Client.Answer>> answers = askers.stream()
                    .map(asker -> java.util.concurrent.CompletableFuture.supplyAsync(() -> {
                        try {
                            start.await();
                            return asker.get();
                        } catch (InterruptedException stop) {
                            throw new IllegalStateException(stop);
                        }
                    }, java.util.concurrent.Executors.newVirtualThreadPerTaskExecutor())).toList();
            start.countDown();
            for (java.util.concurrent.CompletableFuture<Client.Answer> answer : answers) {
                assertTrue(answer.get().status() < 300 || answer.get().status() == 409,
                        () -> answer.join().body().toString());
            }
            long rollbacks = answers.subList(1, 3).stream().filter(answer -> answer.join().status() < 300).count();
            assertEquals(1, rollbacks, "one of two equal requests is told that the other is on its way");
            Await.until("what was begun has ended",
                    () -> park.as("developer").get("/api/v1/history/daylight-api/staging").body().valueStream()
                            .noneMatch(each -> List.of("deploying", "checking", "undoing", "queued")
                                    .contains(each.path("status").asString())));
            String live = park.live("staging").orElseThrow();
            assertEquals(park.installed("staging-1").split(" ")[1], live, "the hosts have what is said to be live");
            assertEquals(park.installed("staging-2").split(" ")[1], live);
            park.as("release-engineer")
                    .put("/api/v1/versions/daylight-api/1.4.1/block", Map.of("reason", "wrong times")).good();
            assertEquals(409,
                    park.as("release-engineer")
                            .post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "x", "to", "1.4.1"))
                            .status(),
                    "never to what is blocked");
        }
    }
}
