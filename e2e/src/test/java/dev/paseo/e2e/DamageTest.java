package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A flipped bit in the byte store is found, wherever the bytes are read, and told once. */
class DamageTest {

    private static Path stored(Park park, String digest) {
        return park.folder.resolve("data/bytes").resolve(digest.substring(0, 2)).resolve(digest.substring(2));
    }

    private static String flipped(Path file) throws Exception {
        byte[] bytes = Files.readAllBytes(file);
        bytes[0] ^= 1;
        Files.write(file, bytes);
        return Registry.sha256(bytes).replace("sha256:", "");
    }

    private static String metrics(Park park) throws Exception {
        return park.as("admin").text("/actuator/prometheus");
    }

    private static boolean mended(Park park) {
        try {
            return metrics(park).contains("paseo_bytes_damaged 0.0");
        } catch (Exception failed) {
            throw new AssertionError(failed);
        }
    }

    private static Stream<JsonNode> told(Park park) {
        return park.as("admin").get("/api/v1/notices").good().path("notices").valueStream()
                .filter(notice -> notice.path("event").asString().equals("damaged"));
    }

    @Test
    void whatIsFetchedHasItsDigestOrIsRefusedWithBoth() throws Exception {
        try (Park park = Park.open()) {
            park.component().push("developer", "main", Scenario.files());
            park.liveIn("test", "1.4.1");
            String digest = park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").good().path("artifacts")
                    .path(0).path("digest").asString();
            Path file = park.folder.resolve("fetched");
            assertEquals(0,
                    park.paseo("developer", "fetch", "daylight-api", "1.4.1", "app", "--into", file.toString()).code());
            String found = flipped(stored(park, digest));
            Files.delete(file);
            Park.Said refused = park.paseo("developer", "fetch", "daylight-api", "1.4.1", "app", "--into",
                    file.toString());
            assertEquals(1, refused.code());
            assertTrue(refused.out().contains(digest) && refused.out().contains(found), refused.out());
            assertFalse(Files.exists(file) || Files.exists(file.resolveSibling("fetched.part")),
                    "nothing is left of it");
            park.paseo("developer", "fetch", "daylight-api", "1.4.1", "app", "--into", file.toString());
            assertEquals(List.of("Kept bytes are damaged: " + digest.substring(0, 12)),
                    told(park).map(notice -> notice.path("title").asString()).toList(), "told once");
            String trail = park.as("auditor").get("/api/v1/audit").good().toString();
            assertTrue(trail.contains("kept bytes are damaged") && trail.contains("daylight-api 1.4.1"), trail);
            assertTrue(metrics(park).contains("paseo_bytes_damaged 1.0"));
        }
    }

    @Test
    void aScrubFindsDamageThatNobodyAskedFor() throws Exception {
        try (Park park = Park.open("--paseo.scrub.every=1ms")) {
            park.component().push("developer", "main", Scenario.files());
            park.liveIn("test", "1.4.1");
            JsonNode version = park.as("developer").get("/api/v1/versions/daylight-api/1.4.1").good();
            String found = flipped(stored(park, version.path("artifacts").path(0).path("digest").asString()));
            Await.until("it is told",
                    () -> told(park).anyMatch(notice -> notice.path("body").asString().contains(found)));
            assertTrue(metrics(park).contains("paseo_bytes_damaged 1.0"));
            flipped(stored(park, version.path("artifacts").path(0).path("digest").asString()));
            Await.until("what was put back is found good", () -> mended(park));
            assertTrue(told(park)
                    .allMatch(notice -> notice.path("body").asString().contains("Needed by daylight-api 1.4.1.")));
        }
    }
}
