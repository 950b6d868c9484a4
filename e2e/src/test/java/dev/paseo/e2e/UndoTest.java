package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What goes wrong on hosts, and the way back. */
class UndoTest {

    private static JsonNode newest(Park park, String environment) {
        return park.as("developer").get("/api/v1/history/daylight-api/" + environment).body().path(0);
    }

    @Test
    void aVersionThatDoesNotAnswerIsTakenBackOnEveryHostItTouched() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Map.copyOf(withHealth("broken")));
            Await.until("the first one is removed again",
                    () -> newest(park, "test").path("status").asString("").equals("undone"));
            assertEquals("", park.installed("test-1"));
            repository.push("developer", "main", Map.of("health", "ok"));
            park.liveIn("staging", "1.4.2");
            repository.push("developer", "main", Map.of("health", "half"));
            Await.until("1.4.3 is undone in test",
                    () -> newest(park, "test").path("status").asString("").equals("undone")
                            && newest(park, "test").path("version").asString("").equals("1.4.3"));
            assertTrue(
                    newest(park, "test").path("reason").asString().contains("does not contain \"version 1.4.3 ok\""));
            assertEquals("version 1.4.2 ok", park.installed("test-1"));
            assertEquals(Optional.of("1.4.2"), park.live("test"));
            assertEquals("1.4.2",
                    park.database.as("select v.number from live_interval i join version v on v.id = i.version_id "
                            + "join host h on h.id = i.host_id where h.name = 'test-1' and i.to_at is null").strip(),
                    "the host's interval says so");
        }
    }

    private static Map<String, String> withHealth(String health) {
        Map<String, String> files = Scenario.files();
        files.put("health", health);
        return files;
    }

    @Test
    void aHostWhoseAgentIsAwayIsToldAndNothingIsChanged() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.take-within=2s");
            park.accounts();
            park.startAgent("builder");
            park.component().push("developer", "main", Scenario.files());
            Await.until("the deployment fails",
                    () -> newest(park, "test").path("status").asString("").equals("failed"));
            assertTrue(newest(park, "test").path("reason").asString()
                    .contains("its agent did not take the work within 2 s"));
            assertEquals("", park.installed("test-1"));
        }
    }

    @Test
    void aFlippedBitInAStoredArtifactIsFoundBeforeTheRecipeRuns() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            park.damage("1.4.1");
            long id = park.promote("1.4.1", "production");
            park.rule("approver-1", id, true, "Looks good.").good();
            park.deploymentIs(id, "failed");
            assertEquals("", park.installed("valley-house"));
        }
    }

    @Test
    void aCancelWhileItIsDeployedUndoesIt() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "main", Map.of("deploy/install.sh",
                    "#!/bin/sh\necho begun > \"$PASEO_HOST_FOLDER/version\"\nexec sleep 600\n"));
            Await.until("it is being deployed",
                    () -> newest(park, "test").path("status").asString("").equals("deploying")
                            && !newest(park, "test").path("version").asString("").equals("1.4.1"));
            long id = newest(park, "test").path("id").asLong();
            Await.until("the recipe has begun", () -> {
                try {
                    return park.installed("test-1").equals("begun");
                } catch (java.io.IOException unreadable) {
                    return false;
                }
            });
            assertEquals("undoing", park.as("release-engineer")
                    .post("/api/v1/deployments/" + id + "/cancellation", Map.of()).good().path("status").asString());
            assertEquals(409,
                    park.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).status());
            park.deploymentIs(id, "undone");
            assertEquals("version 1.4.1 ok", park.installed("test-1"));
        }
    }

    @Test
    void aRunCancelledInTheMiddleEndsItsStepsAndSealsNothing() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("build.sh", "#!/bin/sh\necho building\nsleep 600\n");
            repository.push("developer", "main", files);
            Await.until("the step has begun", () -> park.run(1).path("stages").path(0).path("steps").size() == 1);
            assertEquals("cancelling", park.as("developer").post("/api/v1/runs/daylight-api/1/cancellation", Map.of())
                    .good().path("status").asString());
            JsonNode run = park.runEnds(1);
            assertEquals("cancelled", run.path("run").path("status").asString());
            assertEquals(404, park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").status());
            assertEquals(409, park.as("developer").post("/api/v1/runs/daylight-api/1/cancellation", Map.of()).status());
        }
    }
}
