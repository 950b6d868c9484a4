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
        files.put("paseo.yaml", Scenario.PIPELINE.replace("  on-each-host: [deploy/install.sh]", "  installed: {app: \"{host.folder}/version\"}\n  strategy: " + strategy
                + "\n  on-each-host: [deploy/install.sh]\n" + more).replace("contains: \"version {version} ok\"", "contains: \"version {version}\"")
                .replace("production: on-request", "production: on-request"));
        files.put("deploy/install.sh", INSTALL);
        files.put("deploy/traffic.sh", "#!/bin/sh\necho \"$PASEO_SIDE $PASEO_SHARE ${PASEO_OTHER_SIDE:-none}\" >>\"$TRAFFIC\"\n");
        return files;
    }

    private static String environments(Harbour harbour, boolean sided) {
        String text = Scenario.environments(harbour::hostAddress).replace("LOG_LEVEL: warn", "LOG_LEVEL: warn, TRAFFIC: " + harbour.folder.resolve("traffic"))
                .replace("        secrets: [DATA_KEY]", "        variables: {LOG_LEVEL: info, TRAFFIC: " + harbour.folder.resolve("traffic") + "}\n        secrets: [DATA_KEY]")
                .replaceFirst("(variables: \\{LOG_LEVEL: warn[^\\n]*\\n)\\s*variables:[^\\n]*\\n", "$1");
        return sided ? text.replaceFirst("north-quay: \\{url", "north-quay: {side: blue, url").replaceFirst("south-quay: \\{url", "south-quay: {side: green, url")
                .replaceFirst(", lighthouse: \\{[^}]*}", "").replaceFirst("test-1: \\{url", "test-1: {url") : text;
    }

    private static Repository component(Harbour harbour, boolean sided) throws IOException, InterruptedException {
        Repository repository = harbour.component();
        harbour.as("admin").put("/api/v1/environments", Map.of("text", environments(harbour, sided))).good();
        return repository;
    }

    private static long promoted(Harbour harbour, String version) {
        long id = harbour.promote(version, "production");
        harbour.rule("approver-1", id, true, "Looks good.").good();
        return id;
    }

    private static JsonNode place(Harbour harbour, String environment) {
        return harbour.as("developer").get("/api/v1/places/tide-api/" + environment).body();
    }

    private static JsonNode newest(Harbour harbour, String environment) {
        return harbour.as("developer").get("/api/v1/history/tide-api/" + environment).body().path(0);
    }

    private static List<String> traffic(Harbour harbour) throws IOException {
        Path file = harbour.folder.resolve("traffic");
        return Files.exists(file) ? Files.readAllLines(file) : List.of();
    }

    @Test
    void aRollingDeploymentStopsAtTheFirstBadHostAndIsUndoneThere() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, false);
            repository.push("developer", "main", files("{rolling: {batch: 1, pause: 200ms}}", ""));
            harbour.liveIn("staging", "1.4.1");
            JsonNode plan = harbour.as("developer").get("/api/v1/places/tide-api/production/plan?version=1.4.1").body().path("plan");
            assertEquals(List.of("install", "pause", "install", "pause", "install", "live", "settled"), plan.valueStream().map(each -> each.path("what").asString()).toList());
            harbour.deploymentIs(promoted(harbour, "1.4.1"), "live");
            assertEquals("version 1.4.1 ok", harbour.installed("lighthouse"));
            repository.push("developer", "main", Map.of("health", "bad"));
            harbour.liveIn("staging", "1.4.2");
            long bad = promoted(harbour, "1.4.2");
            harbour.deploymentIs(bad, "undone");
            assertEquals("version 1.4.1 ok", harbour.installed("north-quay"));
            assertEquals(1, Files.readAllLines(harbour.hostFolder("lighthouse").resolve("history")).size(), "the other hosts were never touched");
            assertEquals(Optional.of("1.4.1"), harbour.live("production"));
        }
    }

    @Test
    void blueGreenSwitchesAndARollbackOnlyMovesTheTraffic() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, true);
            repository.push("developer", "main", files("{rolling: {}}", ""));
            harbour.liveIn("staging", "1.4.1");
            repository.push("developer", "main", files("{blue-green: {old-side-stays: 1h}}", "  traffic: [deploy/traffic.sh]\n"));
            harbour.liveIn("staging", "1.4.2");
            assertEquals(List.of(), traffic(harbour), "without sides there is nothing to switch");
            repository.push("developer", "main", Map.of("health", "ok again"));
            harbour.liveIn("staging", "1.4.3");
            harbour.deploymentIs(promoted(harbour, "1.4.3"), "live");
            assertTrue(traffic(harbour).contains("blue 100 none"), () -> "nothing was live there before");
            repository.push("developer", "main", Map.of("health", "newer"));
            harbour.liveIn("staging", "1.4.4");
            harbour.deploymentIs(promoted(harbour, "1.4.4"), "live");
            assertEquals("green 100 blue", traffic(harbour).getLast());
            assertEquals("version 1.4.3 ok again", harbour.installed("north-quay"), "the old side keeps what it has");
            int installs = Files.readAllLines(harbour.hostFolder("north-quay").resolve("history")).size();
            JsonNode back = harbour.as("release-engineer").post("/api/v1/places/tide-api/production/rollback", Map.of("reason", "tides run backwards")).good();
            harbour.deploymentIs(back.path("id").asLong(), "live");
            assertEquals("blue 100 green", traffic(harbour).getLast());
            assertEquals(installs, Files.readAllLines(harbour.hostFolder("north-quay").resolve("history")).size(), "nothing was installed again");
            assertEquals("tides run backwards", place(harbour, "production").path("hold").path("reason").asString("").replaceFirst(".*: ", ""));
        }
    }

    private static String everywhereSided(Harbour harbour) {
        return environments(harbour, true).replaceFirst("test-1: \\{url", "test-1: {side: blue, url").replaceFirst("(test-1: \\{[^}]*})", "$1, lighthouse: {side: green, url: \""
                + harbour.hostAddress("lighthouse") + "\"}").replaceFirst("staging-1: \\{url", "staging-1: {side: blue, url").replaceFirst("staging-2: \\{url", "staging-2: {side: green, url");
    }

    @Test
    void aCanaryIsStoppedByItsCheckAndGoesOnWhenAPersonSaysSo() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            harbour.as("admin").put("/api/v1/environments", Map.of("text", everywhereSided(harbour))).good();
            repository.push("developer", "main", files("{canary: {shares: [{percent: 10, stay: 4s, facts: \"version != '1.4.3'\", ask: true}]}}", "  traffic: [deploy/traffic.sh]\n"));
            harbour.liveIn("staging", "1.4.1");
            harbour.deploymentIs(promoted(harbour, "1.4.1"), "live");
            repository.push("developer", "main", Map.of("health", "second"));
            Await.until("test asks whether the canary goes on", () -> harbour.deployment(newest(harbour, "test").path("id").asLong()).path("asksToGoOn").asBoolean());
            long canary = newest(harbour, "test").path("id").asLong();
            assertEquals("green 10 blue", traffic(harbour).getLast());
            assertEquals(403, harbour.as("developer").post("/api/v1/deployments/" + canary + "/answer", Map.of("yes", true)).status());
            harbour.as("release-engineer").post("/api/v1/deployments/" + canary + "/answer", Map.of("yes", true)).good();
            harbour.deploymentIs(canary, "live");
            assertEquals("green 100 blue", traffic(harbour).getLast());
            Await.until("staging asks too", () -> harbour.deployment(newest(harbour, "staging").path("id").asLong()).path("asksToGoOn").asBoolean());
            harbour.as("release-engineer").post("/api/v1/deployments/" + newest(harbour, "staging").path("id").asLong() + "/answer", Map.of("yes", true)).good();
            harbour.liveIn("staging", "1.4.2");
            long watched = promoted(harbour, "1.4.2");
            Await.until("production gives it a share", () -> harbour.deployment(watched).path("share").asInt() == 10);
            Files.writeString(harbour.hostFolder("south-quay").resolve("version"), "worn out");
            harbour.deploymentIs(watched, "undone");
            assertEquals("green 0 blue", traffic(harbour).getLast());
            assertTrue(harbour.deployment(watched).path("deployment").path("reason").asString().contains("3 times in a row"));
            assertEquals(Optional.of("1.4.1"), harbour.live("production"));
            repository.push("developer", "main", Map.of("health", "third"));
            Await.until("facts stop the third", () -> newest(harbour, "test").path("status").asString().equals("undone"));
            assertEquals("with 10 % of the traffic, version != '1.4.3': It does not hold: version is 1.4.3.", newest(harbour, "test").path("reason").asString());
        }
    }

    @Test
    void aRollbackLeavesAHoldThatKeepsTheNextAutomaticOneOut() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, false);
            repository.push("developer", "main", files("together", ""));
            harbour.liveIn("staging", "1.4.1");
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "x")).status(), "nothing to go back to");
            repository.push("developer", "main", Map.of("health", "second"));
            harbour.liveIn("staging", "1.4.2");
            assertEquals(403, harbour.as("developer").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "x")).status());
            JsonNode back = harbour.as("release-engineer").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "wrong tides")).good();
            assertEquals("rollback", back.path("kind").asString());
            harbour.deploymentIs(back.path("id").asLong(), "live");
            assertEquals("version 1.4.1 ok", harbour.installed("staging-2"));
            repository.push("developer", "main", Map.of("health", "third"));
            harbour.liveIn("test", "1.4.3");
            Await.until("1.4.3 waits in staging", () -> newest(harbour, "staging").path("version").asString("").equals("1.4.3"));
            long held = newest(harbour, "staging").path("id").asLong();
            harbour.deploymentIs(held, "waiting");
            assertTrue(harbour.deployment(held).path("gate").toString().contains("Held by release-engineer"));
            harbour.as("release-engineer").delete("/api/v1/places/tide-api/staging/hold?reason=mended").good();
            harbour.deploymentIs(held, "live");
            assertTrue(harbour.as("auditor").get("/api/v1/audit").body().toString().contains("hold lifted"));
            String moment = harbour.deployment(back.path("id").asLong()).path("deployment").path("liveAt").asString();
            assertEquals("1.4.1", harbour.as("developer").get("/api/v1/whereabouts/at?moment=" + moment).body().path("places").valueStream()
                    .filter(row -> row.path("environment").asString().equals("staging")).findFirst().orElseThrow().path("version").asString());
        }
    }

    @Test
    void closedBlockedAndEmergencies() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, false);
            repository.push("developer", "main", files("together", ""));
            harbour.liveIn("staging", "1.4.1");
            assertEquals(403, harbour.as("release-engineer").put("/api/v1/environments/production/closure", Map.of("reason", "regatta")).status());
            assertEquals(400, harbour.as("admin").put("/api/v1/environments/production/closure", Map.of("reason", " ")).status());
            harbour.as("admin").put("/api/v1/environments/production/closure", Map.of("reason", "regatta")).good();
            Client.Answer refused = harbour.as("release-engineer").post("/api/v1/deployments", Map.of("component", "tide-api", "version", "1.4.1", "environment", "production"));
            assertEquals(409, refused.status());
            assertTrue(refused.body().path("detail").asString().contains("closed by admin"));
            assertEquals(403, harbour.as("release-engineer").post("/api/v1/deployments", Map.of("component", "tide-api", "version", "1.4.1", "environment", "production",
                    "emergency", "boats cannot moor")).status());
            harbour.account("harbour-master", List.of("operator"), List.of());
            long urgent = harbour.as("harbour-master").post("/api/v1/deployments", Map.of("component", "tide-api", "version", "1.4.1", "environment", "production",
                    "emergency", "boats cannot moor")).good().path("id").asLong();
            harbour.deploymentIs(urgent, "live");
            assertEquals("boats cannot moor", harbour.deployment(urgent).path("emergency").asString());
            assertEquals(403, harbour.as("harbour-master").post("/api/v1/deployments/" + urgent + "/review", Map.of("comment", "fine")).status());
            harbour.as("approver-1").post("/api/v1/deployments/" + urgent + "/review", Map.of("comment", "It was right.")).good();
            assertEquals(409, harbour.as("approver-1").post("/api/v1/deployments/" + urgent + "/review", Map.of("comment", "again")).status());
            harbour.as("admin").delete("/api/v1/environments/production/closure").good();
            repository.push("developer", "main", Map.of("health", "second"));
            harbour.liveIn("staging", "1.4.2");
            long waiting = harbour.promote("1.4.2", "production");
            harbour.deploymentIs(waiting, "waiting");
            harbour.as("release-engineer").put("/api/v1/versions/tide-api/1.4.2/block", Map.of("reason", "leaks keys")).good();
            harbour.deploymentIs(waiting, "withdrawn");
            assertEquals(409, harbour.as("harbour-master").post("/api/v1/deployments", Map.of("component", "tide-api", "version", "1.4.2", "environment", "production",
                    "emergency", "now")).status(), "never past a block");
            assertEquals(403, harbour.as("release-engineer").delete("/api/v1/versions/tide-api/1.4.2/block?reason=x").status());
            harbour.as("admin").delete("/api/v1/versions/tide-api/1.4.2/block?reason=keys%20were%20changed").good();
            assertEquals("waiting", harbour.status(harbour.promote("1.4.2", "production")));
        }
    }

    @Test
    void checksOfEveryKindAndWhatFollowsGoingLive() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, false);
            Map<String, String> files = files("together", """
                      once-before: ['echo "before $PASEO_HOST" >>"$PASEO_HOST_FOLDER/once"']
                      once-after: ['echo "after $PASEO_HOST" >>"$PASEO_HOST_FOLDER/once"']
                      tests:
                        acceptance: {steps: [deploy/accept.sh], reports: {tests: "out/*.xml"}}
                    """);
            files.put("paseo.yaml", files.get("paseo.yaml").replace("  checks:\n", "  checks:\n    whole:\n      - {command: 'test -s \"$PASEO_HOST_FOLDER/version\"', within: 5s}\n"
                    + "    keep-checking: 3s\n"));
            files.put("deploy/accept.sh", "#!/bin/sh\nmkdir -p out\necho '<testsuite name=\"a\"><testcase classname=\"tides\" name=\"high\"/></testsuite>' >out/a.xml\n");
            repository.push("developer", "main", files);
            harbour.liveIn("test", "1.4.1");
            harbour.liveIn("staging", "1.4.1");
            assertEquals(List.of("before staging-1", "after staging-1"), Files.readAllLines(harbour.hostFolder("staging-1").resolve("once")));
            assertFalse(Files.exists(harbour.hostFolder("staging-2").resolve("once")));
            assertTrue(harbour.as("developer").get("/api/v1/versions/tide-api/1.4.1").body().path("evidence").toString().contains("acceptance"));
            repository.push("developer", "main", Map.of("health", "second", "paseo.yaml", files.get("paseo.yaml").replace("keep-checking: 3s", "keep-checking: 10m")));
            Await.until("1.4.2 is live in test", () -> newest(harbour, "test").path("version").asString("").equals("1.4.2")
                    && newest(harbour, "test").path("status").asString("").equals("live"));
            Files.writeString(harbour.hostFolder("test-1").resolve("version"), "worn out");
            Await.until("going live is taken back", () -> newest(harbour, "test").path("status").asString("").equals("undone"));
            assertEquals("version 1.4.1 ok", harbour.installed("test-1"));
            assertEquals(Optional.of("1.4.1"), harbour.live("test"));
            Map<String, String> unset = new LinkedHashMap<>(Map.of("paseo.yaml", files.get("paseo.yaml").replace("{version}\"", "{version} {variables.MISSING}\"")));
            repository.push("developer", "main", unset);
            Await.until("the missing variable is told", () -> harbour.as("auditor").get("/api/v1/audit").body().toString().contains("no variable MISSING"));
        }
    }

    @Test
    void aPromotionARollbackAndAClosureAtOneInstantHaveOneOutcome() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour, false);
            repository.push("developer", "main", files("together", ""));
            harbour.liveIn("staging", "1.4.1");
            repository.push("developer", "main", Map.of("health", "second"));
            harbour.liveIn("staging", "1.4.2");
            java.util.concurrent.CountDownLatch start = new java.util.concurrent.CountDownLatch(1);
            List<java.util.function.Supplier<Client.Answer>> askers = List.of(
                    () -> harbour.as("release-engineer").post("/api/v1/deployments", Map.of("component", "tide-api", "version", "1.4.2", "environment", "staging")),
                    () -> harbour.as("release-engineer").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "a")),
                    () -> harbour.as("admin").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "b")),
                    () -> harbour.as("admin").put("/api/v1/environments/staging/closure", Map.of("reason", "c")));
            List<java.util.concurrent.CompletableFuture<Client.Answer>> answers = askers.stream().map(asker -> java.util.concurrent.CompletableFuture.supplyAsync(() -> {
                try {
                    start.await();
                    return asker.get();
                } catch (InterruptedException stop) {
                    throw new IllegalStateException(stop);
                }
            }, java.util.concurrent.Executors.newVirtualThreadPerTaskExecutor())).toList();
            start.countDown();
            for (java.util.concurrent.CompletableFuture<Client.Answer> answer : answers) {
                assertTrue(answer.get().status() < 300 || answer.get().status() == 409, () -> answer.join().body().toString());
            }
            long rollbacks = answers.subList(1, 3).stream().filter(answer -> answer.join().status() < 300).count();
            assertEquals(1, rollbacks, "one of two equal requests is told that the other is on its way");
            Await.until("what was begun has ended", () -> harbour.as("developer").get("/api/v1/history/tide-api/staging").body().valueStream()
                    .noneMatch(each -> List.of("deploying", "checking", "undoing", "queued").contains(each.path("status").asString())));
            String live = harbour.live("staging").orElseThrow();
            assertEquals(harbour.installed("staging-1").split(" ")[1], live, "the hosts have what is said to be live");
            assertEquals(harbour.installed("staging-2").split(" ")[1], live);
            harbour.as("release-engineer").put("/api/v1/versions/tide-api/1.4.1/block", Map.of("reason", "wrong tides")).good();
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/places/tide-api/staging/rollback", Map.of("reason", "x", "to", "1.4.1")).status(), "never to what is blocked");
        }
    }
}
