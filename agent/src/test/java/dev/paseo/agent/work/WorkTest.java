package dev.paseo.agent.work;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.paseo.agent.lease.ServiceClient;
import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.SmallDisk;
import dev.paseo.agent.process.Spool;
import dev.paseo.agent.process.Walls;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Lease;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/**
 * A whole piece of work against a service that answers as each test wants: what is this machine's own fails at once,
 * what is remote is tried again.
 */
class WorkTest {

    private static final JsonMapper JSON = JsonMapper.builder().build();

    @TempDir
    private Path folder;

    private final AtomicReference<Lease.Result> result = new AtomicReference<>();
    private final AtomicReference<Lease.Stop> stop = new AtomicReference<>(Lease.Stop.NO);
    private final AtomicInteger sourceAsked = new AtomicInteger();
    private final CountDownLatch hanging = new CountDownLatch(1);
    private final StringBuffer log = new StringBuffer();
    private HttpServer server;
    private Path root = Path.of("");

    private interface Source {
        void answer(HttpExchange exchange) throws IOException, InterruptedException;
    }

    @BeforeEach
    void start() throws IOException {
        root = folder;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool());
        json("/agent/v1/lease/heartbeat", () -> new Lease.HeartbeatAnswer(stop.get()));
        server.createContext("/agent/v1/lease/result", exchange -> {
            result.set(JSON.readValue(exchange.getRequestBody().readAllBytes(), Lease.Result.class));
            answer(exchange, 200, "{}".getBytes(StandardCharsets.UTF_8));
        });
        server.createContext("/agent/v1/lease/log", exchange -> {
            if (exchange.getRequestMethod().equals("POST")) {
                log.append(new String(new java.util.zip.GZIPInputStream(exchange.getRequestBody()).readAllBytes(),
                        StandardCharsets.UTF_8));
            }
            answer(exchange, 200, JSON
                    .writeValueAsBytes(new Lease.LogPosition(1 + log.chars().filter(each -> each == '\n').count())));
        });
        json("/agent/v1/lease/steps", () -> Map.of());
        server.start();
    }

    private void json(String path, java.util.function.Supplier<Object> answer) {
        server.createContext(path, exchange -> {
            exchange.getRequestBody().readAllBytes();
            answer(exchange, 200, JSON.writeValueAsBytes(answer.get()));
        });
    }

    private static void answer(HttpExchange exchange, int status, byte[] body) throws IOException {
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    @AfterEach
    void end() {
        hanging.countDown();
        server.stop(0);
    }

    private void source(Source source) {
        server.createContext("/agent/v1/lease/source", exchange -> {
            sourceAsked.incrementAndGet();
            try {
                source.answer(exchange);
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
            }
        });
    }

    private static byte[] tar(String name, Optional<String> linkTo) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
            TarArchiveEntry entry = linkTo.isPresent() ? new TarArchiveEntry(name, TarConstants.LF_SYMLINK)
                    : new TarArchiveEntry(name, true);
            linkTo.ifPresentOrElse(entry::setLinkName, () -> entry.setSize(4));
            tar.putArchiveEntry(entry);
            if (linkTo.isEmpty()) {
                tar.write("text".getBytes(StandardCharsets.UTF_8));
            }
            tar.closeArchiveEntry();
        }
        return bytes.toByteArray();
    }

    private Lease.Result carriedOut(long timeout, String command, List<String> files) throws Exception {
        Assignment work = new Assignment(7, 1, "token", 10, Assignment.Kind.STAGE, Map.of("PASEO_COMMIT", "c0ffee"),
                Map.of(), List.of(new Assignment.Step(1, command, command, 600, 0)),
                Optional.of(new Assignment.Stage(timeout, List.of(), List.of(), Optional.empty(), files, List.of(),
                        List.of())),
                Optional.empty(), List.of(), List.of(), Optional.empty(), false);
        Spool spool = Spool.open(root.resolve("spool"), work.work());
        spool.keepLease("token");
        Machine machine = new Machine(Map.of("PATH", System.getenv("PATH")), new Sources(root.resolve("sources")),
                Walls.find(folder, folder.resolve("host"), Walls.WallSettings.usual()), Limits.usual());
        ServiceClient service = new ServiceClient(URI.create("http://127.0.0.1:" + server.getAddress().getPort()));
        assertTimeoutPreemptively(Duration.ofSeconds(60),
                () -> new Work(work, service.lease("token"), spool, machine).carryOut());
        return result.get();
    }

    @Test
    void whatCannotBeUnpackedHereFailsAtOnceAndIsNotFetchedAgain() throws Exception {
        source(exchange -> answer(exchange, 200, tar("../outside", Optional.empty())));
        Lease.Result failed = carriedOut(600, "true", List.of());
        assertEquals(new Lease.Result(1, Lease.Outcome.FAILED, "../outside lies outside the workspace", false), failed);
        assertEquals(1, sourceAsked.get());
    }

    @Test
    void aNameThatTheFileSystemRefusesIsTold() throws Exception {
        source(exchange -> answer(exchange, 200, tar("n".repeat(300), Optional.empty())));
        Lease.Result failed = carriedOut(600, "true", List.of());
        assertEquals(Lease.Outcome.FAILED, failed.outcome());
        assertTrue(
                failed.reason()
                        .startsWith("while fetching its files: a name is longer than the agent's file system takes: "),
                failed.reason());
    }

    @Test
    void aFullDiskFailsAtOnceAndIsTold() throws Exception {
        try (SmallDisk disk = new SmallDisk(folder.resolve("small"), 4)) {
            root = disk.folder();
            source(exchange -> {
                exchange.sendResponseHeaders(200, 0);
                try {
                    for (int block = 0; block < 64; block++) {
                        exchange.getResponseBody().write(new byte[1 << 20]);
                    }
                } finally {
                    exchange.close();
                }
            });
            Lease.Result failed = carriedOut(600, "true", List.of());
            assertEquals(new Lease.Result(1, Lease.Outcome.FAILED, "while fetching its files: the agent's disk is full",
                    false), failed);
            assertEquals(1, sourceAsked.get());
        }
    }

    @Test
    void aLinkThatLeadsOutIsCheckedOutAndHoldsNothingUp() throws Exception {
        source(exchange -> answer(exchange, 200, tar("out", Optional.of("/etc"))));
        assertEquals(Lease.Outcome.PASSED, carriedOut(600, "test -L out", List.of()).outcome());
    }

    @Test
    void aServiceThatIsAwayIsAskedUntilTheTimeIsOver() throws Exception {
        source(exchange -> answer(exchange, 503, "{\"detail\":\"the disk is full\"}".getBytes(StandardCharsets.UTF_8)));
        Lease.Result failed = carriedOut(4, "true", List.of());
        assertEquals(new Lease.Result(1, Lease.Outcome.FAILED,
                "the stage took longer than 4 s; it was fetching its files, and the service did not answer: the "
                        + "disk is full",
                false), failed);
        assertTrue(sourceAsked.get() > 1, "it was tried " + sourceAsked.get() + " times");
    }

    /** The service sends half of the commit, and then nothing more. */
    @Test
    void whatHangsIsStoppedAtOnceWithinTenSeconds() throws Exception {
        source(exchange -> {
            exchange.sendResponseHeaders(200, 10_000);
            exchange.getResponseBody().write(new byte[512]);
            exchange.getResponseBody().flush();
            stop.set(Lease.Stop.AT_ONCE);
            hanging.await();
        });
        long began = System.nanoTime();
        assertEquals(new Lease.Result(1, Lease.Outcome.STOPPED, "stopped while fetching its files", false),
                carriedOut(600, "true", List.of()));
        assertTrue(Duration.ofNanos(System.nanoTime() - began).toSeconds() <= 10);
    }

    /** A pipe that nobody writes to would block whoever opens it, for ever. */
    @Test
    void pipesAndSocketsAreLeftOutAndTold() throws Exception {
        source(exchange -> answer(exchange, 200, tar("out/kept", Optional.empty())));
        server.createContext("/agent/v1/lease/files", exchange -> {
            byte[] archive = exchange.getRequestBody().readAllBytes();
            answer(exchange, 200,
                    JSON.writeValueAsBytes(Map.of("digest",
                            java.util.HexFormat.of()
                                    .formatHex(dev.paseo.agent.lease.DigestedFile.sha256().digest(archive)),
                            "size", archive.length)));
        });
        String command = "mkfifo out/pipe && python3 -c 'import socket; "
                + "socket.socket(socket.AF_UNIX).bind(\"out/socket\")'";
        assertEquals(new Lease.Result(1, Lease.Outcome.PASSED, "", true), carriedOut(600, command, List.of("out/**")));
        assertTrue(log.toString().contains("left out, for they are no files: out/pipe, out/socket"), log::toString);
        assertTrue(log.toString().contains("left 1 file for the stages after this one"), log::toString);
    }
}
