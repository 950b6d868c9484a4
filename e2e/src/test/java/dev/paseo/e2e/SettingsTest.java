package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What was approved reaches the hosts: variables and secrets too, where the bytes are there already. */
class SettingsTest {

    private static final String INSTALL = """
            #!/bin/sh
            set -eu
            cp "$PASEO_ARTIFACTS/app/app.txt" "$PASEO_HOST_FOLDER/version"
            echo "$LOG_LEVEL at $PASEO_HOST_URL" >>"$PASEO_HOST_FOLDER/given"
            """;

    private static Map<String, String> files(String strategy) {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE.replace("  on-each-host:",
                "  strategy: " + strategy + "\n  traffic: ['true']\n  on-each-host:"));
        files.put("deploy/install.sh", INSTALL);
        return files;
    }

    private static String environments(Park park, String level) {
        return """
                environments:
                  test:
                    components:
                      daylight-api:
                        hosts: {north-hut: {url: "%s", side: blue}, ridge-hut: {url: "%s", side: green}}
                        variables: {LOG_LEVEL: %s}
                """.formatted(park.hostAddress("north-hut"), park.hostAddress("ridge-hut"), level);
    }

    private static List<String> given(Park park, String host) throws IOException {
        return Files.readAllLines(park.hostFolder(host).resolve("given"));
    }

    private static JsonNode place(Park park) {
        return park.as("developer").get("/api/v1/places/daylight-api/test").good();
    }

    private static String plan(Park park) {
        return park.as("developer").get("/api/v1/places/daylight-api/test/plan?version=1.4.1").good().path("plan")
                .path(0).path("what").asString();
    }

    private static void redeployed(Park park) {
        park.deploymentIs(park.as("release-engineer").post("/api/v1/places/daylight-api/test/redeployment", Map.of())
                .good().path("id").asLong(), "live");
    }

    private static List<String> older(JsonNode place, String host) {
        return place.path("hosts").valueStream().filter(each -> each.path("host").asString().equals(host)).findFirst()
                .orElseThrow()
                .path("olderSettings").valueStream().map(JsonNode::asString).toList();
    }

    @Test
    void aRotatedSecretStandsInTheComparisonByItsNumberAndNeverByItsValue() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            park.liveIn("staging", "1.4.1");
            park.rule("approver-1", park.promote("1.4.1", "production"), true, "Times agree.").good();
            park.liveIn("production", "1.4.1");
            park.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "moss-and-fern-9912",
                    "component", "daylight-api", "environment", "production")).good();
            long id = park.as("release-engineer").post("/api/v1/places/daylight-api/production/redeployment", Map.of())
                    .good().path("id").asLong();
            JsonNode changed = park.deployment(id).path("comparison").path("secrets");
            assertEquals("DATA_KEY", changed.path(0).path("name").asString(), changed::toString);
            assertEquals(1, changed.path(0).path("live").path("number").asInt());
            assertEquals(2, changed.path(0).path("proposed").path("number").asInt());
            assertEquals("admin", changed.path(0).path("proposed").path("by").asString());
            String shown = park.paseo("approver-1", "show", "deployment", Long.toString(id)).out();
            assertTrue(shown.contains("secret DATA_KEY  value 1, set ") && shown.contains(" to value 2, set ")
                    && shown.contains(" by admin"), shown);
            assertFalse(shown.contains("moss-and-fern") || park.deployment(id).toString().contains("moss-and-fern"));
        }
    }

    @Test
    void aSideThatHasTheBytesIsGivenChangedVariablesAndSecretsAllTheSame() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            park.as("admin").put("/api/v1/environments", Map.of("text", environments(park, "info"), "loosen", true))
                    .good();
            repository.push("developer", "main", files("{blue-green: {old-side-stays: 1h}}"));
            park.liveIn("test", "1.4.1");
            redeployed(park);
            String north = "info at " + park.hostAddress("north-hut");
            assertEquals(List.of(north), given(park, "north-hut"));
            assertEquals("verify", plan(park), "north-hut has all of it");
            park.as("admin").put("/api/v1/environments", Map.of("text", environments(park, "debug"), "loosen", true))
                    .good();
            assertEquals(List.of("LOG_LEVEL"), older(place(park), "ridge-hut"),
                    "the place tells hosts whose settings are older than its own");
            assertEquals("install", plan(park), "what is shown is what will be done");
            redeployed(park);
            assertEquals(List.of(north, north.replace("info", "debug")), given(park, "north-hut"));
            assertEquals(List.of(), older(place(park), "north-hut"));
            park.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "another-key-of-the-park",
                    "component", "daylight-api", "environment", "test")).good();
            assertEquals(List.of("DATA_KEY"), older(place(park), "north-hut"));
            redeployed(park);
            assertEquals(2, given(park, "ridge-hut").size(), "the other side was given both");
        }
    }

    @Test
    void aHostAddedToALivePlaceGetsItsOwnAddressOrIsToldWhatIsMissing() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            String one = environments(park, "info").replaceFirst(", side: blue}, ridge-hut: \\{[^}]*}", "}");
            park.as("admin").put("/api/v1/environments", Map.of("text", one, "loosen", true)).good();
            repository.push("developer", "main", files("{rolling: {}}"));
            park.liveIn("test", "1.4.1");
            park.as("admin")
                    .put("/api/v1/environments", Map.of("text",
                            one.replace("hosts: {north-hut", "hosts: {ridge-hut: {}, north-hut"), "loosen", true))
                    .good();
            Client.Answer refused = park.as("release-engineer").post("/api/v1/places/daylight-api/test/repair",
                    Map.of());
            assertEquals(409, refused.status());
            assertTrue(refused.detail().contains("names {host.url}, but in test no address (url) is set for ridge-hut"),
                    refused.detail());
            park.as("admin").put("/api/v1/environments", Map.of("text", one.replace("hosts: {north-hut",
                    "hosts: {ridge-hut: {url: \"" + park.hostAddress("ridge-hut") + "\"}, north-hut"), "loosen", true))
                    .good();
            Client.Answer repaired = park.as("release-engineer").post("/api/v1/places/daylight-api/test/repair",
                    Map.of());
            assertTrue(
                    repaired.status() == 200 || repaired.detail().contains("ridge-hut is being looked after already"),
                    repaired::toString);
            Await.until("the new host has it", () -> place(park).path("differing").isEmpty());
            assertEquals(List.of("info at " + park.hostAddress("ridge-hut")), given(park, "ridge-hut"));
        }
    }
}
