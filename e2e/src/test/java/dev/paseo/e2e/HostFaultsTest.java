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
    private static final String STICKS = Scenario.files().get("deploy/install.sh").replace("set -e\n",
            "set -e\n[ ! -f \"$PASEO_HOST_FOLDER/stuck\" ] || { echo stuck; exit 1; }\n");

    private static JsonNode newest(Park park) {
        return park.as("developer").get("/api/v1/history/daylight-api/test").body().path(0);
    }

    private static JsonNode place(Park park) {
        return park.as("developer").get("/api/v1/places/daylight-api/test").body();
    }

    private static Map<String, String> files(String install) {
        Map<String, String> files = Scenario.files();
        files.put("deploy/install.sh", install);
        return files;
    }

    @Test
    void anUndoThatFailsIsStoppedWithTheTruthHostByHostAndAPersonPutsItRight() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", files(STICKS));
            park.liveIn("test", "1.4.1");
            repository.push("developer", "main",
                    Map.of("health", "half", "deploy/install.sh", STICKS + "touch \"$PASEO_HOST_FOLDER/stuck\"\n"));
            Await.until("1.4.2 is stopped, but " + newest(park),
                    () -> newest(park).path("status").asString().equals("stopped"));
            JsonNode host = park.deployment(newest(park).path("id").asLong()).path("hosts").path(0);
            assertEquals("left", host.path("phase").asString(), host.toString());
            assertTrue(
                    host.path("reason").asString()
                            .contains("could not be undone: step 1 (deploy/install.sh) ended with exit status 1"),
                    host.toString());
            assertFalse(host.has("live"), "nobody knows what it has");
            assertEquals(List.of("test-1"),
                    place(park).path("differing").valueStream().map(JsonNode::asString).toList());
            Await.until("whoever wrote it is told", () -> park.as("developer").get("/api/v1/notices").body().toString()
                    .contains("stopped half way: somebody has to act"));
            Await.until("so is whoever may mend it there", () -> park.as("release-engineer").get("/api/v1/notices")
                    .body().toString().contains("stopped half way: somebody has to act"));
            Files.delete(park.hostFolder("test-1").resolve("stuck"));
            park.as("release-engineer").post("/api/v1/places/daylight-api/test/repair", Map.of()).good();
            Await.until("it has 1.4.1 again", () -> place(park).path("differing").isEmpty());
            assertEquals("version 1.4.1 ok", park.installed("test-1"));
            assertEquals(Optional.of("1.4.1"), park.live("test"));
        }
    }

    @Test
    void aRollbackToWhatIsDamagedOrBlockedChangesNothing() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("test", "1.4.1");
            repository.push("developer", "main", Map.of("health", "ok again"));
            park.liveIn("test", "1.4.2");
            park.damage("1.4.1");
            long back = park.as("release-engineer")
                    .post("/api/v1/places/daylight-api/test/rollback", Map.of("reason", "times run backwards")).good()
                    .path("id").asLong();
            park.deploymentIs(back, "failed");
            assertTrue(
                    park.deployment(back).path("deployment").path("reason").asString().contains("test-1: artifact app"),
                    () -> park.deployment(back).path("deployment").toString());
            assertEquals("version 1.4.2 ok again", park.installed("test-1"), "found before the recipe ran");
            assertTrue(place(park).has("hold"), "the place stays held: somebody wanted to go back from what is live");
            park.as("release-engineer").put("/api/v1/versions/daylight-api/1.4.1/block", Map.of("reason", "damaged"))
                    .good();
            Client.Answer refused = park.as("release-engineer").post("/api/v1/places/daylight-api/test/rollback",
                    Map.of("reason", "times run backwards"));
            assertEquals(409, refused.status());
            assertEquals(Optional.of("1.4.2"), park.live("test"));
        }
    }

    @Test
    void aHostThatDiesInTheMiddleIsGivenUpAndWhatItSaysWhenItComesBackLateIsRefused() throws Exception {
        try (Park park = new Park(); Processes processes = new Processes(park)) {
            park.startService("--paseo.lease-seconds=4", "--paseo.take-within=3s");
            park.accounts();
            park.startAgent("builder");
            Process agent = processes.agent("test-1");
            Repository repository = park.component();
            Await.until("the agent is there", () -> park.as("admin").get("/api/v1/agents").body().valueStream()
                    .anyMatch(
                            each -> each.path("name").asString().equals("test-1") && each.path("present").asBoolean()));
            repository.push("developer", "main", Scenario.files());
            park.liveIn("test", "1.4.1");
            Path go = park.folder.resolve("go");
            repository.push("developer", "main", Map.of("health", "ok late", "deploy/install.sh",
                    "touch '" + park.folder.resolve("begun") + "'\nwhile [ ! -e '" + go + "' ]; do sleep 0.1; done\n"
                            + Scenario.files().get("deploy/install.sh") + "\ntouch '" + park.folder.resolve("ended")
                            + "'\n"));
            Await.until("its recipe has begun", () -> Files.exists(park.folder.resolve("begun")));
            long id = newest(park).path("id").asLong();
            Processes.kill(agent);
            park.deploymentIs(id, "stopped");
            JsonNode host = park.deployment(id).path("hosts").path(0);
            assertTrue(host.path("reason").asString().matches(
                    "could not be undone: (its agent did not take the work|lost: its agent was not heard of).*"),
                    host.toString());
            assertTrue(park.deployment(id).path("deployment").path("reason").asString().contains(
                    "test-1: lost: its agent was not heard of for 4 s"), () -> park.deployment(id).toString());
            assertTrue(
                    place(park).path("hosts").path(0).has("unknownSince")
                            && !place(park).path("hosts").path(0).has("version"),
                    () -> "nobody knows what it has: " + place(park));
            // The step outlived its agent. It ends well, too late for anybody to believe it; but the agent looks what
            // is there.
            Files.writeString(go, "");
            Await.until("the step has ended", () -> Files.exists(park.folder.resolve("ended")));
            Process again = processes.agent("test-1");
            Await.until("the agent has looked",
                    () -> place(park).path("hosts").path(0).path("version").asString("").equals("1.4.2"));
            assertFalse(place(park).path("hosts").path(0).has("unknownSince"), () -> place(park).toString());
            Await.until("the agent is back", () -> park.as("admin").get("/api/v1/agents").body().valueStream()
                    .anyMatch(
                            each -> each.path("name").asString().equals("test-1") && each.path("present").asBoolean()));
            park.as("release-engineer").post("/api/v1/places/daylight-api/test/repair", Map.of()).good();
            Await.until("it has 1.4.1 again", () -> place(park).path("differing").isEmpty());
            assertEquals("stopped", park.status(id));
            assertEquals("version 1.4.1 ok", park.installed("test-1"));
            assertTrue(again.isAlive());
        }
    }
}
