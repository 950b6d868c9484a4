package dev.paseo.agent.check;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.paseo.agent.process.StepProcess.StopSignal;
import dev.paseo.api.agent.Assignment;
import dev.paseo.api.agent.Assignment.Check;
import dev.paseo.api.agent.Assignment.CheckKind;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Checks against real servers, those that mean no good included. */
class ChecksTest {

    private static final StopSignal GO_ON = new StopSignal() {
        @Override
        public boolean wanted() {
            return false;
        }

        @Override
        public boolean atOnce() {
            return false;
        }
    };

    private static HttpServer server;
    private static String base;
    private static final AtomicInteger ASKED = new AtomicInteger();
    private final Checks checks = new Checks();

    @BeforeAll
    static void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        base = "http://127.0.0.1:" + server.getAddress().getPort();
        server.createContext("/health",
                exchange -> say(exchange, 200, "{\"status\":{\"code\":\"up\"},\"times\":[3,4]}"));
        server.createContext("/metrics", exchange -> say(exchange, 200,
                "# HELP x\nerrors_total{kind=\"light\"} 3\nerrors_total 7 1700000000\nbroken nothing\n"));
        server.createContext("/late", exchange -> say(exchange, ASKED.incrementAndGet() < 4 ? 503 : 200, "at last"));
        server.createContext("/circle", exchange -> redirect(exchange, "/circle"));
        server.createContext("/once", exchange -> redirect(exchange, "/health"));
        server.createContext("/credentials",
                exchange -> redirect(exchange, "http://169.254.169.254/latest/credentials"));
        server.createContext("/file", exchange -> redirect(exchange, "file:///etc/passwd"));
        server.createContext("/endless", exchange -> {
            exchange.sendResponseHeaders(200, 1L << 30);
            byte[] block = new byte[1 << 16];
            for (long sent = 0; sent < 1L << 30; sent += block.length) {
                exchange.getResponseBody().write(block);
            }
        });
        server.createContext("/trickle", exchange -> {
            exchange.sendResponseHeaders(200, 0);
            exchange.getResponseBody().write('x');
            exchange.getResponseBody().flush();
        });
        server.start();
    }

    @AfterAll
    static void stop() {
        server.stop(0);
    }

    private static void say(HttpExchange exchange, int status, String text) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "application/json; charset=utf-8");
        byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private static void redirect(HttpExchange exchange, String to) throws IOException {
        exchange.getResponseHeaders().set("Location", to);
        exchange.sendResponseHeaders(302, -1);
        exchange.close();
    }

    private static Check http(String path, int redirects, Map<String, String> header, Map<String, String> json,
            Optional<String> contains) {
        return new Check(CheckKind.HTTP, path.startsWith("http") ? path : base + path, 200, contains, header, json,
                redirects, Optional.empty(), 0);
    }

    private static Check plain(String path) {
        return http(path, 0, Map.of(), Map.of(), Optional.empty());
    }

    private void good(Check check) throws InterruptedException {
        assertEquals(Optional.empty(), checks.once(check));
    }

    private void bad(Check check, String why) throws InterruptedException {
        Optional<String> wrong = checks.once(check);
        assertTrue(wrong.orElse("nothing wrong").contains(why), wrong::toString);
    }

    /** Where clouds hand out credentials; also by a redirect. */
    @Test
    void whatTheLinkAloneHasIsNotAsked() throws Exception {
        bad(plain("http://169.254.169.254/latest/credentials"),
                "did not answer: 169.254.169.254, which is an address of the link alone: it is not asked");
        bad(http("/credentials", 1, Map.of(), Map.of(), Optional.empty()), "which is an address of the link alone");
        bad(plain("http://0.0.0.0:" + server.getAddress().getPort() + "/health"), "which is no address of one machine");
    }

    @Test
    void anAnswerMustBeAsItIsWanted() throws Exception {
        good(http("/health", 0, Map.of("content-type", "json"), Map.of("status.code", "up", "times.1", "4"),
                Optional.of("times")));
        bad(http("/health", 0, Map.of("X-Light", "high"), Map.of(), Optional.empty()), "X-Light missing");
        bad(http("/health", 0, Map.of(), Map.of("status.code", "down"), Optional.empty()),
                "answered up as status.code, not down");
        bad(http("/health", 0, Map.of(), Map.of("status", "up"), Optional.empty()), "no single value");
        bad(http("/health", 0, Map.of(), Map.of(), Optional.of("dusk")), "does not contain \"dusk\"");
        bad(http("/metrics", 0, Map.of(), Map.of("a", "b"), Optional.empty()), "answered no JSON");
        bad(plain("http://127.0.0.1:1/"), "did not answer");
        bad(plain("not an address"), "did not answer");
    }

    @Test
    void redirectsAreBounded() throws Exception {
        bad(plain("/once"), "answered 302, not 200");
        good(http("/once", 1, Map.of(), Map.of(), Optional.of("up")));
        bad(http("/circle", 5, Map.of(), Map.of(), Optional.empty()), "redirected more than 5 times");
        bad(http("/file", 5, Map.of(), Map.of(), Optional.empty()), "redirected to file:");
    }

    @Test
    void whoeverIsSilentTricklesOrNeverEndsIsCutOff() throws Exception {
        good(plain("/endless"));
        bad(plain("/trickle"), "did not end within 5 s");
        try (ServerSocket silent = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            bad(plain("http://127.0.0.1:" + silent.getLocalPort() + "/"), "did not answer");
        }
    }

    private static Check metric(String name, Double least, Double most) {
        return new Check(CheckKind.METRIC, base + "/metrics", 200, Optional.empty(), Map.of(), Map.of(), 0,
                Optional.of(new Assignment.Limits(name, Optional.ofNullable(least), Optional.ofNullable(most))), 0);
    }

    @Test
    void aNumberIsHeldAgainstItsLimits() throws Exception {
        good(metric("errors_total", null, 7.0));
        good(metric("errors_total{kind=\"light\"}", 3.0, 3.0));
        bad(metric("errors_total", null, 5.0), "tells errors_total 7.0, more than 5.0");
        bad(metric("errors_total", 8.0, null), "less than 8.0");
        bad(metric("errors", null, 5.0), "tells no errors");
        bad(metric("broken", null, 5.0), "tells no broken");
    }

    @Test
    void aPortTakesConnectionsOrDoesNot() throws Exception {
        good(new Check(CheckKind.PORT, base.substring("http://".length()), 0, Optional.empty(), Map.of(), Map.of(), 0,
                Optional.empty(), 0));
        bad(new Check(CheckKind.PORT, "127.0.0.1:1", 0, Optional.empty(), Map.of(), Map.of(), 0, Optional.empty(), 0),
                "takes no connection");
        bad(new Check(CheckKind.PORT, "nowhere", 0, Optional.empty(), Map.of(), Map.of(), 0, Optional.empty(), 0),
                "takes no connection");
    }

    @Test
    void itIsAskedUntilItAnswersOrItsTimeIsOver() throws Exception {
        Check late = plain("/late");
        assertEquals(Optional.empty(), checks.check(new Check(late.kind(), late.target(), 200, Optional.empty(),
                Map.of(), Map.of(), 0, Optional.empty(), 20_000), GO_ON));
        assertTrue(checks.check(plain("/nothing"), GO_ON).orElseThrow().contains("for 0 s"));
        assertTrue(checks.watch(List.of(plain("/nothing")), System.nanoTime() + 20_000_000_000L, GO_ON).orElseThrow()
                .contains("3 times in a row"));
        assertEquals(Optional.empty(), checks.watch(List.of(plain("/health")), System.nanoTime() + 1_000_000L, GO_ON));
    }
}
