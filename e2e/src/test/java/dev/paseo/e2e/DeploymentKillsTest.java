package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * {@code kill -9} of the service, of the agent at work, and of the database, in each part of a deployment: it ends as
 * if nothing had been, and no try of a step starts twice.
 */
class DeploymentKillsTest {

    /** Says that a part has begun, in a file of its own, and waits while the test holds that part. */
    private static final String PART = """
            #!/bin/sh
            set -e
            part=$1-$PASEO_VERSION
            mktemp "$MARKS/begun/$part@$PASEO_HOST.XXXXXX" >/dev/null
            while [ "$(cat "$MARKS/hold")" = "$part" ]; do sleep 0.05; done
            """;

    private static final String DEPLOYMENT = """
            deployment:
              bring: ["deploy/**"]
              strategy: {blue-green: {old-side-stays: 1h}}
              once-before: ["deploy/part.sh before"]
              on-each-host: ["deploy/part.sh install", deploy/install.sh]
              traffic: ["deploy/part.sh traffic"]
              once-after: ["deploy/part.sh after"]
              checks:
                each-host:
                  - {http: "{host.url}/version", contains: "version {version} ok", within: 10s}
                whole:
                  - {command: "deploy/part.sh check", within: 100s}
                keep-checking: 2s
              tests:
                acceptance: {steps: ["deploy/part.sh test"]}
              removal: ["deploy/part.sh removal", deploy/remove.sh]
            route:
              - test: on-request
              - staging: on-request
            """;

    private static final List<String> PARTS = List.of("before", "install", "check", "traffic", "after", "watch",
            "test");
    private static final List<String> VICTIMS = List.of("service", "agent", "database");

    private Park park;
    private Processes processes;
    private Path marks;
    private int port;
    private Process service;
    private final Map<String, Process> agents = new HashMap<>();

    @Test
    void whateverIsKilledInWhicheverPartItEndsAsItWouldHave() throws Exception {
        TestDatabase database = TestDatabase.ofItsOwn();
        try (Park opened = new Park(database); Processes started = new Processes(opened)) {
            park = opened;
            processes = started;
            begin();
            int version = 0;
            for (String part : PARTS) {
                for (String victim : VICTIMS) {
                    // Three in turn: neither side has the next one already.
                    version = version % 3 + 1;
                    goesOn(part, "1.4." + version, victim);
                }
            }
            for (String victim : VICTIMS) {
                isUndone(victim);
            }
            assertEquals(0, park.as("auditor").get("/api/v1/audit/verification").body().path("findings").size());
        } finally {
            database.stop();
        }
    }

    private void begin() throws IOException, InterruptedException {
        port = Processes.freePort();
        service = processes.service(port);
        park.reach("http://127.0.0.1:" + port);
        park.accounts();
        marks = Files.createDirectories(park.folder.resolve("marks/begun")).getParent();
        hold("nothing");
        for (String name : List.of("builder", "test-1", "staging-1", "staging-2")) {
            agents.put(name, processes.agent(name));
        }
        Repository repository = park.component();
        park.as("admin").put("/api/v1/environments", Map.of("text", """
                environments:
                  test:
                    variables: {MARKS: %1$s}
                    components: {daylight-api: {hosts: {test-1: {url: "%2$s", side: blue}, valley-house: {url: \
                "%2$s", side: green}}}}
                  staging:
                    variables: {MARKS: %1$s}
                    components: {daylight-api: {hosts: {staging-1: {url: "%3$s", side: blue}, staging-2: {url: \
                "%4$s", side: green}}}}
                """.formatted(marks, park.hostAddress("test-1"), park.hostAddress("staging-1"),
                park.hostAddress("staging-2")), "loosen", true)).good();
        Map<String, String> files = Scenario.files();
        files.put("paseo.yaml", Scenario.PIPELINE.substring(0, Scenario.PIPELINE.indexOf("deployment:")) + DEPLOYMENT);
        files.put("deploy/part.sh", PART);
        repository.push("developer", "main", files);
        park.runEnds(1);
        for (int push = 2; push <= 3; push++) {
            repository.push("developer", "main", Map.of("README", "push " + push));
            park.runEnds(push);
        }
    }

    private void goesOn(String part, String version, String victim) throws IOException, InterruptedException {
        String row = victim + " in " + part;
        String at = part + "-" + version;
        hold(at);
        long id = park.promote(version, "staging");
        String host = "staging-1";
        if (part.equals("watch")) {
            Await.until(row + ": it is live", () -> park.status(id).equals("live"));
        } else {
            Await.until(row + ": it has begun: " + park.deployment(id).path("deployment"),
                    () -> begun().keySet().stream().anyMatch(each -> each.startsWith(at)));
            host = begun().keySet().stream().filter(each -> each.startsWith(at)).findFirst().orElseThrow()
                    .replaceFirst(".*@", "");
        }
        kill(victim, host);
        hold("nothing");
        Await.until(row + ": it has settled", () -> ended(park.deployment(id)));
        JsonNode after = park.deployment(id);
        assertEquals("live", after.path("deployment").path("status").asString(), () -> row + ": " + after);
        begun().forEach(
                (step, times) -> assertEquals(1, times, () -> row + ": " + step + " was started more than once"));
        assertTrue(begun().keySet().stream().anyMatch(each -> each.startsWith("test-" + version)),
                () -> row + ": it was tested: " + begun());
        String filled = begun().keySet().stream().filter(each -> each.startsWith("install-")).findFirst().orElseThrow()
                .replaceFirst(".*@", "");
        assertEquals("version " + version + " ok", park.installed(filled), row);
        clear();
    }

    /** A version that is installed is cancelled, and its way back is hit. */
    private void isUndone(String victim) throws IOException, InterruptedException {
        String live = park.live("staging").orElseThrow();
        String version = live.equals("1.4.1") ? "1.4.2" : "1.4.1";
        hold("traffic-" + version);
        long id = park.promote(version, "staging");
        Await.until("the traffic is moved",
                () -> begun().keySet().stream().anyMatch(each -> each.startsWith("traffic-")));
        clear();
        park.as("release-engineer").post("/api/v1/deployments/" + id + "/cancellation", Map.of()).good();
        Await.until(victim + ": the traffic is moved back",
                () -> begun().keySet().stream().anyMatch(each -> each.startsWith("traffic-")));
        String host = begun().keySet().iterator().next().replaceFirst(".*@", "");
        kill(victim, host);
        hold("nothing");
        Await.until(victim + ": it is undone, but " + park.status(id), () -> park.status(id).equals("undone"));
        begun().forEach((step, times) -> assertEquals(1, times,
                () -> victim + " on the way back: " + step + " was started more than once"));
        assertEquals(live, park.live("staging").orElseThrow());
        clear();
    }

    private static boolean ended(JsonNode deployment) {
        String status = deployment.path("deployment").path("status").asString();
        boolean settled = deployment.path("plan").valueStream()
                .filter(each -> each.path("what").asString().equals("settled"))
                .allMatch(each -> each.path("state").asString().equals("done"));
        return status.equals("live") ? settled : List.of("undone", "stopped", "failed").contains(status);
    }

    private void kill(String victim, String host) throws IOException, InterruptedException {
        switch (victim) {
            case "service" -> {
                Processes.kill(service);
                service = processes.service(port);
            }
            case "agent" -> {
                Processes.kill(agents.get(host));
                agents.put(host, processes.agent(host));
            }
            default -> {
                park.database.kill();
                assertFalse(park.database.answers(), "it is really gone");
                park.database.startAgain();
            }
        }
    }

    private void hold(String part) throws IOException {
        Path next = marks.resolve("hold.new");
        Files.writeString(next, part);
        Files.move(next, marks.resolve("hold"), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
    }

    /** What has begun since it was last cleared, and how often. */
    private Map<String, Integer> begun() {
        Map<String, Integer> begun = new TreeMap<>();
        try (Stream<Path> files = Files.list(marks.resolve("begun"))) {
            files.forEach(
                    file -> begun.merge(file.getFileName().toString().replaceFirst("\\.[^.]*$", ""), 1, Integer::sum));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
        return begun;
    }

    private void clear() throws IOException {
        try (Stream<Path> files = Files.list(marks.resolve("begun"))) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
    }
}
