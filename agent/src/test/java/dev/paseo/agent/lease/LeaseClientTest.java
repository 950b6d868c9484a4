package dev.paseo.agent.lease;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/** Bytes under a lease, from a service that answers as it should not. */
class LeaseClientTest {

    @TempDir
    private Path folder;

    private final AtomicInteger askedElsewhere = new AtomicInteger();
    private HttpServer server;
    private LeaseClient client;

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/elsewhere", exchange -> {
            askedElsewhere.incrementAndGet();
            exchange.sendResponseHeaders(200, -1);
            exchange.close();
        });
        server.start();
        client = new LeaseClient(HttpClient.newHttpClient(), JsonMapper.builder().build(),
                URI.create("http://127.0.0.1:" + server.getAddress().getPort()), "token");
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    @Test
    void aRedirectIsRefusedAndNotFollowed() {
        server.createContext("/agent/v1/lease/bytes/", exchange -> {
            exchange.getResponseHeaders().set("Location", "/elsewhere");
            exchange.sendResponseHeaders(302, -1);
            exchange.close();
        });
        assertThrows(LeaseClient.Refused.class, () -> client.bytes("d", folder.resolve("file")));
        assertEquals(0, askedElsewhere.get());
        assertFalse(Files.exists(folder.resolve("file")));
    }

    @Test
    void aBodyCutShortIsNotTakenForTheWhole() {
        server.createContext("/agent/v1/lease/bytes/", exchange -> {
            exchange.sendResponseHeaders(200, 1000);
            exchange.getResponseBody().write(new byte[400]);
            exchange.close();
        });
        assertThrows(IOException.class, () -> client.bytes("d", folder.resolve("file")));
    }
}
