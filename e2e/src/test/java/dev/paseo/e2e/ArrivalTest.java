package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Versions that were built elsewhere: published by the client, and seen in watched stores. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ArrivalTest {

    private static final String RECIPE = """
            deployment:
              artifacts: [berth-planner]
              on-each-host: ['cp "$PASEO_ARTIFACTS"/berth-planner/* "$PASEO_HOST_FOLDER/version"']
              removal: ['rm -f "$PASEO_HOST_FOLDER/version"']
            route:
              - test: automatic
            """;

    private Harbour harbour;
    private Path dist;

    @BeforeAll
    void open() throws Exception {
        harbour = Harbour.open("--paseo.poll=1s");
        dist = Files.createDirectories(harbour.folder.resolve("dist"));
        Files.createDirectories(harbour.folder.resolve("drop"));
    }

    @AfterAll
    void close() {
        harbour.close();
    }

    private void register(String name, String more) {
        harbour.as("release-engineer").post("/api/v1/components", Map.of("name", name, "text", "paseo: 1\ncomponent: " + name + "\nversions: \"2.{serial}\"\n" + more,
                "trusted", List.of("main"), "allowed", List.of(), "secrets", List.of())).good();
    }

    private void place(String name) {
        harbour.as("admin").put("/api/v1/environments", Map.of("text", """
                environments:
                  test:
                    components:
                      %s:
                        hosts: {test-1: {url: "%s"}}
                """.formatted(name, harbour.hostAddress("test-1")))).good();
    }

    private Path file(String name, String content) throws IOException {
        return Files.writeString(dist.resolve(name), content);
    }

    private List<JsonNode> events(String component) {
        return StreamSupport.stream(harbour.as("developer").get("/api/v1/components/" + component + "/events").body().spliterator(), false).toList();
    }

    private Client publisher(String component) {
        String token = harbour.paseo("release-engineer", "component", "token", component, "--label", "yard").out().strip();
        return new Client(harbour.address(), token);
    }

    @Test
    void whatIsPublishedWalksAndTheSameBytesAreTakenOnce() throws Exception {
        register("berth-planner", RECIPE);
        place("berth-planner");
        Path archive = file("berth-planner-2.3.0.tgz", "planner 2.3.0\n");
        Harbour.Said said = harbour.paseo("release-engineer", "publish", "berth-planner", "2.3.0", archive.toString(), "--author", "developer@harbour.example");
        assertEquals("berth-planner 2.3.0 is published.\n", said.out());
        Await.until("it is live in test", () -> harbour.live("test").equals(Optional.of("2.3.0")));
        assertEquals("planner 2.3.0", harbour.installed("test-1"));
        assertEquals("berth-planner 2.3.0 is here already, with the same bytes.\n",
                harbour.paseo("release-engineer", "publish", "berth-planner", "2.3.0", archive.toString()).out());
        Files.writeString(archive, "other bytes\n");
        String refused = harbour.paseo("release-engineer", "publish", "berth-planner", "2.3.0", archive.toString()).out();
        assertTrue(refused.contains(Registry.sha256("planner 2.3.0\n".getBytes(StandardCharsets.UTF_8)))
                && refused.contains(Registry.sha256("other bytes\n".getBytes(StandardCharsets.UTF_8))), refused);
        String why = harbour.paseo("developer", "why", "berth-planner", "2.3.0").out();
        assertTrue(why.contains("because of the arrival of berth-planner 2.3.0 by upload, sent by release-engineer"), why);
        assertTrue(harbour.paseo("developer", "why", "berth-planner", "2.3.0", "--forward").out().contains("into test live"));
        assertTrue(harbour.paseo("release-engineer", "publish", "berth-planner", "2.3.1", "app=" + archive).out().contains("the recipe of berth-planner deploys berth-planner"));
    }

    @Test
    void aTokenToPublishDoesNothingElse() throws Exception {
        register("crane", "");
        register("dredger", "");
        Client yard = publisher("crane");
        assertEquals(403, yard.get("/api/v1/components").status());
        assertEquals(403, yard.get("/api/v1/versions/crane").status());
        assertEquals(403, yard.post("/api/v1/components/dredger/uploads", announced("1.0", "app", "bytes")).status());
        assertEquals(201, yard.post("/api/v1/components/crane/uploads", announced("1.0", "app", "bytes")).status());
        assertEquals(403, harbour.as("developer").post("/api/v1/components/crane/uploads", announced("1.0", "app", "bytes")).status());
    }

    private static Map<String, Object> announced(String number, String name, String content) {
        byte[] bytes = content.getBytes(StandardCharsets.UTF_8);
        return Map.of("number", number, "files", List.of(Map.of("kind", "artifact", "name", name, "fileName", name + ".bin",
                "size", bytes.length, "digest", Registry.sha256(bytes).substring(7))));
    }

    @Test
    void anUploadThatIsCutOffGoesOnAndTwoAtOnceAreOne() throws Exception {
        register("buoy", "");
        Client yard = publisher("buoy");
        String content = "0123456789".repeat(10_000);
        long id = yard.post("/api/v1/components/buoy/uploads", announced("1.0", "app", content)).good().path("id").asLong();
        cutOff(id, yard.token(), content);
        Await.until("what arrived is counted", () -> received(yard, id) > 0);
        long received = received(yard, id);
        assertTrue(received < content.length(), "cut off at " + received);
        assertEquals(409, yard.post("/api/v1/uploads/" + id + "/seal", Map.of()).status());
        assertEquals(409, send(yard, id, 0, content).status(), "not from the beginning again");
        assertEquals(200, send(yard, id, received, content.substring((int) received)).status());
        List<CompletableFuture<Integer>> two = List.of(CompletableFuture.supplyAsync(() -> yard.post("/api/v1/uploads/" + id + "/seal", Map.of()).status()),
                CompletableFuture.supplyAsync(() -> yard.post("/api/v1/uploads/" + id + "/seal", Map.of()).status()));
        assertEquals(List.of(200, 200), two.stream().map(CompletableFuture::join).toList());
        assertEquals(content, harbour.as("developer").text("/api/v1/versions/buoy/1.0/artifacts/app"));
        assertEquals(1, harbour.as("developer").get("/api/v1/versions/buoy").body().size());

        long other = yard.post("/api/v1/components/buoy/uploads", announced("1.1", "app", "right")).good().path("id").asLong();
        Client.Answer wrong = send(yard, other, 0, "wrong");
        assertTrue(wrong.status() == 422 && wrong.detail().contains("announced as sha256:"), wrong.toString());
        assertEquals(200, send(yard, other, 0, "right").status());
        assertEquals(413, send(yard, yard.post("/api/v1/components/buoy/uploads", announced("1.2", "app", "ab")).good().path("id").asLong(), 0, "abc").status());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "../1 | artifact | app    | app.bin   | 5  | a version's number has",
        "1.0  | artifact | App    | app.bin   | 5  | has small letters",
        "1.0  | artifact | app    | ../app    | 5  | a file's own name has no slash",
        "1.0  | artifact | app    | .hidden   | 5  | a file's own name has no slash",
        "1.0  | artifact | app    | app.bin   | -1 | a file has 0 to",
        "1.0  | program  | app    | app.bin   | 5  | should be artifact, bundle, tests, coverage or findings",
        "1.0  | tests    | tests  | t.tar     | 5  | an upload has 1 to 200 files, one of them an artifact"})
    void anUploadThatCannotBecomeAVersionIsRefusedBeforeAByteIsSent(String number, String kind, String name, String fileName, long size, String expected) {
        if (harbour.as("developer").get("/api/v1/components/lighter").status() == 404) {
            register("lighter", "");
        }
        Client.Answer answer = harbour.as("release-engineer").post("/api/v1/components/lighter/uploads", Map.of("number", number, "files", List.of(Map.of("kind", kind, "name", name,
                "fileName", fileName, "size", size, "digest", "0".repeat(64)))));
        assertTrue(answer.status() == 400 && answer.detail().startsWith(expected), answer.toString());
        assertEquals(0, harbour.as("developer").get("/api/v1/versions/lighter").body().size());
    }

    private static long received(Client yard, long id) {
        return yard.get("/api/v1/uploads/" + id).good().path("files").path(0).path("received").asLong();
    }

    private static Client.Answer send(Client yard, long id, long offset, String content) {
        return yard.bytes("/api/v1/uploads/" + id + "/files/artifact/app", offset, content.getBytes(StandardCharsets.UTF_8));
    }

    /** Announces all of the bytes, sends half of them, and cuts the connection. */
    private void cutOff(long id, String token, String content) throws IOException {
        URI address = URI.create(harbour.address());
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.getOutputStream().write(("PUT /api/v1/uploads/" + id + "/files/artifact/app HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer " + token
                    + "\r\nContent-Type: application/octet-stream\r\nUpload-Offset: 0\r\nContent-Length: " + content.length() + "\r\n\r\n"
                    + content.substring(0, content.length() / 2)).getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream().flush();
        }
    }

    @Test
    void anArrivalStartsARunWhoseReportsJoinItAndThenItWalks() throws Exception {
        register("lock-gate", "starts:\n  - arrival: true\nstages:\n  look:\n    steps: ['cat arrived/berth-planner/*; mkdir out', 'printf \"<testsuite><testcase name=\\\"fits\\\"/></testsuite>\" > out/t.xml']\n"
                + "    reports: {tests: out/*.xml}\n" + RECIPE);
        place("lock-gate");
        Path archive = file("berth-planner-5.0.tgz", "gate 5\n");
        assertEquals(0, harbour.paseo("release-engineer", "publish", "lock-gate", "5.0", archive.toString()).code());
        harbour.runEnds("lock-gate", 1);
        assertEquals("passed", harbour.run("lock-gate", 1).path("run").path("status").asString(), harbour.run("lock-gate", 1).toString());
        assertTrue(harbour.log("lock-gate", 1, "look").contains("gate 5"));
        Await.until("it walks", () -> harbour.as("developer").get("/api/v1/whereabouts").body().toString().contains("\"5.0\""));
        assertEquals("tests", harbour.as("developer").get("/api/v1/versions/lock-gate/5.0").body().path("evidence").path(0).path("kind").asString());
        assertEquals(1, harbour.as("developer").get("/api/v1/versions/lock-gate").body().size(), "the run sealed nothing of its own");
    }

    private JsonNode sightings(String component) {
        return harbour.as("developer").get("/api/v1/components/" + component + "/stores").good().path(0);
    }

    private JsonNode sighting(String component, String name) {
        for (JsonNode each : sightings(component).path("sightings")) {
            if (each.path("name").asString().equals(name)) {
                return each;
            }
        }
        return sightings(component).path("nothing");
    }

    @Test
    void aRegistryIsWatchedByDigestAndAMovedTagIsTold() throws Exception {
        register("pilot", "");
        try (Registry registry = new Registry(harbour.folder.resolve("registry"), harbour.storePort)) {
            registry.push("harbour/pilot", "2.0.0", "pilot-2.0.0.tgz", "old");
            assertEquals(0, harbour.paseo("release-engineer", "component", "watch", "pilot", "--registry", registry.address(), "--name", "harbour/pilot",
                    "--pattern", "2.*").code());
            Await.until("what was there is known", () -> sighting("pilot", "2.0.0").has("reason"));
            String digest = registry.push("harbour/pilot", "2.4.0", "pilot-2.4.0.tgz", "pilot 2.4.0");
            registry.push("harbour/pilot", "nightly", "pilot.tgz", "not wanted");
            Await.until("the tag became a version", () -> sighting("pilot", "2.4.0").has("version"));
            JsonNode version = harbour.as("developer").get("/api/v1/versions/pilot/2.4.0").good();
            Map<String, String> artifacts = new HashMap<>();
            version.path("artifacts").forEach(each -> artifacts.put(each.path("name").asString(), "sha256:" + each.path("digest").asString()));
            assertEquals(Map.of("manifest", digest, "pilot", Registry.sha256("pilot 2.4.0".getBytes(StandardCharsets.UTF_8))), artifacts);
            assertEquals("pilot 2.4.0", harbour.as("developer").text("/api/v1/versions/pilot/2.4.0/artifacts/pilot"));
            registry.push("harbour/pilot", "2.4.0", "pilot-2.4.0.tgz", "something else");
            Await.until("the moved tag is told", () -> sighting("pilot", "2.4.0").path("reason").asString("").contains("what was sealed stays"));
            assertEquals("pilot 2.4.0", harbour.as("developer").text("/api/v1/versions/pilot/2.4.0/artifacts/pilot"));
            assertEquals(1, harbour.as("developer").get("/api/v1/versions/pilot").body().size());
        }
    }

    /** A server that answers paths with what is in the map, and 404 else. */
    private static HttpServer answering(int port, Map<String, byte[]> answers) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", exchange -> {
            byte[] body = answers.get(exchange.getRequestURI().getPath());
            exchange.sendResponseHeaders(body == null ? 404 : 200, body == null ? -1 : body.length);
            exchange.getResponseBody().write(body == null ? new byte[0] : body);
            exchange.close();
        });
        server.start();
        return server;
    }

    @Test
    void otherBytesThanTheDigestAreRefusedAndAnAwayStoreIsTold() throws Exception {
        register("tug", "");
        Map<String, byte[]> answers = new ConcurrentHashMap<>();
        HttpServer server = answering(0, answers);
        String address = "http://127.0.0.1:" + server.getAddress().getPort();
        assertEquals(403, harbour.as("release-engineer").post("/api/v1/components/tug/stores", Map.of("kind", "registry", "address", address, "name", "harbour/tug",
                "pattern", "*")).status(), "only what an operator allows");
        server.stop(0);
        HttpServer allowed = answering(harbour.storePort, answers);
        try {
            String layer = Registry.sha256("what was promised".getBytes(StandardCharsets.UTF_8));
            byte[] manifest = ("{\"layers\":[{\"digest\":\"" + layer + "\",\"annotations\":{\"org.opencontainers.image.title\":\"tug-1.0.tgz\"}}]}").getBytes(StandardCharsets.UTF_8);
            String where = "/v2/harbour/tug";
            answers.put(where + "/tags/list", "{\"tags\":[\"1.0\"]}".getBytes(StandardCharsets.UTF_8));
            answers.put(where + "/manifests/1.0", manifest);
            answers.put(where + "/manifests/" + Registry.sha256(manifest), manifest);
            answers.put(where + "/blobs/" + layer, "what came".getBytes(StandardCharsets.UTF_8));
            harbour.as("release-engineer").post("/api/v1/components/tug/stores", Map.of("kind", "registry", "address", "http://127.0.0.1:" + harbour.storePort,
                    "name", "harbour/tug", "pattern", "*", "existing", true)).good();
            Await.until("the other bytes are refused", () -> sighting("tug", "1.0").path("reason").asString("").contains("answered with other bytes"));
            assertEquals(0, harbour.as("developer").get("/api/v1/versions/tug").body().size());
            answers.remove(where + "/tags/list");
            Await.until("the store is away", () -> sightings("tug").path("error").asString("").contains("answered 404"));
        } finally {
            allowed.stop(0);
        }
    }

    @Test
    void aFolderAndAMavenRepositoryAreWatched() throws Exception {
        register("ferry", "");
        Path drop = harbour.folder.resolve("drop");
        harbour.as("release-engineer").post("/api/v1/components/ferry/stores", Map.of("kind", "folder", "address", "file://" + drop,
                "pattern", "ferry-{version}.tgz")).good();
        Await.until("the folder was looked at", () -> sightings("ferry").has("lookedAt"));
        Files.writeString(drop.resolve("ferry-3.1.tgz"), "ferry 3.1");
        Files.writeString(drop.resolve("other.tgz"), "no");
        Files.createSymbolicLink(drop.resolve("ferry-6.6.tgz"), Path.of("/etc/hostname"));
        Await.until("the file became a version", () -> sighting("ferry", "3.1").has("version"));
        assertEquals("ferry 3.1", harbour.as("developer").text("/api/v1/versions/ferry/3.1/artifacts/ferry"));
        Files.writeString(drop.resolve("ferry-3.1.tgz"), "ferry 3.1, changed");
        Files.setLastModifiedTime(drop.resolve("ferry-3.1.tgz"), FileTime.fromMillis(1_000_000));
        Await.until("the change is told", () -> sighting("ferry", "3.1").path("reason").asString("").contains("what was sealed stays"));
        assertEquals(1, harbour.as("developer").get("/api/v1/versions/ferry").body().size());
        assertTrue(events("ferry").stream().anyMatch(event -> event.path("sentence").asString().equals("ferry 3.1 arrived in the watched folder file://" + drop)));

        register("winch", "");
        Map<String, byte[]> answers = new ConcurrentHashMap<>();
        HttpServer maven = answering(harbour.storePort, answers);
        try {
            answers.put("/releases/harbour/berths/winch/maven-metadata.xml", ("<metadata><versioning><versions><version>1.0</version><version>1.1-SNAPSHOT</version>"
                    + "</versions></versioning></metadata>").getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/harbour/berths/winch/1.0/winch-1.0.jar", "winch".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/harbour/berths/winch/1.0/winch-1.0.jar.sha1", "0123456789012345678901234567890123456789".getBytes(StandardCharsets.UTF_8));
            harbour.as("release-engineer").post("/api/v1/components/winch/stores", Map.of("kind", "maven", "address", "http://127.0.0.1:" + harbour.storePort + "/releases",
                    "group", "harbour.berths", "name", "winch", "pattern", "*", "existing", true)).good();
            Await.until("the wrong checksum is told", () -> sighting("winch", "1.0").path("reason").asString("").contains("stated sha1:0123"));
            answers.put("/releases/harbour/berths/winch/maven-metadata.xml", "<metadata><version>1.2</version></metadata>".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/harbour/berths/winch/1.2/winch-1.2.jar", "winch 1.2".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/harbour/berths/winch/1.2/winch-1.2.jar.sha256", Registry.sha256("winch 1.2".getBytes(StandardCharsets.UTF_8)).substring(7).getBytes(StandardCharsets.UTF_8));
            Await.until("the next version is sealed", () -> sighting("winch", "1.2").has("version"));
            assertEquals("winch 1.2", harbour.as("developer").text("/api/v1/versions/winch/1.2/artifacts/winch"));
        } finally {
            maven.stop(0);
        }
    }
}
