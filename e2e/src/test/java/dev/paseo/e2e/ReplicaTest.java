package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Two replicas on one database, hooks to both, one killed: nothing lost, nothing twice. */
class ReplicaTest {

    private static final int PUSHES = 8;

    @Test
    void oneGoesOnWhenTheOtherIsKilled() throws Exception {
        try (Harbour harbour = new Harbour(); Processes processes = new Processes(harbour)) {
            int first = Processes.freePort();
            int second = Processes.freePort();
            Process service = processes.service(first);
            processes.service(second);
            harbour.reach("http://127.0.0.1:" + second);
            harbour.accounts();
            for (String agent : harbour.agents()) {
                harbour.startAgent(agent);
            }
            Repository repository = harbour.component();
            repository.push("developer", "main", Scenario.files());
            for (int push = 2; push <= PUSHES; push++) {
                harbour.reach("http://127.0.0.1:" + (push % 2 == 0 && push < 5 ? first : second));
                harbour.installHook(repository);
                repository.push("developer", "main", Map.of("README", "push " + push));
                if (push == 4) {
                    Processes.kill(service);
                }
            }
            harbour.reach("http://127.0.0.1:" + second);
            Set<String> commits = new HashSet<>();
            for (int number = 1; number <= PUSHES; number++) {
                JsonNode run = harbour.runEnds(number).path("run");
                assertEquals("passed", run.path("status").asString(), run.toString());
                commits.add(run.path("commit").asString());
            }
            assertEquals(PUSHES, commits.size(), "each push has one run of its own");
            assertEquals(404, harbour.as("developer").get("/api/v1/runs/tide-api/" + (PUSHES + 1)).status());
            harbour.liveIn("staging", "1.4." + PUSHES);
        }
    }
}
