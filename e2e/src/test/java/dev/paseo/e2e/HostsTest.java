package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What hosts really have: drift, health, maintenance, late and new ones, and those without an agent. */
class HostsTest {

    private static Map<String, String> files() {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE.replace("  on-each-host:",
                "  installed: {app: \"{host.folder}/version\"}\n  on-each-host:"));
        return files;
    }

    private static JsonNode place(Park park, String environment) {
        return park.as("developer").get("/api/v1/places/daylight-api/" + environment).body();
    }

    private static JsonNode host(Park park, String environment, String name) {
        return place(park, environment).path("hosts").valueStream()
                .filter(host -> host.path("host").asString().equals(name)).findFirst().orElseThrow();
    }

    @Test
    void aFileChangedByHandIsToldAndPutRightByOneCommand() throws Exception {
        try (Park park = Park.open("--paseo.watch-every=1s")) {
            park.component().push("developer", "main", files());
            park.liveIn("staging", "1.4.1");
            Files.writeString(park.hostFolder("staging-2").resolve("version"), "changed by hand");
            Await.until("drift is told", () -> host(park, "staging", "staging-2").has("drift"));
            assertTrue(host(park, "staging", "staging-2").path("drift").asString().contains("has other bytes"));
            assertEquals("staging-2", place(park, "staging").path("differing").get(0).asString());
            Await.until("and so is that it does not answer well",
                    () -> host(park, "staging", "staging-2").has("unhealthySince"));
            assertTrue(park.as("auditor").get("/api/v1/audit").body().toString().contains("drift"));
            assertEquals(404, park.as("release-engineer")
                    .post("/api/v1/places/daylight-api/staging/repair", Map.of("hosts", List.of("valley-house")))
                    .status());
            park.as("release-engineer").post("/api/v1/places/daylight-api/staging/repair", Map.of()).good();
            Await.until("the drift is gone", () -> !host(park, "staging", "staging-2").has("drift")
                    && place(park, "staging").path("differing").isEmpty());
            assertEquals("version 1.4.1 ok", park.installed("staging-2"));
            Await.until("and it is healthy again", () -> !host(park, "staging", "staging-2").has("unhealthySince"));
            assertEquals(409,
                    park.as("release-engineer").post("/api/v1/places/daylight-api/staging/repair", Map.of()).status(),
                    "nothing to repair");
        }
    }

    @Test
    void aHostInMaintenanceIsLeftOutAndCatchesUpAndANewOneIsBrought() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", files());
            park.liveIn("staging", "1.4.1");
            assertEquals(403, park.as("release-engineer")
                    .put("/api/v1/hosts/staging-2/maintenance", Map.of("reason", "new disk")).status());
            park.as("admin").put("/api/v1/hosts/staging-2/maintenance", Map.of("reason", "new disk")).good();
            repository.push("developer", "main", Map.of("health", "second", "paseo.yaml",
                    files().get("paseo.yaml").replace("version {version} ok", "version {version}")));
            park.liveIn("staging", "1.4.2");
            assertEquals("version 1.4.1 ok", park.installed("staging-2"), "it was left alone");
            park.as("admin").delete("/api/v1/hosts/staging-2/maintenance").good();
            Await.until("it catches up",
                    () -> host(park, "staging", "staging-2").path("version").asString("").equals("1.4.2"));
            assertEquals("version 1.4.2 second", park.installed("staging-2"));
            String more = Scenario.environments(park::hostAddress).replace("staging-2: {url",
                    "valley-house: {url: \"" + park.hostAddress("valley-house") + "\"}, staging-2: {url");
            park.as("admin").put("/api/v1/environments", Map.of("text", more, "loosen", true)).good();
            Await.until("the new host is brought to it",
                    () -> host(park, "staging", "valley-house").path("version").asString("").equals("1.4.2"));
            assertEquals("version 1.4.2 second", park.installed("valley-house"));
            // The host that acts for the place takes nothing, and goes into maintenance while a deployment waits for
            // it.
            park.as("admin").put("/api/v1/agents/staging-1/drain", Map.of()).good();
            repository.push("developer", "main",
                    Map.of("health", "third", "paseo.yaml",
                            files().get("paseo.yaml").replace("version {version} ok", "version {version}")
                                    .replace("  on-each-host:",
                                            "  once-before: ['touch \"$PASEO_HOST_FOLDER/once\"']\n  on-each-host:")));
            Await.until("staging waits for staging-1",
                    () -> park.as("developer").get("/api/v1/history/daylight-api/staging").body().path(0).path("status")
                            .asString("").equals("deploying"));
            park.as("admin").put("/api/v1/hosts/staging-1/maintenance", Map.of("reason", "new fan")).good();
            park.liveIn("staging", "1.4.3");
            assertTrue(Files.exists(park.hostFolder("valley-house").resolve("once")), "another acts in its place");
            assertEquals("version 1.4.2 second", park.installed("staging-1"), "its turn had not come: it is left out");
            park.as("admin").delete("/api/v1/hosts/staging-1/maintenance").good();
            park.as("admin").delete("/api/v1/agents/staging-1/drain").good();
            Await.until("it catches up",
                    () -> host(park, "staging", "staging-1").path("version").asString("").equals("1.4.3"));
            // A host was offered it, but its agent takes nothing: it is left out although its turn had come.
            park.as("admin").put("/api/v1/agents/staging-2/drain", Map.of()).good();
            repository.push("developer", "main", Map.of("health", "fourth"));
            Await.until("the others have it", () -> List.of("staging-1", "valley-house").stream()
                    .allMatch(each -> host(park, "staging", each).path("version").asString("").equals("1.4.4")));
            assertEquals(Optional.of("1.4.3"), park.live("staging"));
            park.as("admin").put("/api/v1/hosts/staging-2/maintenance", Map.of("reason", "new disk again")).good();
            park.liveIn("staging", "1.4.4");
            assertEquals("version 1.4.3 third", park.installed("staging-2"));
        }
    }

    @Test
    void aHostWithoutAnAgentIsDeployedToOverSshWithItsKeyPinned() throws Exception {
        try (Park park = Park.open("--paseo.watch-every=1s");
                GitServers servers = new GitServers(park.folder.resolve("ssh-server"))) {
            GitServers.Ssh ssh = servers.ssh();
            Path folder = Files.createDirectories(park.folder.resolve("slip"));
            String environments = Scenario.environments(park::hostAddress).replaceFirst(
                    "hosts: \\{test-1: \\{url: \"[^\"]*\"}}",
                    "hosts: {shed-1: {ssh: {agent: test-1, address: 127.0.0.1, "
                            + "port: " + ssh.address().replaceAll(".*:", "") + ", user: "
                            + System.getProperty("user.name") + ", key: SHED_KEY, host-key: \"HOSTKEY\", folder: "
                            + folder + "}}}");
            Map<String, String> files = files();
            files.put("deploy/install.sh", files.get("deploy/install.sh") + "setsid sleep 4711 &\n");
            files.put("paseo.yaml",
                    files.get("paseo.yaml").replace(
                            "{http: \"{host.url}/version\", contains: \"version {version} ok\", within: 2s}",
                            "{command: 'grep \"$PASEO_VERSION ok\" \"$PASEO_HOST_FOLDER/version\"', within: 5s}"));
            Repository repository = park.component();
            String pinned = ssh.hostKeys().replaceFirst("^\\S+ ", "").strip();
            park.as("admin")
                    .put("/api/v1/environments",
                            Map.of("text",
                                    environments.replace("HOSTKEY",
                                            pinned.substring(0, pinned.length() - 6) + "AAAAAA"),
                                    "loosen", true))
                    .good();
            park.as("admin")
                    .put("/api/v1/secrets", Map.of("name", "SHED_KEY", "value", ssh.key(), "component", "daylight-api"))
                    .good();
            repository.push("developer", "main", files);
            Await.until("another key than the pinned one is refused",
                    () -> park.as("developer").get("/api/v1/history/daylight-api/test").body().path(0)
                            .path("status").asString("").equals("failed"));
            String reason = park.as("developer").get("/api/v1/history/daylight-api/test").body().path(0).path("reason")
                    .asString();
            assertTrue(reason.contains("host key"), reason);
            park.as("admin").put("/api/v1/environments",
                    Map.of("text", environments.replace("HOSTKEY", pinned), "loosen", true)).good();
            park.promote("1.4.1", "test");
            park.liveIn("test", "1.4.1");
            assertEquals("version 1.4.1 ok", Files.readString(folder.resolve("version")).strip());
            Await.until("what a step left behind is ended, also in a session of its own",
                    () -> ProcessHandle.allProcesses()
                            .noneMatch(each -> each.info().commandLine().orElse("").endsWith("sleep 4711")));
            String log = park.as("developer").get("/api/v1/deployments/2").body().path("tasks").toString();
            assertTrue(log.contains("deploy/install.sh"), log);
            assertTrue(park.as("developer")
                    .get("/api/v1/deployments/2/tasks/" + park.deployment(2).path("tasks").get(0).path("work").asLong()
                            + "/log")
                    .body()
                    .toString().contains("key ••••••"), "its output is shipped, and its secrets are masked");
            Files.writeString(folder.resolve("version"), "changed by hand");
            Await.until("drift is told there too", () -> host(park, "test", "shed-1").has("drift"));
            park.as("release-engineer").post("/api/v1/places/daylight-api/test/repair", Map.of()).good();
            Await.until("and put right", () -> !host(park, "test", "shed-1").has("drift"));
            assertEquals("version 1.4.1 ok", Files.readString(folder.resolve("version")).strip());
            assertTrue(Files.notExists(folder.resolve(".paseo/work-1")), "nothing is left of the work itself");
        }
    }

    @Test
    void whatIsLiveAlreadyIsRecordedOnTheFirstDay() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = files();
            files.put("paseo.yaml", files.get("paseo.yaml").replace("  - test: automatic\n  - staging: automatic\n",
                    "  - test: automatic\n  - staging: on-request\n"));
            repository.push("developer", "main", files);
            park.liveIn("test", "1.4.1");
            assertEquals(403, park.as("release-engineer").post("/api/v1/places/daylight-api/production/record",
                    Map.of("version", "1.4.1", "reason", "was there")).status());
            long id = park.as("admin").post("/api/v1/places/daylight-api/production/record",
                    Map.of("version", "1.4.1", "reason", "was there")).good().path("id").asLong();
            assertEquals("live", park.status(id));
            assertEquals(Optional.of("1.4.1"), park.live("production"));
            assertEquals("", park.installed("valley-house"), "nothing was done");
            assertEquals(409, park.as("admin").post("/api/v1/places/daylight-api/production/record",
                    Map.of("version", "1.4.1", "reason", "again")).status());
        }
    }
}
