package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/**
 * While the database is away, whoever asks hears so soon, in the form of all problems; once it is back, everything goes
 * on by itself.
 */
class DatabaseAwayTest {

    @Test
    void whoeverAsksHearsSoWithinTwoSecondsAndItGoesOnByItself() throws Exception {
        TestDatabase database = TestDatabase.ofItsOwn();
        try (Park park = new Park(database)) {
            park.startService();
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.component();
            String token = park.as("developer").token();
            database.kill();
            for (String path : new String[]{"/api/v1/whereabouts", "/api/v1/components", "/api/v1/session"}) {
                Duration took = Duration.ofDays(1);
                HttpResponse<String> answer = null;
                // The quickest of three: what the machine does beside it is none of the service's promise.
                for (int once = 0; once < 3; once++) {
                    long began = System.nanoTime();
                    answer = park.as("developer")
                            .raw(HttpRequest.newBuilder().GET().header("Authorization", "Bearer " + token), path);
                    Duration now = Duration.ofNanos(System.nanoTime() - began);
                    took = took.compareTo(now) < 0 ? took : now;
                }
                assertEquals(503, answer.statusCode(), path + ": " + answer.body());
                assertEquals(Optional.of("5"), answer.headers().firstValue("Retry-After"), path);
                assertEquals("The database does not answer. Nothing was half done: try again.",
                        Client.JSON.readTree(answer.body()).path("detail").asString(), path);
                assertTrue(took.toMillis() < 2000, path + " took " + took);
            }
            database.startAgain();
            Await.until("it answers again", () -> park.as("developer").get("/api/v1/components").status() == 200);
            repository.push("developer", "main", Scenario.files());
            assertEquals("passed", park.runEnds(1).path("run").path("status").asString());
        } finally {
            database.stop();
        }
    }

    /** The server's own page of errors is nobody's, and says nothing of what happened elsewhere. */
    @Test
    void theAddressOfErrorsIsNone() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            HttpResponse<String> answer = new Client(park.address(), "").raw(HttpRequest.newBuilder().GET(), "/error");
            assertEquals(404, answer.statusCode(), answer.body());
        }
    }
}
