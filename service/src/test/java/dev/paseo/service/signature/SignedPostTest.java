package dev.paseo.service.signature;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.reach.Reach;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Against a real server on loopback, which is allowed as far as {@code /hooks}. */
class SignedPostTest {

    private static final Instant NOW = Instant.parse("2026-11-23T09:00:00Z");
    private static final String SECRET = "whsec_" + "c2lnbmVkLXdpdGgtdGhpcw==";

    private final BlockingQueue<Optional<String>> doubts = new LinkedBlockingQueue<>();
    private final CountDownLatch over = new CountDownLatch(1);
    private HttpServer server;
    private String address;
    private SignedPost post;

    @BeforeEach
    void open() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        address = "http://127.0.0.1:" + server.getAddress().getPort();
        server.createContext("/hooks", exchange -> {
            byte[] body = exchange.getRequestBody().readAllBytes();
            doubts.add(StandardWebhooks.reasonAgainst(SECRET, header(exchange, "webhook-id"),
                    header(exchange, "webhook-timestamp"), header(exchange, "webhook-signature"), body, NOW));
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.createContext("/hooks/elsewhere", exchange -> {
            exchange.getResponseHeaders().add("Location", address + "/private");
            exchange.sendResponseHeaders(307, -1);
            exchange.close();
        });
        server.createContext("/hooks/trickle", exchange -> {
            exchange.sendResponseHeaders(200, 0);
            exchange.getResponseBody().write('x');
            exchange.getResponseBody().flush();
            try {
                over.await();
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
            exchange.close();
        });
        server.createContext("/private", exchange -> {
            doubts.add(Optional.of("asked what is private"));
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.setExecutor(java.util.concurrent.Executors.newVirtualThreadPerTaskExecutor());
        server.start();
        Settings settings = mock(Settings.class);
        when(settings.allowedReceivers()).thenReturn(List.of(address + "/hooks"));
        ServiceClock clock = mock(ServiceClock.class);
        when(clock.outside()).thenReturn(NOW);
        post = new SignedPost(new Reach(settings), clock);
    }

    @AfterEach
    void close() {
        over.countDown();
        server.stop(0);
    }

    private static String header(HttpExchange exchange, String name) {
        return exchange.getRequestHeaders().getFirst(name);
    }

    private int send(String path) throws IOException, InterruptedException {
        return post.send(new SignedPost.Message(address + path, "application/json", "message-1", SECRET,
                "{\"what\":\"live\"}".getBytes(StandardCharsets.UTF_8)));
    }

    @Test
    void whatComesIsBelievedByWhoeverHasTheSecret() throws Exception {
        assertEquals(204, send("/hooks"));
        assertEquals(Optional.empty(), doubts.poll());
    }

    @Test
    void noRedirectIsFollowed() throws Exception {
        assertEquals(307, send("/hooks/elsewhere"));
        assertEquals(0, doubts.size(), "nothing else was asked");
    }

    @Test
    void whatIsNotAllowedIsNotAsked() {
        assertThrows(Refusal.class, () -> send("/private"));
        assertEquals(0, doubts.size());
    }

    @Test
    void whatComesAfterTheStatusIsNotWaitedFor() {
        assertEquals(200, assertTimeoutPreemptively(Duration.ofSeconds(10), () -> send("/hooks/trickle")));
    }

    @Test
    void whoIsNotThereIsAnErrorOfReaching() {
        server.stop(0);
        assertThrows(IOException.class, () -> send("/hooks"));
    }
}
