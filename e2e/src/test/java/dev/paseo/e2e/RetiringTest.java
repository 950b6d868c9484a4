package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What is registered can be changed, and what is needed no more is taken out of use without losing its history. */
class RetiringTest {

    private static final String FILE = "paseo: 1\ncomponent: %s\nversions: \"1.{serial}\"\nstarts: [{push: [main, "
            + "trunk]}]\nstages: {light: {steps: [\"echo 1 > lamp\"], keep: {lamp: lamp}}}\n";

    @Test
    void aComponentIsChangedInAllItsParts() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository lamp = park.bring("lamp", Map.of());
            lamp.push("developer", "main", Map.of("paseo.yaml", FILE.formatted("lamp")));
            park.runEnds("lamp", 1);
            Repository bell = park.bring("bell", Map.of("sources", List.of("lamp")));
            bell.push("developer", "main",
                    Map.of("paseo.yaml", FILE.formatted("bell").replace("starts: [", "starts: [{upstream: lamp}, ")
                            .replace("light: {", "light: {take: [{from: lamp, artifact: lamp, into: in}], ")));
            park.runEnds("bell", 1);
            assertEquals(403,
                    park.as("auditor").post("/api/v1/components/lamp/changes", Map.of("mainBranch", "trunk")).status());
            assertEquals("There is, or was, a component named bell; bell-2 is free", park.as("release-engineer")
                    .post("/api/v1/components/lamp/changes", Map.of("name", "bell")).detail());
            assertEquals(400, park.as("release-engineer")
                    .post("/api/v1/components/lamp/changes", Map.of("trusted", List.of(""))).status());
            assertEquals(400, park.as("release-engineer")
                    .post("/api/v1/components/lamp/changes", Map.of("file", "../paseo.yaml")).status());

            park.as("admin").post("/api/v1/receivers", Map.of("name", "bell-board", "address",
                    "http://127.0.0.1:" + park.storePort + "/events", "components", List.of("lamp"))).good();
            assertEquals(
                    "lamp cannot be renamed yet: it is named in the receiver bell-board; change that first",
                    park.as("release-engineer").post("/api/v1/components/lamp/changes", Map.of("name", "lantern"))
                            .detail());
            park.as("admin").delete("/api/v1/receivers/bell-board").good();

            Park.Said said = park.paseo("release-engineer", "component", "change", "lamp", "--name", "lantern",
                    "--trusted", "main", "--trusted", "trunk", "--none-allowed");
            assertTrue(said.out().endsWith(", paseo.yaml, main branch main; trusted main, trunk; allowed none.\n"),
                    said::out);
            assertEquals("lantern", park.as("developer").get("/api/v1/components/lamp").good().path("name").asString(),
                    "it is still reached by its old name");
            lamp.push("developer", "main", Map.of("again", "1"));
            park.runEnds("lantern", 2);
            Await.until("what names it by its old name starts upon it",
                    () -> park.as("developer").get("/api/v1/runs/bell/2").status() == 200);
            park.runEnds("bell", 2);
            lamp.push("developer", "trunk", Map.of("paseo.yaml", FILE.formatted("lantern"), "pipelines/lamp.yaml",
                    FILE.formatted("lantern").replace("1.{serial}", "2.{serial}")));
            park.runEnds("lantern", 3);

            said = park.paseo("release-engineer", "component", "change", "lantern", "--main-branch", "trunk", "--file",
                    "pipelines/lamp.yaml");
            assertEquals(0, said.code(), said::out);
            assertEquals(3, park.as("developer").get("/api/v1/runs?component=lantern").good().path("runs").size(),
                    "what is there already starts nothing");
            lamp.push("developer", "trunk", Map.of("again", "2"));
            assertTrue(park.runEnds("lantern", 4).path("run").path("version").asString().startsWith("2."),
                    () -> park.as("developer").get("/api/v1/runs/lantern/4").body().toString());

            Repository moved = new Repository(park.folder.resolve("repositories"), "lantern-moved");
            moved.push("developer", "trunk", Map.of("pipelines/lamp.yaml", FILE.formatted("lantern")));
            assertEquals(403, park.as("release-engineer")
                    .post("/api/v1/components/lantern/changes", Map.of("repository", "file:///etc")).status());
            assertEquals(409, park.as("release-engineer")
                    .post("/api/v1/components/lantern/changes", Map.of("repository", bell.url())).status());
            Park.Said there = park.paseo("release-engineer", "component", "change", "lantern", "--repository",
                    moved.url());
            assertEquals(0, there.code(), there::out);
            park.as("developer").post("/api/v1/runs", Map.of("component", "lantern")).good();
            park.runEnds("lantern", 5);
            assertEquals("bell may no longer take from lantern.\n",
                    park.paseo("release-engineer", "component", "shut", "bell", "--source", "lantern").out());
            String trail = park.as("admin").get("/api/v1/audit?limit=200").body().toString();
            assertTrue(trail.contains("component changed") && trail.contains("source closed"), trail);
        }
    }

    @Test
    void aRetiredComponentStartsNothingAndIsRemovedWhereThatIsAsked() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("test", "1.4.1");
            park.liveIn("staging", "1.4.1");
            long waiting = park.as("release-engineer")
                    .post("/api/v1/deployments",
                            Map.of("component", "daylight-api", "version", "1.4.1", "environment", "production"))
                    .good().path("id").asLong();
            JsonNode found = park.as("developer").get("/api/v1/retirements/component/daylight-api?remove=true").good();
            assertTrue(found.path("follows").toString().contains("daylight-api 1.4.1 is removed from test-1 in test"),
                    found::toString);
            assertTrue(found.path("follows").toString()
                    .contains("daylight-api 1.4.1 is removed from staging-1, staging-2 in staging"), found::toString);
            assertEquals(
                    "deployment " + waiting + " of daylight-api into production is waiting: wait for it, or cancel it",
                    found.path("hinders").path(0).asString());
            Park.Said refused = park.paseo("release-engineer", "retire", "component", "daylight-api", "--reason",
                    "no more huts");
            assertEquals(1, refused.code(), refused::out);
            park.as("release-engineer").post("/api/v1/deployments/" + waiting + "/cancellation", Map.of()).good();
            assertEquals(403,
                    park.as("developer")
                            .put("/api/v1/retirements/component/daylight-api", Map.of("reason", "x", "remove", false))
                            .status());
            assertEquals(400,
                    park.as("admin")
                            .put("/api/v1/retirements/component/daylight-api", Map.of("reason", " ", "remove", false))
                            .status());
            assertEquals(400, park.as("admin")
                    .put("/api/v1/retirements/run/daylight-api", Map.of("reason", "x", "remove", false)).status());

            Park.Said said = park.paseo("release-engineer", "retire", "component", "daylight-api", "--reason",
                    "no more huts", "--remove");
            assertTrue(
                    said.out().endsWith(
                            "daylight-api is retired. It comes back by: paseo bring-back component daylight-api\n"),
                    said::out);
            Await.until("it is removed", () -> !Files.exists(park.hostFolder("test-1").resolve("version")));
            Await.until("nothing is live", () -> park.live("test").isEmpty());
            assertEquals(List.of(), park.pastTheTrail(), "what is retired is still as the trail states it");
            String pushed = repository.push("developer", "main", Map.of("health", "ok again"));
            assertTrue(pushed.contains("daylight-api is retired"), pushed);
            assertEquals("daylight-api is retired: none of its runs can be started",
                    park.as("developer").post("/api/v1/runs", Map.of("component", "daylight-api")).detail());
            assertFalse(park.as("developer").get("/api/v1/components").good().toString().contains("daylight-api"));
            assertEquals("1.4.1",
                    park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").good().path("number").asString(),
                    "its history stays");

            Park.Said listed = park.paseo("developer", "list", "retired");
            assertTrue(listed.out().contains("component  daylight-api")
                    && listed.out().contains("paseo bring-back component daylight-api"), listed::out);
            assertEquals(0, park.paseo("release-engineer", "bring-back", "component", "daylight-api").code());
            assertEquals("Nothing is retired.\n", park.paseo("developer", "list", "retired").out());
            park.as("developer").post("/api/v1/runs", Map.of("component", "daylight-api")).good();
            repository.push("developer", "main", Map.of("health", "ok at last"));
            Await.until("it is deployed again", () -> park.live("test").isPresent());
        }
    }

    @Test
    void aPlaceAHostAnAgentAndAnEnvironmentAreRetiredInTheirOrder() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml", Scenario.PIPELINE.replace("  removal: [deploy/remove.sh]\n", ""));
            repository.push("developer", "main", files);
            park.liveIn("test", "1.4.1");
            park.liveIn("staging", "1.4.1");
            Park.Said refused = park.paseo("admin", "retire", "host", "test-1", "--reason", "too old");
            assertTrue(refused.out().contains(
                    "test-1 cannot be retired: daylight-api has it in test: give the place other hosts first, or "
                            + "retire it; the agent test-1 works on it: retire that first"),
                    refused::out);
            refused = park.paseo("admin", "retire", "environment", "test", "--reason", "too old");
            assertTrue(refused.out().contains(
                    "daylight-api has a place there: retire that first; staging follows it: change that in the "
                            + "environments file first"),
                    refused::out);
            refused = park.paseo("admin", "retire", "place", "daylight-api", "--in", "test", "--reason", "too old",
                    "--remove");
            assertTrue(refused.out().contains(
                    "the recipe of daylight-api 1.4.1 has no removal: it stays on test-1 in test until somebody "
                            + "takes it away by hand"),
                    refused::out);
            Park.Said said = park.paseo("admin", "retire", "place", "daylight-api", "--in", "test", "--reason",
                    "too old");
            assertTrue(
                    said.out().startsWith(
                            "daylight-api 1.4.1 keeps running on test-1 in test; its recipe has no removal.\n"),
                    said::out);
            JsonNode cell = park.as("developer").get("/api/v1/whereabouts?component=daylight-api").good().path("rows")
                    .path(0).path("cells").path(0);
            assertTrue(cell.path("retired").asBoolean(), "what still runs is still seen: " + cell);
            assertEquals("daylight-api in test is retired: nothing is deployed there", park.as("release-engineer")
                    .post("/api/v1/deployments",
                            Map.of("component", "daylight-api", "version", "1.4.1", "environment", "test"))
                    .detail());
            repository.push("developer", "main", Map.of("health", "ok again"));
            Await.until("the walk stays, and says so",
                    () -> park.paseo("developer", "where").out().contains("daylight-api in test is retired"));
            assertEquals(0, park.paseo("admin", "retire", "agent", "test-1", "--reason", "too old").code());
            assertFalse(park.as("developer").get("/api/v1/agents").good().toString().contains("\"test-1\""));
            assertEquals(0, park.paseo("admin", "retire", "host", "test-1", "--reason", "too old").code());
            assertFalse(park.as("developer").get("/api/v1/hosts").good().toString().contains("\"test-1\""));
            assertEquals(409, park.as("admin").delete("/api/v1/retirements/agent/test-1").status());
            assertEquals(Optional.of("1.4.1"), park.live("test"), "what was live there is still known");
            long deployment = park.as("developer").get("/api/v1/history/daylight-api/test").good().path(0).path("id")
                    .asLong();
            JsonNode record = park.as("auditor").get("/api/v1/release-records?deployment=" + deployment).good();
            assertEquals("test-1", record.path("releases").path(0).path("hosts").path(0).path("host").asString(""),
                    "the record of a deployment has the hosts that it had: " + record);
        }
    }
}
