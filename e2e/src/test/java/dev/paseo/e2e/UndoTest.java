package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What goes wrong on hosts, and the way back. */
class UndoTest {

    private static JsonNode newest(Harbour harbour, String environment) {
        return harbour.as("developer").get("/api/v1/history/tide-api/" + environment).body().path(0);
    }

    @Test
    void aVersionThatDoesNotAnswerIsTakenBackOnEveryHostItTouched() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            repository.push("developer", "main", Map.copyOf(withHealth("broken")));
            Await.until("the first one is removed again", () -> newest(harbour, "test").path("status").asString("").equals("undone"));
            assertEquals("", harbour.installed("test-1"));
            repository.push("developer", "main", Map.of("health", "ok"));
            harbour.liveIn("staging", "1.4.2");
            repository.push("developer", "main", Map.of("health", "half"));
            Await.until("1.4.3 is undone in test", () -> newest(harbour, "test").path("status").asString("").equals("undone")
                    && newest(harbour, "test").path("version").asString("").equals("1.4.3"));
            assertTrue(newest(harbour, "test").path("reason").asString().contains("does not contain \"version 1.4.3 ok\""));
            assertEquals("version 1.4.2 ok", harbour.installed("test-1"));
            assertEquals(Optional.of("1.4.2"), harbour.live("test"));
            assertEquals("1.4.2", harbour.database.as("select v.number from live_interval i join version v on v.id = i.version_id "
                    + "join host h on h.id = i.host_id where h.name = 'test-1' and i.to_at is null").strip(), "the host's interval says so");
        }
    }

    private static Map<String, String> withHealth(String health) {
        Map<String, String> files = Scenario.files();
        files.put("health", health);
        return files;
    }

    @Test
    void aHostWhoseAgentIsAwayIsToldAndNothingIsChanged() throws Exception {
        try (Harbour harbour = new Harbour()) {
            harbour.startService("--paseo.take-within=2s");
            harbour.accounts();
            harbour.startAgent("builder");
            harbour.component().push("developer", "main", Scenario.files());
            Await.until("the deployment fails", () -> newest(harbour, "test").path("status").asString("").equals("failed"));
            assertTrue(newest(harbour, "test").path("reason").asString().contains("its agent did not take the work within 2 s"));
            assertEquals("", harbour.installed("test-1"));
        }
    }

    @Test
    void aFlippedBitInAStoredArtifactIsFoundBeforeTheRecipeRuns() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            repository.push("developer", "main", Scenario.files());
            harbour.liveIn("staging", "1.4.1");
            harbour.damage("1.4.1");
            long id = harbour.promote("1.4.1", "production");
            harbour.rule("approver-1", id, true, "Looks good.").good();
            harbour.deploymentIs(id, "failed");
            assertEquals("", harbour.installed("lighthouse"));
        }
    }

    @Test
    void aCancelWhileItIsDeployedUndoesIt() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            repository.push("developer", "main", Scenario.files());
            harbour.liveIn("staging", "1.4.1");
            repository.push("developer", "main", Map.of("deploy/install.sh", "#!/bin/sh\necho begun > \"$PASEO_HOST_FOLDER/version\"\nexec sleep 600\n"));
            Await.until("it is being deployed", () -> newest(harbour, "test").path("status").asString("").equals("deploying")
                    && !newest(harbour, "test").path("version").asString("").equals("1.4.1"));
            long id = newest(harbour, "test").path("id").asLong();
            Await.until("the recipe has begun", () -> {
                try {
                    return harbour.installed("test-1").equals("begun");
                } catch (java.io.IOException unreadable) {
                    return false;
                }
            });
            assertEquals("undoing", harbour.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).good().path("status").asString());
            assertEquals(409, harbour.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).status());
            harbour.deploymentIs(id, "undone");
            assertEquals("version 1.4.1 ok", harbour.installed("test-1"));
        }
    }

    @Test
    void aRunCancelledInTheMiddleEndsItsStepsAndSealsNothing() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = harbour.component();
            Map<String, String> files = Scenario.files();
            files.put("build.sh", "#!/bin/sh\necho building\nsleep 600\n");
            repository.push("developer", "main", files);
            Await.until("the step has begun", () -> harbour.run(1).path("stages").path(0).path("steps").size() == 1);
            assertEquals("cancelling", harbour.as("developer").post("/api/v1/runs/tide-api/1/cancellation", Map.of()).good().path("status").asString());
            JsonNode run = harbour.runEnds(1);
            assertEquals("cancelled", run.path("run").path("status").asString());
            assertEquals(404, harbour.as("developer").get("/api/v1/versions/tide-api/1.4.1").status());
            assertEquals(409, harbour.as("developer").post("/api/v1/runs/tide-api/1/cancellation", Map.of()).status());
        }
    }
}
