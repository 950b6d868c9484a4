package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Events told to the demo's small receiver, which checks signatures in its own way. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ReceiverTest {

    private static final JsonMapper JSON = new JsonMapper();

    private Park park;
    private Path kept;

    @BeforeAll
    void open() throws Exception {
        park = Park.open("--paseo.heads.every=1s");
        kept = park.folder.resolve("events");
    }

    @AfterAll
    void close() {
        park.close();
    }

    private Process receiver(String secret) throws IOException {
        Process process = new ProcessBuilder("python3",
                Path.of("..").toAbsolutePath().resolve("demo/receiver.py").normalize().toString(),
                Integer.toString(park.storePort), kept.toString()).redirectErrorStream(true)
                .redirectOutput(park.folder.resolve("receiver.log").toFile()).start();
        try (OutputStream in = process.getOutputStream()) {
            in.write((secret + "\n").getBytes(StandardCharsets.UTF_8));
        }
        return process;
    }

    private List<JsonNode> events() throws IOException {
        return Files.exists(kept) ? Files.readAllLines(kept).stream().map(JSON::readTree).toList() : List.of();
    }

    private JsonNode messages() {
        return park.as("admin").get("/api/v1/receivers/park-log/messages").good();
    }

    @Test
    void eventsAreTriedAgainUntilTheReceiverBelievesThem() throws Exception {
        String address = "http://127.0.0.1:" + park.storePort + "/events";
        assertEquals(403,
                park.as("developer").post("/api/v1/receivers", Map.of("name", "mine", "address", address)).status());
        assertEquals(403, park.as("admin")
                .post("/api/v1/receivers", Map.of("name", "away", "address", "http://127.0.0.1:1/events")).status());
        assertEquals(400,
                park.as("admin")
                        .post("/api/v1/receivers",
                                Map.of("name", "odd", "address", address, "kinds", List.of("service.deploid")))
                        .status());
        String secret = park.paseo("admin", "receiver", "add", "park-log", "--address", address).out().strip();
        Repository repository = park.component();
        repository.push("developer", "main", Scenario.files());
        park.runEnds(1);
        Await.until("an attempt failed", () -> messages().path(0).path("attempts").path(0).has("error"));
        assertEquals("waiting", messages().path(0).path("state").asString());

        Process wrong = receiver("whsec_" + "AAAA".repeat(8));
        Await.until("it is not believed", () -> messages().toString().contains("\"status\":401"));
        wrong.destroy();
        wrong.waitFor();
        Process right = receiver(secret);
        try {
            park.liveIn("staging", "1.4.1");
            Await.until("everything is delivered", () -> {
                for (JsonNode message : messages()) {
                    if (!message.path("state").asString().equals("delivered")) {
                        park.as("admin").post(
                                "/api/v1/receivers/park-log/messages/" + message.path("id").asString("") + "/resend",
                                Map.of()).good();
                        return false;
                    }
                }
                return messages().size() == 5;
            });
            TreeSet<String> types = new TreeSet<>();
            for (JsonNode event : events()) {
                types.add(event.path("type").asString());
                assertEquals(event.path("id"), event.path("data").path("context").path("id"));
            }
            assertEquals(
                    new TreeSet<>(
                            List.of("dev.cdevents.artifact.packaged.0.2.0", "dev.cdevents.pipelinerun.finished.0.2.0",
                                    "dev.cdevents.pipelinerun.started.0.2.0", "dev.cdevents.service.deployed.0.2.0")),
                    types);
            int had = events().size();
            long first = messages().path(0).path("id").asLong();
            int attempts = messages().path(0).path("attempts").size();
            assertEquals(0, park.paseo("admin", "receiver", "resend", "park-log", Long.toString(first)).code());
            Await.until("it was sent again", () -> messages().path(0).path("attempts").size() > attempts);
            assertEquals(had, events().size(), "under the same number, so it counts once");
            assertTrue(park.paseo("admin", "receiver", "messages", "park-log").out().contains("answered 204"));
        } finally {
            right.destroy();
        }
        assertEquals(0, park.paseo("admin", "receiver", "stop", "park-log").code());
        int told = messages().size();
        repository.push("developer", "main", Map.of("note", "after"));
        park.runEnds(2);
        assertEquals(told, messages().size());
        headsAreToldToWhoNamesThem(address);
        whoTricklesItsAnswerIsNotWaitedFor(repository, address);
    }

    /** The other one, which named nothing, was told of everything but these. */
    private void headsAreToldToWhoNamesThem(String address) throws Exception {
        String secret = park.paseo("admin", "receiver", "add", "witness", "--address", address, "--kind", "audit.head")
                .out().strip();
        Process receiver = receiver(secret);
        try {
            Await.until("a head is told", () -> !heads().isEmpty());
        } finally {
            receiver.destroy();
        }
        JsonNode head = heads().getFirst().path("data");
        Path told = Files.writeString(park.folder.resolve("told.json"),
                "{\"head\":{\"at\":\"" + head.path("at").asString() + "\",\"root\":\"" + head.path("root").asString()
                        + "\",\"signature\":\"" + head.path("signature").asString() + "\",\"size\":"
                        + head.path("size").asLong() + "}}");
        Park.Said said = park.paseo("auditor", "audit", "verify", "--head", told.toString());
        assertEquals(0, said.code(), said.out());
        assertTrue(park.paseo("auditor", "audit", "witnesses").out().contains("the receiver witness"));
        assertEquals(0, park.paseo("admin", "receiver", "stop", "witness").code());
    }

    private List<JsonNode> heads() {
        try {
            return events().stream()
                    .filter(event -> event.path("type").asString().equals("dev.paseo.audit.head.1.0.0")).toList();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private void whoTricklesItsAnswerIsNotWaitedFor(Repository repository, String address) throws Exception {
        CountDownLatch over = new CountDownLatch(1);
        HttpServer trickling = HttpServer
                .create(new InetSocketAddress(InetAddress.getLoopbackAddress(), park.storePort), 0);
        trickling.setExecutor(Executors.newCachedThreadPool());
        trickling.createContext("/events", exchange -> {
            exchange.sendResponseHeaders(200, 0);
            try (OutputStream out = exchange.getResponseBody()) {
                do {
                    out.write('.');
                    out.flush();
                } while (!over.await(1, TimeUnit.SECONDS));
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        });
        trickling.start();
        try {
            assertEquals(0, park.paseo("admin", "receiver", "add", "trickling", "--address", address).code());
            repository.push("developer", "main", Map.of("note", "again"));
            Await.until("it is delivered all the same",
                    () -> park.as("admin").get("/api/v1/receivers/trickling/messages").good().path(0).path("state")
                            .asString("").equals("delivered"));
        } finally {
            over.countDown();
            trickling.stop(0);
        }
    }
}
