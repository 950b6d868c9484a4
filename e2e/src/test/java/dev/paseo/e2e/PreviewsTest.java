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

    private static Map<String, String> files() {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE.replace("  - push: [main, \"feature/*\"]", "  - push: [main, \"feature/*\"]\n  - preview: [\"feature/*\"]")
                .replace("{http: \"{host.url}/version\", contains: \"version {version} ok\", within: 2s}", "{command: 'grep \"$PASEO_VERSION\" \"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"', within: 5s}"));
        files.put("deploy/install.sh", "#!/bin/sh\nset -e\ncp \"$PASEO_ARTIFACTS/app/app.txt\" \"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"\n"
                + "echo \"$PASEO_URL key $DATA_KEY\" >\"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}address\"\n");
        files.put("deploy/remove.sh", "#!/bin/sh\nset -e\ntest ! -e \"$PASEO_HOST_FOLDER/stuck\"\nrm -f \"$PASEO_HOST_FOLDER/${PREVIEW:+$PASEO_ENVIRONMENT-}version\"\n");
        return files;
    }

    private static Repository component(Harbour harbour) throws Exception {
        Repository repository = harbour.component();
        String text = Scenario.environments(harbour::hostAddress) + """
                previews:
                  trial:
                    component: tide-api
                    host: lighthouse
                    url: http://127.0.0.1:{port}
                    ports: 7700-7701
                    most: 2
                    promotion: production
                    variables: {PREVIEW: "yes"}
                    secrets: [DATA_KEY]
                """;
        harbour.as("admin").put("/api/v1/environments", Map.of("text", text)).good();
        harbour.as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", "a-preview-key", "component", "tide-api", "environment", "trial")).good();
        return repository;
    }

    private static JsonNode previews(Harbour harbour) {
        return harbour.as("developer").get("/api/v1/previews").body();
    }

    @Test
    void aBranchGetsOneThatFollowsItsPushesAndGoesWithIt() throws Exception {
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour);
            repository.push("developer", "main", files());
            harbour.liveIn("staging", "1.4.1");
            repository.push("developer", "feature/night", Map.of("health", "dark"));
            Await.until("it is live", () -> previews(harbour).path(0).path("status").asString("").equals("live"));
            JsonNode preview = previews(harbour).path(0);
            String name = preview.path("environment").asString();
            Path shown = harbour.hostFolder("lighthouse").resolve(name + "-version");
            assertEquals("http://127.0.0.1:7700", preview.path("url").asString());
            assertEquals("developer@harbour.example", preview.path("owner").asString());
            assertTrue(Files.readString(shown).contains("dark"));
            assertTrue(Files.readString(harbour.hostFolder("lighthouse").resolve(name + "-address")).contains("http://127.0.0.1:7700 key a-preview-key"));
            repository.push("developer", "feature/night", Map.of("health", "darker"));
            Await.until("it follows the push", () -> Files.exists(shown) && read(shown).contains("darker"));
            repository.push("developer", "feature/fog", Map.of("health", "grey"));
            Await.until("another beside it", () -> previews(harbour).size() == 2 && previews(harbour).path(0).path("status").asString("").equals("live"));
            repository.push("developer", "feature/rain", Map.of("health", "wet"));
            Await.until("a third is too many, and told", () -> harbour.as("auditor").get("/api/v1/audit").body().toString().contains("which is the most"));
            Files.writeString(harbour.hostFolder("lighthouse").resolve("stuck"), "");
            repository.git("push", "-q", "origin", ":feature/night");
            Await.until("its removal is tried", () -> previews(harbour).valueStream().anyMatch(each -> each.path("removing").asString("").contains("feature/night is gone")));
            Await.until("and fails", () -> previews(harbour).valueStream().anyMatch(each -> each.path("status").asString("").equals("stopped")));
            Files.delete(harbour.hostFolder("lighthouse").resolve("stuck"));
            Await.until("it is tried again until done", () -> previews(harbour).size() == 1);
            assertTrue(Files.notExists(shown));
            assertEquals(403, harbour.as("approver-1").delete("/api/v1/previews/" + previews(harbour).path(0).path("environment").asString()).status());
            harbour.as("developer").delete("/api/v1/previews/" + previews(harbour).path(0).path("environment").asString());
            Await.until("a person may too", () -> previews(harbour).isEmpty());
        }
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
        try (Harbour harbour = Harbour.open()) {
            Repository repository = component(harbour);
            repository.push("developer", "main", files());
            harbour.liveIn("staging", "1.4.1");
            repository.push("developer", "feature/night", Map.of("health", "dark"));
            Await.until("it is live", () -> previews(harbour).path(0).path("status").asString("").equals("live"));
            repository.git("checkout", "-q", "main");
            repository.git("merge", "-q", "--no-edit", "feature/night");
            repository.git("push", "-q", "origin", "main");
            harbour.liveIn("staging", "1.4.2");
            assertEquals(1, previews(harbour).size());
            long id = harbour.promote("1.4.2", "production");
            harbour.rule("approver-1", id, true, "Good at night.").good();
            harbour.deploymentIs(id, "live");
            Await.until("the preview goes", () -> previews(harbour).isEmpty());
        }
    }
}
