package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What a host can do to a deployment, and what is true of it afterwards. */
class HostFaultsTest {

    /** A version that leaves behind what the recipe of the one before it stumbles over. */
    private static final String STICKS = Scenario.files().get("deploy/install.sh").replace("set -e\n", "set -e\n[ ! -f \"$PASEO_HOST_FOLDER/stuck\" ] || { echo stuck; exit 1; }\n");

    private static JsonNode newest(Harbour harbour) {
        return harbour.as("developer").get("/api/v1/history/tide-api/test").body().path(0);
    }

    private static JsonNode place(Harbour harbour) {
        return harbour.as("developer").get("/api/v1/places/tide-api/test").body();
    }

    private static Map<String, String> files(String install) {
        Map<String, String> files = Scenario.files();
        files.put("deploy/install.sh", install);
        return files;
    }

    @Test
    void anUndoThatFailsIsStoppedWithTheTruthHostByHostAndAPersonPutsItRight() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            repository.push("developer", "main", files(STICKS));
            harbour.liveIn("test", "1.4.1");
            repository.push("developer", "main", Map.of("health", "half", "deploy/install.sh", STICKS + "touch \"$PASEO_HOST_FOLDER/stuck\"\n"));
            Await.until("1.4.2 is stopped, but " + newest(harbour), () -> newest(harbour).path("status").asString().equals("stopped"));
            JsonNode host = harbour.deployment(newest(harbour).path("id").asLong()).path("hosts").path(0);
            assertEquals("left", host.path("phase").asString(), host.toString());
            assertTrue(host.path("reason").asString().contains("could not be undone: step 1 (deploy/install.sh) ended with exit status 1"), host.toString());
            assertFalse(host.has("live"), "nobody knows what it has");
            assertEquals(List.of("test-1"), place(harbour).path("differing").valueStream().map(JsonNode::asString).toList());
            Await.until("whoever wrote it is told", () -> harbour.as("developer").get("/api/v1/notices").body().toString().contains("stopped half way: somebody has to act"));
            Files.delete(harbour.hostFolder("test-1").resolve("stuck"));
            harbour.as("release-engineer").post("/api/v1/places/tide-api/test/repair", Map.of()).good();
            Await.until("it has 1.4.1 again", () -> place(harbour).path("differing").isEmpty());
            assertEquals("version 1.4.1 ok", harbour.installed("test-1"));
            assertEquals(Optional.of("1.4.1"), harbour.live("test"));
        }
    }

    @Test
    void aRollbackToWhatIsDamagedOrBlockedChangesNothing() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            repository.push("developer", "main", Scenario.files());
            harbour.liveIn("test", "1.4.1");
            repository.push("developer", "main", Map.of("health", "ok again"));
            harbour.liveIn("test", "1.4.2");
            harbour.damage("1.4.1");
            long back = harbour.as("release-engineer").post("/api/v1/places/tide-api/test/rollback", Map.of("reason", "tides run backwards")).good().path("id").asLong();
            harbour.deploymentIs(back, "failed");
            assertTrue(harbour.deployment(back).path("deployment").path("reason").asString().contains("test-1: artifact app"), () -> harbour.deployment(back).path("deployment").toString());
            assertEquals("version 1.4.2 ok again", harbour.installed("test-1"), "found before the recipe ran");
            assertTrue(place(harbour).has("hold"), "the place stays held: somebody wanted to go back from what is live");
            harbour.as("release-engineer").put("/api/v1/versions/tide-api/1.4.1/block", Map.of("reason", "damaged")).good();
            Client.Answer refused = harbour.as("release-engineer").post("/api/v1/places/tide-api/test/rollback", Map.of("reason", "tides run backwards"));
            assertEquals(409, refused.status());
            assertEquals(Optional.of("1.4.2"), harbour.live("test"));
        }
    }

    @Test
    void aHostThatDiesInTheMiddleIsGivenUpAndWhatItSaysWhenItComesBackLateIsRefused() throws Exception {
        try (Harbour harbour = new Harbour(); Processes processes = new Processes(harbour)) {
            harbour.startService("--paseo.lease-seconds=4", "--paseo.take-within=3s");
            harbour.accounts();
            harbour.startAgent("builder");
            Process agent = processes.agent("test-1");
            Repository repository = harbour.component();
            repository.push("developer", "main", Scenario.files());
            harbour.liveIn("test", "1.4.1");
            Path go = harbour.folder.resolve("go");
            repository.push("developer", "main", Map.of("health", "late", "deploy/install.sh", "touch '" + harbour.folder.resolve("begun") + "'\nwhile [ ! -e '" + go + "' ]; do sleep 0.1; done\n"
                    + Scenario.files().get("deploy/install.sh")));
            Await.until("its recipe has begun", () -> Files.exists(harbour.folder.resolve("begun")));
            long id = newest(harbour).path("id").asLong();
            Processes.kill(agent);
            harbour.deploymentIs(id, "stopped");
            JsonNode host = harbour.deployment(id).path("hosts").path(0);
            assertTrue(host.path("reason").asString().matches("could not be undone: (its agent did not take the work|lost: its agent was not heard of).*"), host.toString());
            assertTrue(harbour.deployment(id).path("deployment").path("reason").asString().contains("test-1: lost: its agent was not heard of for 4 s"), () -> harbour.deployment(id).toString());
            // The step outlived its agent. It ends well, too late for anybody to believe it.
            Process again = processes.agent("test-1");
            Files.writeString(go, "");
            Await.until("the agent is back", () -> harbour.as("admin").get("/api/v1/agents").body().valueStream()
                    .anyMatch(each -> each.path("name").asString().equals("test-1") && each.path("present").asBoolean()));
            harbour.as("release-engineer").post("/api/v1/places/tide-api/test/repair", Map.of()).good();
            Await.until("it has 1.4.1 again", () -> place(harbour).path("differing").isEmpty());
            assertEquals("stopped", harbour.status(id));
            assertEquals("version 1.4.1 ok", harbour.installed("test-1"));
            assertTrue(again.isAlive());
        }
    }
}
