package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/** Two replicas on one database, hooks to both, one killed: nothing lost, nothing twice. */
class ReplicaTest {

    private static final int PUSHES = 8;

    @Test
    void oneGoesOnWhenTheOtherIsKilled() throws Exception {
        try (Park park = new Park(); Processes processes = new Processes(park)) {
            int first = Processes.freePort();
            int second = Processes.freePort();
            Process service = processes.service(first);
            processes.service(second);
            park.reach("http://127.0.0.1:" + second);
            park.accounts();
            for (String agent : park.agents()) {
                park.startAgent(agent);
            }
            Repository repository = park.component();
            repository.push("developer", "main", Scenario.files());
            for (int push = 2; push <= PUSHES; push++) {
                park.reach("http://127.0.0.1:" + (push % 2 == 0 && push < 5 ? first : second));
                park.installHook(repository);
                repository.push("developer", "main", Map.of("README", "push " + push));
                if (push == 4) {
                    Processes.kill(service);
                }
            }
            park.reach("http://127.0.0.1:" + second);
            Set<String> commits = new HashSet<>();
            for (int number = 1; number <= PUSHES; number++) {
                JsonNode run = park.runEnds(number).path("run");
                assertEquals("passed", run.path("status").asString(), run.toString());
                commits.add(run.path("commit").asString());
            }
            assertEquals(PUSHES, commits.size(), "each push has one run of its own");
            assertEquals(404, park.as("developer").get("/api/v1/runs/daylight-api/" + (PUSHES + 1)).status());
            park.liveIn("staging", "1.4." + PUSHES);
        }
    }

    /** The service is stopped for what the database takes for an hour, in the middle of a run that took two. */
    @Test
    void whatWasDoneWhileNoneWasAtWorkIsSaidToTakeThatMuchLess() throws Exception {
        try (Park park = new Park()) {
            ConfigurableApplicationContext service = park.startService();
            park.accounts();
            park.startAgent("builder");
            park.component().push("developer", "main", Scenario.files());
            park.runEnds(1);
            assertFalse(park.paseo("developer", "show", "daylight-api#1").out().contains("away"));
            service.close();
            park.database.as(
                    "update presence set last_alive = last_alive - interval 1 hour, outside_at = outside_at - "
                            + "interval 1 hour;"
                            + "update run set created_at = created_at - interval 2 hour, started_at = started_at - "
                            + "interval 2 hour");
            park.startService();
            Await.until("it says so", () -> park.paseo("developer", "show", "daylight-api#1").out()
                    .contains(" min in which the service was away"));
            assertEquals(3600,
                    park.as("developer").get("/api/v1/runs/daylight-api/1").good().path("run").path("away").asLong(),
                    120);
        }
    }
}
