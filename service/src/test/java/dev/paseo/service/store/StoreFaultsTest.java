package dev.paseo.service.store;

import dev.paseo.service.change.Changes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.database.Rows;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.reach.Reach;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** A registry that means harm, or has too much. */
class StoreFaultsTest {

    private final Settings settings = mock(Settings.class);
    private final KeptBytes kept = mock(KeptBytes.class);
    private final CountDownLatch over = new CountDownLatch(1);
    private final AtomicInteger manifestsAsked = new AtomicInteger();
    private HttpServer server;
    private String address = "";

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(Executors.newCachedThreadPool());
        server.start();
        address = "http://127.0.0.1:" + server.getAddress().getPort();
        when(settings.allowedStores()).thenReturn(List.of(address));
    }

    @AfterEach
    void stop() {
        over.countDown();
        server.stop(0);
    }

    private RegistryStore store() {
        return new RegistryStore(
                new WatchedStore.Where(WatchedStore.Kind.REGISTRY, address, Optional.of("planner"), Optional.empty(),
                        Optional.empty(), "2.*", true),
                Optional.empty(), using());
    }

    private RegistryStore.Using using() {
        ServiceClock clock = mock(ServiceClock.class);
        when(clock.now()).thenReturn(Rows.NOON);
        return new RegistryStore.Using(new Web(new Reach(settings), kept, clock), kept, mock(Changes.class),
                JsonMapper.builder().build());
    }

    private static void answer(HttpExchange exchange, String body) throws IOException {
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(200, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    private void tags(String each) {
        server.createContext("/v2/planner/tags/list", exchange -> answer(exchange, "{\"tags\": [" + each + "]}"));
        server.createContext("/v2/planner/manifests/", exchange -> {
            manifestsAsked.incrementAndGet();
            answer(exchange, "{}");
        });
    }

    @Test
    void aHundredThousandTagsAreNotAskedForOneByOne() {
        tags(IntStream.range(0, 100_000).mapToObj(at -> "\"2." + at + "\"").collect(Collectors.joining(",")));
        Refusal refused = assertThrows(Refusal.class, () -> store().list(false));
        assertEquals(
                address + "/v2/planner has more than 1000 tags that “2.*” matches; name fewer by a narrower pattern",
                refused.getMessage());
        assertEquals(0, manifestsAsked.get());
    }

    @Test
    void theSameTagTwiceIsOneSighting() {
        tags("\"2.1\", \"2.1\", \"2.2\", \"2.1\", \"3.0\"");
        assertEquals(List.of("2.1", "2.2"), store().list(false).stream().map(WatchedStore.Sighting::number).toList());
        assertEquals(2, manifestsAsked.get());
    }

    private String refused() {
        return String.valueOf(assertThrows(Refusal.class, () -> store().list(false)).getMessage());
    }

    @Test
    void anArtifactThatIsAnnouncedTooLargeIsNotRead() {
        server.createContext("/large", exchange -> {
            exchange.sendResponseHeaders(200, Web.LARGEST + 1);
            exchange.getResponseBody().write('x');
            exchange.getResponseBody().flush();
        });
        Web web = new Web(new Reach(settings), mock(KeptBytes.class), mock(ServiceClock.class));
        assertEquals(address + "/large has more than 16 GB",
                assertThrows(Refusal.class,
                        () -> web.keep(java.net.URI.create(address + "/large"), java.util.Map.of(), Web.LARGEST))
                        .getMessage());
    }

    @Test
    void anAnswerWithoutEndIsNotKept() {
        tags("\"2." + "1".repeat(5 << 20) + "\"");
        assertEquals(address + "/v2/planner/tags/list?n=1000 answers with more than 4 MB", refused());
    }

    private void manifest(String name, String body, String digest) {
        server.createContext("/v2/planner/manifests/" + name, exchange -> {
            if (!digest.isEmpty()) {
                exchange.getResponseHeaders().add("Docker-Content-Digest", digest);
            }
            answer(exchange, body);
        });
    }

    @Test
    void aDigestThatIsNoneAndBytesThatHaveAnotherAreTold() {
        server.createContext("/v2/planner/tags/list", exchange -> answer(exchange, "{\"tags\": [\"2.1\"]}"));
        manifest("2.1", "{}", "md5:0");
        assertEquals(address + "/v2/planner/manifests/2.1 states the digest md5:0, which is not a SHA-256", refused());
        String asked = "sha256:" + "0".repeat(64);
        manifest(asked, "{}", "");
        String got = "sha256:" + Sha256.hex("{}");
        assertEquals(address + "/v2/planner/manifests/" + asked + " answered with other bytes: asked for " + asked
                + ", got " + got,
                Refused.by(Refusal.Kind.UNPROCESSABLE, () -> store().fetch(new WatchedStore.Sighting("2.1", asked))));
    }

    @Test
    void aLayerThatCannotBeKeptUnderItsTitleIsTold() {
        String body = "{\"layers\": [{\"digest\": \"md5:0\", \"annotations\": "
                + "{\"org.opencontainers.image.title\": \"planner.tgz\"}}]}";
        String asked = "sha256:" + Sha256.hex(body);
        manifest(asked, body, "");
        when(kept.keep(any(), anyLong(), any())).thenReturn(new ByteStore.StoredBytes(Sha256.hex(body), body.length()));
        assertEquals("A layer is titled “planner.tgz” with the digest “md5:0”",
                Refused.by(Refusal.Kind.UNPROCESSABLE, () -> store().fetch(new WatchedStore.Sighting("2.1", asked))));
    }

    @Test
    void anArtifactThatIsNotWhatItsChecksumSaysIsTold() {
        String path = "/example/park/planner/2.1/planner-2.1.jar";
        server.createContext(path, exchange -> answer(exchange, "other"));
        String got = Sha256.hex("other");
        when(kept.keep(any(), anyLong(), any())).thenReturn(new ByteStore.StoredBytes(got, 5));
        String stated = "sha256:" + "0".repeat(64);
        MavenStore store = new MavenStore(
                new WatchedStore.Where(WatchedStore.Kind.MAVEN, address, Optional.of("planner"),
                        Optional.of("example.park"), Optional.empty(), "2.*", true),
                using());
        assertEquals(address + path + " answered with other bytes: stated " + stated + ", got sha256:" + got,
                Refused.by(Refusal.Kind.UNPROCESSABLE, () -> store.fetch(new WatchedStore.Sighting("2.1", stated))));
    }

    @Test
    void whoeverAsksWhileTheServiceStopsIsToldWhatWasInterrupted() {
        Thread.currentThread().interrupt();
        assertEquals("The request to " + address + "/v2/planner/tags/list?n=1000 was interrupted", refused());
        assertTrue(Thread.interrupted(), "whoever stops it is heard further up");
    }

    @Test
    void whatIsNoRegistryIsTold() {
        server.createContext("/v2/planner/tags/list", exchange -> answer(exchange, "<html>"));
        assertEquals(address + "/v2/planner/tags/list?n=1000 does not answer with JSON: is it a registry?", refused());
    }

    @Test
    void whereNobodyListensNothingIsAnswered() {
        server.stop(0);
        assertEquals(address + "/v2/planner/tags/list?n=1000 does not answer: nobody listens there", refused());
    }

    @Test
    void whoSendsRoundInACircleIsLeft() {
        server.createContext("/v2/planner/tags/list", exchange -> {
            exchange.getResponseHeaders().add("Location", address + "/v2/planner/tags/list");
            exchange.sendResponseHeaders(302, -1);
            exchange.close();
        });
        assertEquals(address + "/v2/planner/tags/list redirected more than 3 times", refused());
    }

    @Test
    void pagesWithoutEndAreReadToAHundred() {
        AtomicInteger pages = new AtomicInteger();
        server.createContext("/v2/planner/tags/list", exchange -> {
            exchange.getResponseHeaders().add("Link",
                    "</v2/planner/tags/list?last=" + pages.incrementAndGet() + ">; rel=\"next\"");
            answer(exchange, "{\"tags\": [\"3.0\"]}");
        });
        assertEquals(List.of(), store().list(false));
        assertEquals(100, pages.get());
    }

    /** A byte a second would go on for ever. */
    @Test
    void whoTricklesIsCutOff() throws Exception {
        server.createContext("/slow", exchange -> {
            exchange.sendResponseHeaders(200, 0);
            try {
                do {
                    exchange.getResponseBody().write('.');
                    exchange.getResponseBody().flush();
                } while (!over.await(200, TimeUnit.MILLISECONDS));
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        });
        HttpResponse<InputStream> answer = HttpClient.newHttpClient().send(
                HttpRequest.newBuilder(URI.create(address + "/slow")).build(),
                HttpResponse.BodyHandlers.ofInputStream());
        try (InputStream body = Web.within(answer.body(), Duration.ofSeconds(1))) {
            IOException cut = assertThrows(IOException.class, () -> body.readNBytes(1 << 20));
            assertEquals("its answer did not end within 1 s", cut.getMessage());
        }
    }
}
