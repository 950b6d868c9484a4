package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * A real build of several modules, with its dependencies from the registry: once from nothing, once with what the first
 * one kept.
 */
class MavenBuildTest {

    private static final Path PROJECT = TestDatabase.ROOT.resolve("demo/scenario/map-tiles");

    private static Map<String, String> files() throws IOException {
        Map<String, String> files = new LinkedHashMap<>();
        try (Stream<Path> all = Files.walk(PROJECT)) {
            for (Path file : all.filter(Files::isRegularFile).filter(path -> !path.toString().contains("/target/"))
                    .toList()) {
                files.put(PROJECT.relativize(file).toString(), Files.readString(file));
            }
        }
        return files;
    }

    private static double seconds(JsonNode run) {
        JsonNode stage = run.path("stages").path(0);
        return Duration.between(Instant.parse(stage.path("startedAt").asString()),
                Instant.parse(stage.path("endedAt").asString())).toMillis() / 1000.0;
    }

    @Test
    void theSecondBuildIsFasterByWhatTheFirstOneKept() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.bring("map-tiles", Map.of());
            repository.push("developer", "main", files());
            JsonNode first = ends(park, 1);
            repository.push("developer", "main", Map.of("README", "Sheets of the park's map.\n"));
            JsonNode second = ends(park, 2);
            System.out.printf("a build of 4 modules: %.1f s from nothing, %.1f s with what was kept%n", seconds(first),
                    seconds(second));
            assertTrue(second.path("stages").path(0).path("reused").asString().startsWith("as kept by map-tiles#1"),
                    second::toString);
            // Other tests build beside it: what one of three saves is not what its neighbours took.
            double later = seconds(second);
            for (int run = 3; later >= seconds(first) && run < 5; run++) {
                repository.push("developer", "main", Map.of("README", "Sheet " + run + "\n"));
                later = Math.min(later, seconds(ends(park, run)));
            }
            assertTrue(later < seconds(first), seconds(first) + " s, then " + later + " s at best");
            for (int run : List.of(1, 2)) {
                JsonNode tests = park.as("developer").get("/api/v1/runs/map-tiles/" + run + "/evidence").good()
                        .path("tests").path(0).path("tests");
                assertTrue(tests.path("total").asInt() >= 200, tests::toString);
                assertEquals(0, tests.path("failed").asInt());
            }
            assertEquals("sheet", second.path("outputs").path(0).path("name").asString());
        }
    }

    private static JsonNode ends(Park park, long number) throws IOException {
        Await.until(Duration.ofMinutes(8), () -> "map-tiles#" + number + " ends",
                () -> park.run("map-tiles", number).path("run").has("endedAt"));
        JsonNode run = park.run("map-tiles", number);
        String log = park.log("map-tiles", number, "build");
        assertEquals("passed", run.path("run").path("status").asString(),
                () -> log.substring(Math.max(0, log.length() - 3000)));
        return run;
    }
}
