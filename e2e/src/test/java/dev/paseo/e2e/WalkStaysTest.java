package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** A walk that stays says where, and why, to whoever can mend it, and goes on by itself when that is mended. */
class WalkStaysTest {

    private static String told(Park park, String name) {
        return park.as(name).get("/api/v1/notices").good().path("notices").valueStream()
                .map(each -> each.path("title").asString() + ": " + each.path("body").asString())
                .collect(Collectors.joining("\n"));
    }

    private static String where(Park park) {
        return park.paseo("developer", "where", "daylight-api").out();
    }

    @Test
    void aMissingSecretAndAMissingPlaceAreToldEverywhereAndMendedByThemselves() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml", Scenario.PIPELINE.replace("secrets: [DATA_KEY]", "secrets: [DATA_KEY, ROPE_KEY]"));
            repository.push("developer", "main", files);
            Await.until("it stays before test", () -> where(park).contains("1.4.1 stays"));
            assertTrue(where(park).contains("ROPE_KEY"), where(park));
            String shown = park.paseo("developer", "show", "daylight-api", "1.4.1").out();
            assertTrue(shown.contains(
                    "It stays before test: The recipe of daylight-api 1.4.1 uses what it may not have: ROPE_KEY was "
                            + "not given to daylight-api: paseo secret grant daylight-api ROPE_KEY"),
                    shown);
            assertTrue(told(park, "admin").contains("daylight-api 1.4.1 does not go on to test: "),
                    told(park, "admin"));
            assertTrue(told(park, "developer").contains("When that is mended, it goes on by itself."),
                    told(park, "developer"));
            assertTrue(park.paseo("admin", "waiting").out().contains("walk stays"),
                    () -> park.paseo("admin", "waiting").out());
            park.as("admin").put("/api/v1/components/daylight-api/grants/ROPE_KEY", Map.of()).good();
            Await.until("given, it is told that it has no value", () -> where(park).contains(
                    "ROPE_KEY has no value in test: paseo secret set ROPE_KEY --component daylight-api "
                            + "--environment test"));
            for (String environment : new String[]{"test", "staging"}) {
                park.as("admin").put("/api/v1/secrets", Map.of("name", "ROPE_KEY", "value", "a-key-of-the-rope",
                        "component", "daylight-api", "environment", environment)).good();
            }
            park.liveIn("staging", "1.4.1");
            Await.until("nothing stays any more", () -> !where(park).contains("stays"));
            repository.push("developer", "main", Map.of("README", "newer", "paseo.yaml",
                    files.get("paseo.yaml").replace("  - staging: automatic", "  - stagign: automatic")));
            Await.until("a misspelt environment is told",
                    () -> where(park).contains("there is no environment stagign; did you mean staging?"));
            assertEquals(Optional.of("1.4.2"), park.live("test"));
        }
    }

    @Test
    void aFailedTestOfWhatIsLiveIsToldAndPassedByDeployingAgain() throws Exception {
        try (Park park = Park.open()) {
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            files.put("paseo.yaml", Scenario.PIPELINE.replace("  removal:",
                    "  tests:\n    acceptance: {steps: ['test ! -e \"$PASEO_HOST_FOLDER/fog\"']}\n  removal:"));
            Path fog = Files.writeString(park.hostFolder("test-1").resolve("fog"), "");
            repository.push("developer", "main", files);
            Await.until("the map tells it", () -> where(park).contains("A test of what is live failed: "));
            String shown = park.paseo("developer", "show", "daylight-api", "1.4.1").out();
            assertTrue(shown.contains("It does not go on from test yet: A test of what is live failed: "), shown);
            assertTrue(
                    told(park, "developer")
                            .contains("daylight-api 1.4.1 does not go on from test: A test of what is live failed: "),
                    told(park, "developer"));
            assertTrue(told(park, "release-engineer").contains("daylight-api 1.4.1 does not go on from test"),
                    told(park, "release-engineer"));
            long first = park.as("developer").get("/api/v1/history/daylight-api/test").good().path(0).path("id")
                    .asLong();
            String plan = park.paseo("developer", "show", "deployment", Long.toString(first)).out();
            assertTrue(plan.contains("failed   3. test: acceptance") && plan.contains("not done 4. the walk goes on"),
                    plan);
            assertEquals(Optional.empty(), park.live("staging"));
            Files.delete(fog);
            assertEquals(0, park.paseo("release-engineer", "redeploy", "daylight-api", "--in", "test").code());
            park.liveIn("staging", "1.4.1");
            Await.until("nothing keeps it any more", () -> !where(park).contains("A test of what is live failed"));
        }
    }
}
