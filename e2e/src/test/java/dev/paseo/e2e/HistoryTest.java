package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What Paseo says that hosts had agrees with what the hosts themselves wrote down, whatever was done to them. */
class HistoryTest {

    private static final int OPERATIONS = 200;
    private static final List<String> HOSTS = List.of("staging-1", "staging-2");

    private static Map<String, String> files() {
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE
                .replace("  on-each-host:", "  strategy: {rolling: {batch: 1}}\n  on-each-host:")
                .replace("      - {http: \"{host.url}/version\", contains: \"version {version} ok\", within: 2s}",
                        "      - {http: \"{host.url}/version\", contains: \"version {version}\", within: 1s}"));
        files.put("deploy/install.sh",
                "#!/bin/sh\nset -e\ncp \"$PASEO_ARTIFACTS/app/app.txt\" \"$PASEO_HOST_FOLDER/version\"\n"
                        + "if [ -e \"$PASEO_HOST_FOLDER/broken\" ]; then echo worn >\"$PASEO_HOST_FOLDER/version\"; "
                        + "exit 1; fi\n"
                        + "echo \"$PASEO_VERSION\" >>\"$PASEO_HOST_FOLDER/journal\"\n");
        return files;
    }

    @Test
    void intervalsAgreeWithTheHostsOwnJournalsAfterRandomOperationsWithFaults() throws Exception {
        long seed = new Random().nextLong();
        Random random = new Random(seed);
        try (Park park = Park.open()) {
            Repository repository = park.component();
            repository.push("developer", "main", files());
            park.liveIn("staging", "1.4.1");
            for (int next = 2; next <= 4; next++) {
                repository.push("developer", "main", Map.of("health", "of " + next));
                park.liveIn("staging", "1.4." + next);
            }
            int[] done = new int[7];
            for (int at = 0; at < OPERATIONS; at++) {
                int operation = random.nextInt(done.length);
                done[operation] += operate(park, operation, random) ? 1 : 0;
            }
            for (String host : HOSTS) {
                Files.deleteIfExists(park.hostFolder(host).resolve("broken"));
                park.as("admin").delete("/api/v1/hosts/" + host + "/maintenance");
            }
            Await.until("everything has ended", () -> open(park) == 0);
            park.as("admin").delete("/api/v1/places/daylight-api/staging/hold");
            for (String host : HOSTS) {
                assertEquals(journal(park, host), intervals(park, host), () -> host + " with seed " + seed);
            }
            assertTrue(done[0] > 5 && done[1] > 1 && done[2] > 3,
                    () -> "too little was done, with seed " + seed + ": " + java.util.Arrays.toString(done));
        }
    }

    private static boolean operate(Park park, int operation, Random random) throws IOException {
        Client engineer = park.as("release-engineer");
        String host = HOSTS.get(random.nextInt(HOSTS.size()));
        Path broken = park.hostFolder(host).resolve("broken");
        return switch (operation) {
            case 0 -> good(engineer.post("/api/v1/deployments", Map.of("component", "daylight-api", "version",
                    "1.4." + (1 + random.nextInt(4)), "environment", "staging")));
            case 1 -> good(
                    engineer.post("/api/v1/places/daylight-api/staging/rollback", Map.of("reason", "by chance")));
            case 2 -> good(engineer.post("/api/v1/places/daylight-api/staging/redeployment", Map.of()));
            case 3 -> good(engineer.post("/api/v1/places/daylight-api/staging/repair", Map.of("hosts", List.of(host))));
            case 4 -> good(engineer.post("/api/v1/deployments/" + newest(park) + "/cancellation", Map.of()));
            case 5 -> Files.exists(broken) ? Files.deleteIfExists(broken)
                    : random.nextInt(3) == 0 && Files.exists(Files.writeString(broken, ""));
            default -> {
                // Half of the time it is waited for, so that something also goes well.
                if (random.nextBoolean()) {
                    Files.deleteIfExists(broken);
                    Await.until("the place is quiet", () -> open(park) == 0);
                }
                yield random.nextBoolean()
                        ? good(park.as("admin").put("/api/v1/hosts/" + host + "/maintenance",
                                Map.of("reason", "by chance")))
                        : good(park.as("admin").delete("/api/v1/hosts/" + host + "/maintenance"));
            }
        };
    }

    private static boolean good(Client.Answer answer) {
        assertTrue(answer.status() < 500, () -> answer.body().toString());
        return answer.status() < 300;
    }

    private static long newest(Park park) {
        return park.as("developer").get("/api/v1/history/daylight-api/staging").body().path(0).path("id").asLong();
    }

    private static long open(Park park) {
        long under = park.as("developer").get("/api/v1/history/daylight-api/staging").body().valueStream()
                .map(each -> each.path("status").asString())
                .filter(status -> List.of("waiting", "queued", "deploying", "checking", "undoing").contains(status))
                .count();
        JsonNode live = park.deployment(
                park.as("developer").get("/api/v1/places/daylight-api/staging").body().path("deployment").asLong());
        return under + live.path("hosts").valueStream().map(each -> each.path("phase").asString())
                .filter(List.of("installing", "checking")::contains).count();
    }

    private static List<String> journal(Park park, String host) {
        try {
            return Files.readAllLines(park.hostFolder(host).resolve("journal"));
        } catch (IOException none) {
            return List.of();
        }
    }

    private static List<String> intervals(Park park, String host) throws IOException, InterruptedException {
        return park.database.as(
                "select v.number from live_interval i join version v on v.id = i.version_id join host h on h.id = "
                        + "i.host_id where h.name = '"
                        + host + "' order by i.id")
                .lines().map(String::strip).filter(line -> !line.isEmpty()).toList();
    }
}
