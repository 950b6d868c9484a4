package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.http.HttpRequest;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;

/**
 * A service with 256 MB of heap takes every input up to its limit, and refuses what is beyond, without an error of the
 * machine.
 */
class SmallHeapTest {

    private static final int AT_ONCE = 16;

    @Test
    void whatIsAtItsLimitFitsIntoASmallHeap() throws Exception {
        try (Park park = new Park(); Processes processes = new Processes(park)) {
            int port = Processes.freePort();
            Process service = processes.service(port, "-Xmx256m");
            park.reach("http://127.0.0.1:" + port);
            park.accounts();
            park.startAgent("builder");
            Repository repository = park.component();
            Map<String, String> files = Scenario.files();
            String report = "  unit-tests:\n    steps: [./test.sh, './report.sh > big.xml']\n    reports: {tests: "
                    + "big.xml}\n";
            files.put("paseo.yaml", Scenario.PIPELINE.replace("  unit-tests:\n    steps: [./test.sh]\n", report));
            files.put("report.sh",
                    "#!/bin/sh\necho '<testsuite>'\nseq 600000 | sed 's|.*|<testcase "
                            + "classname=\"horizon.of.the.valley.and.of.the.ridge\" name=\"turns back at &\" "
                            + "time=\"0.1\"/>|'\necho '</testsuite>'\n");
            repository.push("developer", "main", files);
            assertEquals("passed", park.runEnds(1).path("run").path("status").asString());
            assertEquals(600_000, park.as("developer").get("/api/v1/runs/daylight-api/1/evidence").good().path("tests")
                    .path(0).path("tests").path("total").asLong());

            sparse(repository.work().resolve("large.bin"), 300L << 20);
            sparse(repository.work().resolve("other/paseo.yaml"), 300L << 20);
            repository.push("developer", "main", Map.of("README", "300 MB beside it", "paseo.yaml", Scenario.PIPELINE));
            assertEquals("passed", park.runEnds(2).path("run").path("status").asString());
            repository.git("checkout", "-q", "-b", "feature/large");
            sparse(repository.work().resolve("paseo.yaml"), 300L << 20);
            repository.git("commit", "-q", "-a", "-m", "300 MB of a pipeline file");
            String said = repository.git("push", "origin", "feature/large");
            assertTrue(said.contains("paseo.yaml has 314572800 bytes; at most 1 MB are read"), said);
            repository.push("developer", "feature/full", Map.of("paseo.yaml",
                    Scenario.PIPELINE + "#" + "x".repeat(1_000_000 - Scenario.PIPELINE.length() - 1)));

            List<Future<Integer>> answers = new ArrayList<>();
            try (ExecutorService sending = Executors.newFixedThreadPool(AT_ONCE)) {
                for (int at = 0; at < 2 * AT_ONCE; at++) {
                    int size = at % 2 == 0 ? 4_000_000 - 1_000 : 5_000_000;
                    answers.add(sending.submit(() -> park.as("developer").raw(
                            HttpRequest.newBuilder().header("Content-Type", "application/json")
                                    .header("Authorization", "Bearer "
                                            + park.as("developer").token())
                                    .POST(HttpRequest.BodyPublishers
                                            .ofString("{\"component\":\"" + "x".repeat(size) + "\"}")),
                            "/api/v1/runs").statusCode()));
                }
            }
            for (int at = 0; at < answers.size(); at++) {
                assertEquals(at % 2 == 0 ? 400 : 413, answers.get(at).get());
            }
            assertTrue(service.isAlive());
            assertEquals("UP", park.as("admin").get("/actuator/health").good().path("status").asString());
        }
    }

    /**
     * Nothing but zeros, of which git keeps next to nothing, and which are as many as any others to whoever reads them.
     */
    private static void sparse(Path file, long size) throws Exception {
        java.nio.file.Files.createDirectories(file.getParent());
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE,
                StandardOpenOption.TRUNCATE_EXISTING)) {
            channel.position(size - 1);
            channel.write(java.nio.ByteBuffer.wrap(new byte[]{'\n'}));
        }
    }
}
