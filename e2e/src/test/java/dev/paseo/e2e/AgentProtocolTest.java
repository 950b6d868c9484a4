package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import java.util.zip.GZIPOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** An agent that does not keep to its protocol disturbs nothing but its own work. */
class AgentProtocolTest {

    private static final int LEASE_SECONDS = 8;
    private static final int MOST_LINES = 1_000_000;

    private static Park park;
    private static Client agent;

    @BeforeAll
    static void open() throws Exception {
        park = new Park();
        park.startService("--paseo.lease-seconds=" + LEASE_SECONDS, "--paseo.clock-may-move=true",
                "--paseo.most-log-lines=" + MOST_LINES);
        park.accounts();
        String secret = "hostile-" + "x".repeat(40);
        new Client(park.address(), "")
                .post("/agent/v1/enrolment", Map.of("token", park.invite("hostile"), "secret", secret)).good();
        agent = new Client(park.address(), secret);
        Repository repository = park.bring("victim", Map.of());
        repository.push("developer", "main", Map.of("paseo.yaml", """
                paseo: 1
                component: victim
                versions: "1.{serial}"
                newer-start: runs-beside
                starts: [{push: [main]}]
                stages:
                  make: {steps: ['true'], files: [out/**], keep: {app: out/app}, reports: {tests: t.xml}}
                """));
    }

    @AfterAll
    static void close() {
        park.close();
    }

    private JsonNode take(Long... held) {
        park.as("developer").post("/api/v1/runs", Map.of("component", "victim")).good();
        JsonNode[] work = new JsonNode[1];
        Await.until("work is there", () -> {
            work[0] = agent.post("/agent/v1/work?waitMillis=500", Map.of("held", List.of(held))).body();
            return work[0].has("leaseToken");
        });
        return work[0];
    }

    private static void end(JsonNode work) {
        new Client(park.address(), work.path("leaseToken").asString())
                .post("/agent/v1/lease/result", Map.of("fence", work.path("fence").asLong(), "outcome", "FAILED",
                        "reason", "enough", "touched", true))
                .good();
    }

    private static byte[] tar(String name) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            TarArchiveEntry entry = new TarArchiveEntry(name, true);
            entry.setSize(4);
            tar.putArchiveEntry(entry);
            tar.write("text".getBytes(StandardCharsets.UTF_8));
            tar.closeArchiveEntry();
        }
        return bytes.toByteArray();
    }

    private static HttpResponse<String> put(JsonNode work, String path, byte[] body)
            throws IOException, InterruptedException {
        return ask(work, "PUT", path, body);
    }

    private static String said(int status, HttpResponse<String> answer) {
        assertEquals(status, answer.statusCode(), answer::body);
        return Client.JSON.readTree(answer.body()).path("detail").asString();
    }

    private static HttpResponse<String> ask(JsonNode work, String method, String path, byte[] body)
            throws IOException, InterruptedException {
        return HttpClient.newHttpClient()
                .send(HttpRequest.newBuilder(URI.create(park.address() + "/agent/v1/lease" + path))
                        .method(method, HttpRequest.BodyPublishers.ofByteArray(body))
                        .header("Authorization", "Bearer " + work.path("leaseToken").asString())
                        .header("Content-Type", "application/octet-stream").build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void whatALeaseDoesNotAllowIsSaidWhole() throws Exception {
        JsonNode work = take();
        byte[] none = new byte[0];
        assertEquals("A block of a log has at most 8 MB",
                said(413, ask(work, "POST", "/log?first=1", new byte[8_000_001])));
        assertEquals("The block is not gzip of log lines: Not in GZIP format",
                said(400, ask(work, "POST", "/log?first=1", "no gzip".getBytes(StandardCharsets.UTF_8))));
        String other = "0".repeat(64);
        assertEquals("The work of this lease does not use the bytes " + other,
                said(404, ask(work, "GET", "/bytes/" + other, none)));
        assertEquals("There are reports of tests, coverage, findings and parts, not of pictures",
                said(400, ask(work, "PUT", "/reports/pictures", tar("a.xml"))));
        end(work);
        assertEquals("This lease has ended", said(410, ask(work, "GET", "/log", none)));
    }

    @Test
    void whatItMayNotSendIsRefusedWithTheReason() throws Exception {
        JsonNode work = take();
        HttpResponse<String> climbing = put(work, "/files", tar("../../etc/passwd"));
        assertEquals(422, climbing.statusCode());
        assertTrue(climbing.body().contains("lies outside the workspace"), climbing::body);
        assertEquals(422, put(work, "/files", "no archive".repeat(2000).getBytes(StandardCharsets.UTF_8)).statusCode());
        assertEquals(400, put(work, "/outputs/other?fileName=app", new byte[3]).statusCode());
        assertEquals(400, put(work, "/outputs/app?fileName=..%2Fapp", new byte[3]).statusCode());
        assertEquals(400, put(work, "/reports/gossip", tar("t.xml")).statusCode());
        assertEquals(422, put(work, "/reports/tests", tar("t.xml")).statusCode());
        assertEquals(400, put(work, "/reuse/not-a-key", new byte[3]).statusCode());
        Client lease = new Client(park.address(), work.path("leaseToken").asString());
        assertEquals(404, lease.get("/agent/v1/lease/bytes/" + "0".repeat(64)).status());
        assertEquals(401, lease.get("/api/v1/components").status(), "a lease reaches nothing but its work");
        lease.post("/agent/v1/lease/result",
                Map.of("fence", work.path("fence").asLong(), "outcome", "FAILED", "reason", "enough", "touched", true))
                .good();
    }

    @Test
    void theSameArtifactWithOtherBytesIsRefused() throws Exception {
        JsonNode work = take();
        assertEquals(200, put(work, "/outputs/app?fileName=app", new byte[]{1}).statusCode());
        assertEquals(200, put(work, "/outputs/app?fileName=app", new byte[]{1}).statusCode());
        HttpResponse<String> other = put(work, "/outputs/app?fileName=app", new byte[]{2});
        assertEquals(409, other.statusCode());
        assertTrue(other.body().contains("is there with other bytes"), other::body);
    }

    @Test
    void anOldLeaseChangesNothing() {
        JsonNode work = take();
        Client lease = new Client(park.address(), work.path("leaseToken").asString());
        Map<String, Object> old = Map.of("fence", work.path("fence").asLong() - 1, "outcome", "PASSED", "reason", "",
                "touched", true);
        Client.Answer refused = lease.post("/agent/v1/lease/result", old);
        assertEquals(410, refused.status());
        assertEquals("This lease has ended; its result is not accepted", refused.body().path("detail").asString());
        assertEquals(410,
                lease.post("/agent/v1/lease/heartbeat", Map.of("fence", work.path("fence").asLong() + 7)).status());
        long run = Long.parseLong(work.path("variables").path("PASEO_RUN").asString().replaceAll(".*#", ""));
        assertEquals("running", park.run("victim", run).path("stages").path(0).path("status").asString());
        lease.post("/agent/v1/lease/result",
                Map.of("fence", work.path("fence").asLong(), "outcome", "PASSED", "reason", "", "touched", true))
                .good();
        assertEquals("passed", park.runEnds("victim", run).path("run").path("status").asString());
        assertEquals(410,
                lease.post("/agent/v1/lease/heartbeat", Map.of("fence", work.path("fence").asLong())).status());
    }

    @Test
    void theFenceOfOtherWorkEndsNothing() {
        JsonNode mine = take();
        JsonNode other = take(mine.path("work").asLong());
        assertEquals(410,
                new Client(park.address(), mine.path("leaseToken").asString() + "x").get("/agent/v1/lease").status());
        Client lease = new Client(park.address(), mine.path("leaseToken").asString());
        assertEquals(mine.path("work"), lease.get("/agent/v1/lease").good().path("work"),
                "a lease is of its own work, whatever is asked");
        lease.post("/agent/v1/lease/result",
                Map.of("fence", mine.path("fence").asLong(), "outcome", "PASSED", "reason", "", "touched", true))
                .good();
        long run = Long.parseLong(other.path("variables").path("PASEO_RUN").asString().replaceAll(".*#", ""));
        assertEquals("running", park.run("victim", run).path("stages").path(0).path("status").asString());
        end(other);
    }

    /** However often the clock is moved, a lease ends its length after its agent was heard of last. */
    @Test
    void aMovedClockExtendsALeaseByNoMoreThanItsLength() {
        JsonNode work = take();
        long run = Long.parseLong(work.path("variables").path("PASEO_RUN").asString().replaceAll(".*#", ""));
        long began = System.nanoTime();
        for (int time = 0; time < 5; time++) {
            park.as("admin").post("/api/v1/clock", Map.of("by", "PT1H")).good();
        }
        Await.until("its agent is given up", () -> park.run("victim", run).path("stages").path(0).path("reason")
                .asString("").contains("its agent was not heard of for " + LEASE_SECONDS + " s"));
        long seconds = java.time.Duration.ofNanos(System.nanoTime() - began).toSeconds();
        assertTrue(seconds >= LEASE_SECONDS - 1 && seconds < 60, "after " + seconds + " s");
    }

    private static byte[] block(String line, int count) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
            out.write(line.repeat(count).getBytes(StandardCharsets.UTF_8));
        }
        return bytes.toByteArray();
    }

    /** As fast as it can: others are answered meanwhile, and at the limit it hears so. */
    @Test
    void aLogWithoutEndIsCutOffAndDisturbsNobody() throws Exception {
        JsonNode work = take();
        HttpClient http = HttpClient.newHttpClient();
        byte[] block = block("1 1 " + "y".repeat(100) + "\n", 20_000);
        AtomicReference<HttpResponse<String>> last = new AtomicReference<>();
        Thread flood = Thread.ofVirtual().start(() -> {
            try {
                Client lease = new Client(park.address(), work.path("leaseToken").asString());
                for (long first = 1; last.get() == null || last.get().statusCode() == 200; first += 20_000) {
                    last.set(
                            http.send(
                                    HttpRequest
                                            .newBuilder(
                                                    URI.create(park.address() + "/agent/v1/lease/log?first=" + first))
                                            .POST(HttpRequest.BodyPublishers.ofByteArray(block))
                                            .header("Authorization", "Bearer " + work.path("leaseToken").asString())
                                            .header("Content-Type", "application/octet-stream").build(),
                                    HttpResponse.BodyHandlers.ofString()));
                    if (first % 100_000 == 1) {
                        lease.post("/agent/v1/lease/heartbeat", Map.of("fence", work.path("fence").asLong())).good();
                    }
                }
            } catch (IOException | InterruptedException away) {
                // Seen below: there is no last answer.
            }
        });
        long slowest = 0;
        while (flood.isAlive()) {
            long began = System.nanoTime();
            park.as("developer").get("/api/v1/components").good();
            slowest = Math.max(slowest, (System.nanoTime() - began) / 1_000_000);
        }
        assertEquals(413, last.get().statusCode());
        assertTrue(last.get().body().contains("A log has at most " + MOST_LINES + " lines"), () -> last.get().body());
        assertTrue(slowest < 5000, "others waited for " + slowest + " ms");
        end(work);
    }

    /** What is announced beyond a limit is refused before it is read. */
    @Test
    void moreFilesOrBytesThanAreTakenAreRefused() throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            for (int at = 0; at <= 100_000; at++) {
                tar.putArchiveEntry(new TarArchiveEntry("out/" + at, true));
                tar.closeArchiveEntry();
            }
        }
        JsonNode work = take();
        URI service = URI.create(park.address());
        try (Socket socket = new Socket(service.getHost(), service.getPort())) {
            socket.setSoTimeout(10_000);
            socket.getOutputStream()
                    .write(("PUT /agent/v1/lease/outputs/app?fileName=app HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer "
                            + work.path("leaseToken").asString()
                            + "\r\nContent-Type: application/octet-stream\r\nContent-Length: 68719476737\r\n\r\n")
                            .getBytes(StandardCharsets.US_ASCII));
            String answer = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8))
                    .readLine();
            assertTrue(answer.startsWith("HTTP/1.1 413"), answer);
        }
        new Client(park.address(), work.path("leaseToken").asString())
                .post("/agent/v1/lease/heartbeat", Map.of("fence", work.path("fence").asLong())).good();
        HttpResponse<String> many = put(work, "/files", bytes.toByteArray());
        assertEquals(422, many.statusCode());
        assertTrue(many.body().contains("files: more than 100000 files for the stages after this one"), many::body);
    }

    /**
     * The service counts digests itself; what an agent says of a host's files has a form, and reaches its own hosts
     * alone.
     */
    @Test
    void whatItSaysOfDigestsIsNotBelieved() throws Exception {
        JsonNode work = take();
        byte[] bytes = "what was built".getBytes(StandardCharsets.UTF_8);
        String lie = "0".repeat(64);
        HttpResponse<String> kept = HttpClient
                .newHttpClient().send(
                        HttpRequest
                                .newBuilder(URI.create(
                                        park.address() + "/agent/v1/lease/outputs/app?fileName=app&digest=" + lie))
                                .PUT(HttpRequest.BodyPublishers.ofByteArray(bytes))
                                .header("Authorization", "Bearer " + work.path("leaseToken").asString())
                                .header("X-Paseo-Digest", lie)
                                .header("Content-Type", "application/octet-stream").build(),
                        HttpResponse.BodyHandlers.ofString());
        assertTrue(kept.body().contains(Registry.sha256(bytes).substring(7)) && !kept.body().contains(lie), kept::body);
        Map<String, Object> seen = Map.of("place", 1, "host", 1, "deployment", 1, "differing",
                Map.of("app", "sha256 of whatever I like"));
        Client.Answer refused = agent.post("/agent/v1/watch",
                Map.of("seen", List.of(seen), "diskFree", 0, "diskTotal", 0));
        assertEquals(400, refused.status());
        assertEquals("should be at most 10000 paths, each with the SHA-256 digest of its file in hexadecimal, or "
                + "nothing where there is no file", refused.detail());
        end(work);
    }

    /** Two gigabytes are announced, and not one byte of them is waited for. */
    @ParameterizedTest
    @CsvSource({"lease/log?first=1, 410", "lease/result, 410", "lease/outputs/app?fileName=app, 410", "work, 401",
            "watch, 401"})
    void nothingIsReadOfWhoIsNotKnown(String path, int status) throws Exception {
        URI service = URI.create(park.address());
        try (Socket socket = new Socket(service.getHost(), service.getPort())) {
            socket.setSoTimeout(10_000);
            socket.getOutputStream().write(("POST /agent/v1/" + path
                    + " HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer nobody\r\nContent-Type: "
                    + "application/json\r\nContent-Length: 2147483648\r\n\r\n")
                    .getBytes(StandardCharsets.US_ASCII));
            String answer = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8))
                    .readLine();
            assertTrue(answer.startsWith("HTTP/1.1 " + status), answer);
        }
    }

    @Test
    void aBlockOfALogHasItsLimits() throws Exception {
        JsonNode work = take();
        HttpClient http = HttpClient.newHttpClient();
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(park.address() + "/agent/v1/lease/log?first=1"))
                .header("Authorization", "Bearer " + work.path("leaseToken").asString())
                .header("Content-Type", "application/octet-stream");
        Map<byte[], Integer> answers = new LinkedHashMap<>();
        answers.put(block("1 1 y\n", 20_001), 413);
        answers.put(block("1 1 " + "y".repeat(1000) + "\n", 9000), 413);
        answers.put(block("nonsense\n", 1), 400);
        answers.put(block("1 1 without an end", 1), 400);
        answers.put("no gzip".getBytes(StandardCharsets.UTF_8), 400);
        byte[] whole = block("1 1 y\n", 2_000);
        answers.put(java.util.Arrays.copyOf(whole, whole.length / 2), 400);
        answers.put(block("1 1 y\n", 20_000), 200);
        for (Map.Entry<byte[], Integer> answer : answers.entrySet()) {
            assertEquals(answer.getValue(),
                    http.send(request.copy().POST(HttpRequest.BodyPublishers.ofByteArray(answer.getKey())).build(),
                            HttpResponse.BodyHandlers.ofString()).statusCode());
        }
    }
}
