package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Environments that come with a branch and go with it. */
class PreviewsTest {

    static Map<String, String> files() {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE
                .replace("  - push: [main, \"feature/*\"]",
                        "  - push: [main, \"feature/*\"]\n  - preview: [\"feature/*\"]")
                .replace("{http: \"{host.url}/version\", contains: \"version {version} ok\", within: 2s}",
                        "{command: 'grep \"$PASEO_VERSION\" "
                                + "\"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"', within: 5s}"));
        files.put("deploy/install.sh",
                "#!/bin/sh\nset -e\ncp \"$PASEO_ARTIFACTS/app/app.txt\" "
                        + "\"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"\n"
                        + "echo \"$PASEO_URL key $DATA_KEY\" "
                        + ">\"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}address\"\n");
        files.put("deploy/remove.sh",
                "#!/bin/sh\nset -e\ntest ! -e \"$PASEO_HOST_FOLDER/stuck\"\nrm -f "
                        + "\"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"\n");
        return files;
    }

    static Repository component(Park park) throws Exception {
        Repository repository = park.component();
        String text = Scenario.environments(park::hostAddress) + """
                previews:
                  trial:
                    component: daylight-api
                    host: valley-house
                    url: http://127.0.0.1:{port}
                    ports: 7700-7701
                    most: 2
                    promotion: production
                    variables: {PREVIEW: "yes"}
                    secrets: [DATA_KEY]
                """;
        park.as("admin").put("/api/v1/environments", Map.of("text", text, "loosen", true)).good();
        park.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "a-preview-key", "component",
                "daylight-api", "environment", "trial")).good();
        return repository;
    }

    private static JsonNode previews(Park park) {
        return park.as("developer").get("/api/v1/previews").body();
    }

    @Test
    void aBranchGetsOneThatFollowsItsPushesAndGoesWithIt() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park);
            repository.push("developer", "main", files());
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "feature/night", Map.of("health", "dark"));
            Await.until("it is live", () -> previews(park).path(0).path("status").asString("").equals("live"));
            JsonNode preview = previews(park).path(0);
            String name = preview.path("environment").asString();
            Path shown = park.hostFolder("valley-house").resolve(name + "-version");
            assertEquals("http://127.0.0.1:7700", preview.path("url").asString());
            assertEquals("developer@park.example", preview.path("owner").asString());
            assertTrue(Files.readString(shown).contains("dark"));
            assertTrue(Files.readString(park.hostFolder("valley-house").resolve(name + "-address"))
                    .contains("http://127.0.0.1:7700 key a-preview-key"));
            repository.push("developer", "feature/night", Map.of("health", "darker"));
            Await.until("it follows the push", () -> Files.exists(shown) && read(shown).contains("darker"));
            repository.push("developer", "feature/fog", Map.of("health", "grey"));
            Await.until("another beside it", () -> previews(park).size() == 2
                    && previews(park).path(0).path("status").asString("").equals("live"));
            repository.push("developer", "feature/rain", Map.of("health", "wet"));
            Await.until("a third is too many, and told",
                    () -> park.as("auditor").get("/api/v1/audit").body().toString().contains("which is the most"));
            Await.until("so is whoever pushed it", () -> told(park).contains("There is no preview of feature/rain"));
            Files.writeString(park.hostFolder("valley-house").resolve("stuck"), "");
            repository.git("push", "-q", "origin", ":feature/night");
            Await.until("its removal is tried", () -> previews(park).valueStream()
                    .anyMatch(each -> each.path("removing").asString("").contains("feature/night is gone")));
            Await.until("and fails", () -> previews(park).valueStream()
                    .anyMatch(each -> each.path("status").asString("").equals("stopped")));
            Files.delete(park.hostFolder("valley-house").resolve("stuck"));
            Await.until("it is tried again until done", () -> previews(park).size() == 1);
            Await.until("its end is told, as no failure",
                    () -> told(park).contains("The preview of feature/night was removed"));
            assertTrue(
                    told(park).contains(
                            "Your preview of feature/night is ready: http://127.0.0.1:7700 shows daylight-api"),
                    told(park));
            assertEquals("removed", park.as("developer").get("/api/v1/history/daylight-api/" + name).good().path(0)
                    .path("status").asString());
            assertTrue(Files.notExists(shown));
            assertEquals(403, park.as("approver-1")
                    .delete("/api/v1/previews/" + previews(park).path(0).path("environment").asString()).status());
            park.as("developer").delete("/api/v1/previews/" + previews(park).path(0).path("environment").asString());
            Await.until("a person may too", () -> previews(park).isEmpty());
        }
    }

    private static String told(Park park) {
        return park.as("developer").get("/api/v1/notices").good().path("notices").valueStream()
                .map(each -> each.path("title").asString() + ": " + each.path("body").asString())
                .collect(java.util.stream.Collectors.joining("\n"));
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (java.io.IOException gone) {
            return "";
        }
    }

    @Test
    void itGoesWithTheProductionOfItsWork() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = component(park);
            repository.push("developer", "main", files());
            park.liveIn("staging", "1.4.1");
            repository.push("developer", "feature/night", Map.of("health", "dark"));
            Await.until("it is live", () -> previews(park).path(0).path("status").asString("").equals("live"));
            repository.git("checkout", "-q", "main");
            repository.git("merge", "-q", "--no-edit", "feature/night");
            repository.git("push", "-q", "origin", "main");
            park.liveIn("staging", "1.4.2");
            assertEquals(1, previews(park).size());
            long id = park.promote("1.4.2", "production");
            park.rule("approver-1", id, true, "Good at night.").good();
            park.deploymentIs(id, "live");
            Await.until("the preview goes", () -> previews(park).isEmpty());
        }
    }
}
