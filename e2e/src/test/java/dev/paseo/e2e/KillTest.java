package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * {@code kill -9} of the service and of agents, at any moment of runs and deployments: 20 times, or -Dpaseo.kills=50.
 */
class KillTest {

    private static final int KILLS = Integer.getInteger("paseo.kills", 20);
    private static final int LINES = 40;

    /** Each step leaves a marker of its own the moment it is started; a try that was started twice leaves two. */
    private static Map<String, String> markedFiles(Path markers) {
        Map<String, String> files = Scenario.files();
        String mark = "mkdir -p " + markers + "\nmktemp " + markers
                + "/%s-$(echo \"$%s\" | tr '#' '-').XXXXXX >/dev/null\n";
        String lines = "i=0\nwhile [ $i -lt " + LINES + " ]; do i=$((i+1)); echo line $i; sleep 0.02; done\n";
        files.put("build.sh", "#!/bin/sh\nset -e\n" + mark.formatted("build", "PASEO_RUN") + lines
                + "mkdir -p out\necho \"version $PASEO_VERSION $(cat health)\" > out/app.txt\n");
        files.put("test.sh", "#!/bin/sh\nset -e\n" + mark.formatted("test", "PASEO_RUN") + lines);
        files.put("deploy/install.sh", "#!/bin/sh\nset -e\n" + mark.formatted("install-$PASEO_HOST", "PASEO_VERSION")
                + "sleep 0.3\ncp \"$PASEO_ARTIFACTS/app/app.txt\" \"$PASEO_HOST_FOLDER/version\"\n");
        return files;
    }

    @Test
    void everythingEndsRightAndNothingStartsTwice() throws Exception {
        try (Park park = new Park(); Processes processes = new Processes(park)) {
            int port = Processes.freePort();
            Process service = processes.service(port);
            park.reach("http://127.0.0.1:" + port);
            park.accounts();
            Map<String, Process> agents = new HashMap<>();
            for (String name : park.agents()) {
                agents.put(name, processes.agent(name));
            }
            Repository repository = park.component();
            Path markers = park.folder.resolve("markers");
            repository.push("developer", "main", markedFiles(markers));
            int pushed = 1;
            Random random = new Random(20261123);
            for (int kill = 1; kill <= KILLS; kill++) {
                LockSupport.parkNanos(Duration.ofMillis(random.nextInt(1, 900)).toNanos());
                if (kill % 3 == 0) {
                    Processes.kill(service);
                    service = processes.service(port);
                } else {
                    String name = park.agents().get(random.nextInt(park.agents().size()));
                    Processes.kill(agents.get(name));
                    agents.put(name, processes.agent(name));
                }
                if (kill % 4 == 0) {
                    repository.push("developer", "main", Map.of("README", "push " + kill));
                    pushed++;
                }
            }
            checkAll(park, pushed);
            checkMarkers(markers);
        }
    }

    private static void checkAll(Park park, int pushed) throws IOException {
        for (int number = 1; number <= pushed; number++) {
            JsonNode run = park.runEnds(number);
            assertEquals("passed", run.path("run").path("status").asString(), run.path("run").toString());
            for (String stage : List.of("compile", "unit-tests")) {
                checkLog(park, number, stage);
            }
        }
        String newest = "1.4." + pushed;
        // Longer than a lease: what was given out to an agent the moment it was killed comes back within one.
        Await.until(Duration.ofSeconds(150),
                () -> newest + " is live in staging: " + park.as("developer").get("/api/v1/whereabouts").body(),
                () -> park.live("staging").equals(Optional.of(newest)));
        assertEquals("version " + newest + " ok", park.installed("staging-1"));
        assertEquals("version " + newest + " ok", park.installed("staging-2"));
        for (String environment : List.of("test", "staging")) {
            for (JsonNode each : park.as("developer").get("/api/v1/history/daylight-api/" + environment).good()) {
                assertTrue(List.of("live", "replaced", "overtaken").contains(each.path("status").asString()),
                        each.toString());
            }
        }
        Await.until("the audit verifies", () -> {
            JsonNode report = park.as("auditor").get("/api/v1/audit/verification").body();
            assertEquals(0, report.path("findings").size(), report.toString());
            return report.path("notCovered").asLong() == 0;
        });
    }

    private static void checkLog(Park park, int number, String stage) {
        JsonNode log = park.as("developer")
                .get("/api/v1/runs/daylight-api/" + number + "/stages/" + stage + "/log?limit=10000").good();
        List<String> said = new ArrayList<>();
        log.path("lines").forEach(line -> {
            if (line.path("step").asInt() > 0) {
                said.add(line.path("text").asString());
            }
        });
        List<String> expected = new ArrayList<>();
        for (int line = 1; line <= LINES; line++) {
            expected.add("line " + line);
        }
        assertEquals(expected, said, "the log of " + stage + " of #" + number);
    }

    private static void checkMarkers(Path markers) throws IOException {
        Map<String, Integer> started = new HashMap<>();
        try (Stream<Path> files = Files.list(markers)) {
            files.forEach(file -> started.merge(file.getFileName().toString().replaceFirst("\\.[^.]*$", ""), 1,
                    Integer::sum));
        }
        assertTrue(started.size() > 10, started.toString());
        started.forEach((step, times) -> assertEquals(1, times, step + " was started " + times + " times"));
    }
}
