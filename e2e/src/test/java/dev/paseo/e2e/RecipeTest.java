package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What a recipe's commands find, how long they may take, and what becomes of what they leave running. */
class RecipeTest {

    private static final String ASKING = Scenario.PIPELINE.replace("newer-start:",
            "asks:\n  loud: {question: Loud?, kind: flag, default: false}\nnewer-start:");

    @Test
    void commandsFindTheRunAndItsAnswersAndEndAtTheirTime() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml", ASKING);
            files.put("deploy/install.sh", files.get("deploy/install.sh")
                    + "echo \"$PASEO_RUN asked $PASEO_ASK_LOUD\" > \"$PASEO_HOST_FOLDER/told\"\nsleep 600 &\n");
            repository.push("developer", "main", files);
            park.liveIn("test", "1.4.1");
            assertEquals("daylight-api#1 asked false",
                    Files.readString(park.hostFolder("test-1").resolve("told")).strip());
            JsonNode first = park.as("developer").get("/api/v1/history/daylight-api/test").good().path(0);
            Await.until("what it left running is told", () -> park
                    .paseo("developer", "log", "deployment", first.path("id").asString(""), "test-1").out()
                    .contains(
                            "step 1 left running sleep, which ended with it; what is to go on running is started by "
                                    + "the host's own supervisor"));
            repository.push("developer", "main",
                    Map.of("paseo.yaml",
                            ASKING.replace("on-each-host: [deploy/install.sh]",
                                    "on-each-host: [{command: deploy/install.sh, timeout: 1s}]"),
                            "deploy/install.sh", "sleep 600\n"));
            Await.until("it is undone", () -> park.as("developer").get("/api/v1/history/daylight-api/test").body()
                    .path(0).path("status").asString().equals("undone"));
            JsonNode newest = park.as("developer").get("/api/v1/history/daylight-api/test").good().path(0);
            assertTrue(newest.path("reason").asString().endsWith("took longer than 1 s"), newest::toString);
            assertEquals(Optional.of("1.4.1"), park.live("test"));
        }
    }
}
