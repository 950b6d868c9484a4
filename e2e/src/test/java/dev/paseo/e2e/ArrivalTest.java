package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
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
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;

/** Versions that were built elsewhere: published by the client, and seen in observed stores. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class ArrivalTest {

    private static final String RECIPE = """
            deployment:
              artifacts: [hut-planner]
              on-each-host: ['cp "$PASEO_ARTIFACTS"/hut-planner/* "$PASEO_HOST_FOLDER/version"']
              removal: ['rm -f "$PASEO_HOST_FOLDER/version"']
            route:
              - test: automatic
            """;

    private Park park;
    private Path dist;

    @BeforeAll
    void open() throws Exception {
        park = Park.open("--paseo.poll=1s");
        dist = Files.createDirectories(park.folder.resolve("dist"));
        Files.createDirectories(park.folder.resolve("drop"));
    }

    @AfterAll
    void close() {
        park.close();
    }

    private void register(String name, String more) {
        park.as("release-engineer")
                .post("/api/v1/components",
                        Map.of("name", name, "text",
                                "paseo: 1\ncomponent: " + name + "\nversions: \"2.{serial}\"\n" + more,
                                "trusted", List.of("main"), "allowed", List.of(), "secrets", List.of()))
                .good();
    }

    private void place(String name) {
        park.as("admin").put("/api/v1/environments", Map.of("text", """
                environments:
                  test:
                    uploads: true
                    components:
                      %s:
                        hosts: {test-1: {url: "%s"}}
                """.formatted(name, park.hostAddress("test-1")), "loosen", true)).good();
    }

    private Path file(String name, String content) throws IOException {
        return Files.writeString(dist.resolve(name), content);
    }

    private List<JsonNode> events(String component) {
        return StreamSupport
                .stream(park.as("developer").get("/api/v1/components/" + component + "/events").body().spliterator(),
                        false)
                .toList();
    }

    private Client publisher(String component) {
        String token = park.paseo("release-engineer", "component", "token", component, "--description", "works").out()
                .strip();
        return new Client(park.address(), token);
    }

    @Test
    void whatIsPublishedWalksAndTheSameBytesAreTakenOnce() throws Exception {
        register("hut-planner", RECIPE);
        place("hut-planner");
        Path archive = file("hut-planner-2.3.0.tgz", "planner 2.3.0\n");
        Park.Said said = park.paseo("release-engineer", "publish", "hut-planner", "2.3.0", archive.toString(),
                "--author", "developer@park.example");
        assertEquals("hut-planner 2.3.0 is published.\n", said.out());
        JsonNode kept = park.as("developer").get("/api/v1/components/hut-planner/pipeline").good();
        assertTrue(kept.path("text").asString().startsWith("paseo: 1\ncomponent: hut-planner\n")
                && kept.path("commit").asString().equals("revision 1"), "its file can be read back: " + kept);
        assertEquals(1, park.as("developer").get("/api/v1/components/hut-planner/pipeline/history").good().size());
        Await.until("it is live in test", () -> park.live("hut-planner", "test").equals(Optional.of("2.3.0")));
        assertEquals("planner 2.3.0", park.installed("test-1"));
        assertEquals("hut-planner 2.3.0 is here already, with the same bytes.\n",
                park.paseo("release-engineer", "publish", "hut-planner", "2.3.0", archive.toString()).out());
        Files.writeString(archive, "other bytes\n");
        String refused = park.paseo("release-engineer", "publish", "hut-planner", "2.3.0", archive.toString()).out();
        assertTrue(refused.contains(Registry.sha256("planner 2.3.0\n".getBytes(StandardCharsets.UTF_8)))
                && refused.contains(Registry.sha256("other bytes\n".getBytes(StandardCharsets.UTF_8))), refused);
        String why = park.paseo("developer", "why", "hut-planner", "2.3.0").out();
        assertTrue(why.contains("because of the arrival of hut-planner 2.3.0 by upload, sent by release-engineer"),
                why);
        assertTrue(
                park.paseo("developer", "why", "hut-planner", "2.3.0", "--forward").out().contains("into test live"));
        assertTrue(park.paseo("release-engineer", "publish", "hut-planner", "2.3.1", "app=" + archive).out()
                .contains("The recipe of hut-planner deploys hut-planner"));
    }

    @Test
    void aTokenToPublishDoesNothingElse() throws Exception {
        register("sawmill", "");
        register("plough", "");
        Client works = publisher("sawmill");
        assertEquals(
                "release-engineer may not see components, runs, versions, deployments and the audit trail: this "
                        + "token may publish versions that were built elsewhere of sawmill, and nothing else",
                works.get("/api/v1/components").detail());
        assertEquals(403, works.get("/api/v1/versions/sawmill").status());
        assertEquals(403, works.post("/api/v1/components/plough/uploads", announced("1.0", "app", "bytes")).status());
        assertEquals(201, works.post("/api/v1/components/sawmill/uploads", announced("1.0", "app", "bytes")).status());
        assertEquals(403, park.as("developer")
                .post("/api/v1/components/sawmill/uploads", announced("1.0", "app", "bytes")).status());
    }

    private static Map<String, Object> announced(String number, String name, String content) {
        byte[] bytes = content.getBytes(StandardCharsets.UTF_8);
        return Map.of("number", number, "files",
                List.of(Map.of("kind", "artifact", "name", name, "fileName", name + ".bin",
                        "size", bytes.length, "digest", Registry.sha256(bytes).substring(7))));
    }

    @Test
    void anUploadThatIsCutOffGoesOnAndTwoAtOnceAreOne() throws Exception {
        register("cairn", "");
        Client works = publisher("cairn");
        String content = "0123456789".repeat(10_000);
        long id = works.post("/api/v1/components/cairn/uploads", announced("1.0", "app", content)).good().path("id")
                .asLong();
        cutOff(id, works.token(), content);
        Await.until("what arrived is counted", () -> received(works, id) > 0);
        long received = received(works, id);
        assertTrue(received < content.length(), "cut off at " + received);
        assertEquals(409, works.post("/api/v1/uploads/" + id + "/seal", Map.of()).status());
        assertEquals(409, send(works, id, 0, content).status(), "not from the beginning again");
        assertEquals(200, send(works, id, received, content.substring((int) received)).status());
        List<CompletableFuture<Integer>> two = List.of(
                CompletableFuture.supplyAsync(() -> works.post("/api/v1/uploads/" + id + "/seal", Map.of()).status()),
                CompletableFuture.supplyAsync(() -> works.post("/api/v1/uploads/" + id + "/seal", Map.of()).status()));
        assertEquals(List.of(200, 200), two.stream().map(CompletableFuture::join).toList());
        assertEquals(content, park.as("developer").text("/api/v1/versions/cairn/1.0/artifacts/app"));
        assertEquals(1, park.as("developer").get("/api/v1/versions/cairn").body().size());

        long other = works.post("/api/v1/components/cairn/uploads", announced("1.1", "app", "right")).good().path("id")
                .asLong();
        Client.Answer wrong = send(works, other, 0, "wrong");
        assertTrue(wrong.status() == 422 && wrong.detail().contains("announced as sha256:"), wrong.toString());
        assertEquals(200, send(works, other, 0, "right").status());
        assertEquals(413, send(works, works.post("/api/v1/components/cairn/uploads", announced("1.2", "app", "ab"))
                .good().path("id").asLong(), 0, "abc").status());
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "../1 | artifact | app    | app.bin   | 5  | A version's number has",
            "1.0  | artifact | App    | app.bin   | 5  | has small letters",
            "1.0  | artifact | app    | ../app    | 5  | A file's own name has no slash",
            "1.0  | artifact | app    | .hidden   | 5  | A file's own name has no slash",
            "1.0  | artifact | app    | app.bin   | -1 | A file has at most 16 GB; got -1 bytes",
            "1.0  | program  | app    | app.bin   | 5  | should be artifact, bundle, tests, coverage, findings or",
            "1.0  | artifact | app    | app.bin   | 16000000001 | A file has at most 16 GB",
            "1.0  | tests    | tests  | t.tar     | 5  | An upload has 1 to 200 files, one of them an artifact"})
    void anUploadThatCannotBecomeAVersionIsRefusedBeforeAByteIsSent(String number, String kind, String name,
            String fileName, long size, String expected) {
        if (park.as("developer").get("/api/v1/components/lighter").status() == 404) {
            register("lighter", "");
        }
        Client.Answer answer = park.as("release-engineer").post("/api/v1/components/lighter/uploads",
                Map.of("number", number, "files", List.of(Map.of("kind", kind, "name", name,
                        "fileName", fileName, "size", size, "digest", "0".repeat(64)))));
        assertTrue(answer.status() == 400 && answer.detail().startsWith(expected), answer.toString());
        assertEquals(0, park.as("developer").get("/api/v1/versions/lighter").body().size());
    }

    private static byte[] tar(String name, String text, byte kind) throws IOException {
        java.io.ByteArrayOutputStream bytes = new java.io.ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            if (!name.isEmpty()) {
                TarArchiveEntry entry = new TarArchiveEntry(name, kind);
                entry.setSize(kind == '0' ? text.length() : 0);
                tar.putArchiveEntry(entry);
                tar.write(kind == '0' ? text.getBytes(StandardCharsets.UTF_8) : new byte[0]);
                tar.closeArchiveEntry();
            }
        }
        return bytes.toByteArray();
    }

    /** One entry more than is taken. */
    private static byte[] many() throws IOException {
        java.io.ByteArrayOutputStream bytes = new java.io.ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            for (int at = 0; at <= 10_000; at++) {
                tar.putArchiveEntry(new TarArchiveEntry("deploy/" + at));
                tar.closeArchiveEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static String hex(byte[] bytes) {
        return Registry.sha256(bytes).substring("sha256:".length());
    }

    static Stream<Arguments> unfit() throws IOException {
        return Stream.of(
                Arguments.of("bundle", tar("../outside.sh", "x", (byte) '0'),
                        "Their archive holds ../outside.sh, which lies outside its folder"),
                Arguments.of("bundle", tar("pipe", "", (byte) '6'),
                        "Their archive holds pipe, which is neither a file nor a folder nor a symbolic link"),
                Arguments.of("bundle", "no archive at all".getBytes(StandardCharsets.UTF_8), "A tar archive is wanted"),
                Arguments.of("bundle", tar("", "", (byte) '0'), "A tar archive is wanted, and this one holds no file"),
                Arguments.of("bundle", many(), "The archive of the recipe's files has more than 10000 files"),
                Arguments.of("tests", tar("", "", (byte) '0'), "reports tests: the archive holds no file"),
                Arguments.of("tests", tar("notes.txt", "no report", (byte) '0'),
                        "reports tests: notes.txt:1:1 not well-formed XML"),
                Arguments.of("tests", tar("a.xml", "<!DOCTYPE x><testsuite/>", (byte) '0'), "has a document type"),
                Arguments.of("coverage", tar("c.xml", "<testsuite/>", (byte) '0'),
                        "neither JaCoCo XML (<report>) nor Cobertura XML (<coverage>)"),
                Arguments.of("findings", tar("f.sarif", "{", (byte) '0'), "reports findings: f.sarif"));
    }

    /** What comes with a version is read before it is sealed; otherwise nothing is, and it says why. */
    @ParameterizedTest
    @MethodSource("unfit")
    void whatComesWithAVersionIsReadBeforeItIsSealed(String kind, byte[] bytes, String expected) throws Exception {
        if (park.as("developer").get("/api/v1/components/wary").status() == 404) {
            register("wary", "");
        }
        Client works = park.as("release-engineer");
        String number = "1." + hex(bytes).substring(0, 12) + "." + kind;
        byte[] app = "app".getBytes(StandardCharsets.UTF_8);
        long id = works.post("/api/v1/components/wary/uploads", Map.of("number", number, "files", List.of(
                Map.of("kind", "artifact", "name", "app", "fileName", "app.bin", "size", app.length, "digest",
                        hex(app)),
                Map.of("kind", kind, "name", "beside", "fileName", "beside.tar", "size", bytes.length, "digest",
                        hex(bytes)))))
                .good().path("id").asLong();
        works.bytes("/api/v1/uploads/" + id + "/files/artifact/app", 0, app).good();
        works.bytes("/api/v1/uploads/" + id + "/files/" + kind + "/beside", 0, bytes).good();
        Client.Answer sealed = works.post("/api/v1/uploads/" + id + "/seal", Map.of());
        assertEquals(expected.contains("more than") ? 413 : 422, sealed.status(), sealed.toString());
        assertTrue(sealed.detail().contains(expected), sealed.detail());
        assertEquals(404, works.get("/api/v1/versions/wary/" + number).status());
    }

    private static long received(Client works, long id) {
        return works.get("/api/v1/uploads/" + id).good().path("files").path(0).path("received").asLong();
    }

    private static Client.Answer send(Client works, long id, long offset, String content) {
        return works.bytes("/api/v1/uploads/" + id + "/files/artifact/app", offset,
                content.getBytes(StandardCharsets.UTF_8));
    }

    /** Announces all of the bytes, sends half of them, and cuts the connection. */
    private void cutOff(long id, String token, String content) throws IOException {
        URI address = URI.create(park.address());
        try (Socket socket = new Socket(address.getHost(), address.getPort())) {
            socket.getOutputStream()
                    .write(("PUT /api/v1/uploads/" + id
                            + "/files/artifact/app HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer " + token
                            + "\r\nContent-Type: application/octet-stream\r\nUpload-Offset: 0\r\nContent-Length: "
                            + content.length() + "\r\n\r\n"
                            + content.substring(0, content.length() / 2)).getBytes(StandardCharsets.UTF_8));
            socket.getOutputStream().flush();
        }
    }

    @Test
    void anArrivalStartsARunWhoseReportsJoinItAndThenItWalks() throws Exception {
        register("foot-gate",
                "starts:\n  - arrival: true\nstages:\n  look:\n    steps: ['cat arrived/hut-planner/*; mkdir out', "
                        + "'printf \"<testsuite><testcase name=\\\"fits\\\"/></testsuite>\" > out/t.xml']\n"
                        + "    reports: {tests: out/*.xml}\n" + RECIPE);
        place("foot-gate");
        Path archive = file("hut-planner-5.0.tgz", "gate 5\n");
        assertEquals(0, park.paseo("release-engineer", "publish", "foot-gate", "5.0", archive.toString()).code());
        park.runEnds("foot-gate", 1);
        assertEquals("passed", park.run("foot-gate", 1).path("run").path("status").asString(),
                park.run("foot-gate", 1).toString());
        assertTrue(park.log("foot-gate", 1, "look").contains("gate 5"));
        Await.until("it walks",
                () -> park.as("developer").get("/api/v1/whereabouts").body().toString().contains("\"5.0\""));
        assertEquals("tests", park.as("developer").get("/api/v1/versions/foot-gate/5.0").body().path("evidence").path(0)
                .path("kind").asString());
        assertEquals(1, park.as("developer").get("/api/v1/versions/foot-gate").body().size(),
                "the run sealed nothing of its own");
    }

    private JsonNode sightings(String component) {
        return park.as("developer").get("/api/v1/components/" + component + "/stores").good().path(0);
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
    void theFirstPackageOfARepositoryThatWasNotThereYetArrives() throws Exception {
        register("signpost", "");
        try (Registry registry = new Registry(park.folder.resolve("registry-later"), park.storePort)) {
            assertEquals(0, park.paseo("release-engineer", "component", "observe", "signpost", "--registry",
                    registry.address(), "--name", "park/signpost", "--pattern", "2.*").code());
            Await.until("it was looked at", () -> sightings("signpost").has("lookedAt"));
            assertFalse(sightings("signpost").has("error"), "not there yet is no error");
            assertTrue(park.paseo("release-engineer", "component", "stores", "signpost").out()
                    .contains("nothing that matches is there yet"));
            registry.push("park/signpost", "2.0.0", "signpost-2.0.0.tgz", "the first");
            Await.until("the first one arrives", () -> sighting("signpost", "2.0.0").has("version"));
        }
    }

    @Test
    void aRegistryIsWatchedByDigestAndAMovedTagIsTold() throws Exception {
        register("guide", "");
        try (Registry registry = new Registry(park.folder.resolve("registry"), park.storePort)) {
            registry.push("park/guide", "2.0.0", "guide-2.0.0.tgz", "old");
            assertEquals(0,
                    park.paseo("release-engineer", "component", "observe", "guide", "--registry", registry.address(),
                            "--name", "park/guide",
                            "--pattern", "2.*").code());
            Await.until("what was there is known", () -> sighting("guide", "2.0.0").has("reason"));
            String digest = registry.push("park/guide", "2.4.0", "guide-2.4.0.tgz", "guide 2.4.0");
            registry.push("park/guide", "nightly", "guide.tgz", "not wanted");
            Await.until("the tag became a version", () -> sighting("guide", "2.4.0").has("version"));
            JsonNode version = park.as("developer").get("/api/v1/versions/guide/2.4.0").good();
            Map<String, String> artifacts = new HashMap<>();
            version.path("artifacts").forEach(
                    each -> artifacts.put(each.path("name").asString(), "sha256:" + each.path("digest").asString()));
            assertEquals(Map.of("manifest", digest, "guide",
                    Registry.sha256("guide 2.4.0".getBytes(StandardCharsets.UTF_8))), artifacts);
            assertEquals("guide 2.4.0", park.as("developer").text("/api/v1/versions/guide/2.4.0/artifacts/guide"));
            registry.push("park/guide", "2.4.0", "guide-2.4.0.tgz", "something else");
            Await.until("the moved tag is told",
                    () -> sighting("guide", "2.4.0").path("reason").asString("").contains("what was sealed stays"));
            assertEquals("guide 2.4.0", park.as("developer").text("/api/v1/versions/guide/2.4.0/artifacts/guide"));
            assertEquals(1, park.as("developer").get("/api/v1/versions/guide").body().size());
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
        register("mule", "");
        Map<String, byte[]> answers = new ConcurrentHashMap<>();
        HttpServer server = answering(0, answers);
        String address = "http://127.0.0.1:" + server.getAddress().getPort();
        assertEquals(403,
                park.as("release-engineer")
                        .post("/api/v1/components/mule/stores",
                                Map.of("kind", "registry", "address", address, "name", "park/mule",
                                        "pattern", "*"))
                        .status(),
                "only what an operator allows");
        server.stop(0);
        HttpServer allowed = answering(park.storePort, answers);
        try {
            String layer = Registry.sha256("what was promised".getBytes(StandardCharsets.UTF_8));
            byte[] manifest = ("{\"layers\":[{\"digest\":\"" + layer
                    + "\",\"annotations\":{\"org.opencontainers.image.title\":\"mule-1.0.tgz\"}}]}")
                    .getBytes(StandardCharsets.UTF_8);
            String where = "/v2/park/mule";
            answers.put(where + "/tags/list", "{\"tags\":[\"1.0\"]}".getBytes(StandardCharsets.UTF_8));
            answers.put(where + "/manifests/1.0", manifest);
            answers.put(where + "/manifests/" + Registry.sha256(manifest), manifest);
            answers.put(where + "/blobs/" + layer, "what came".getBytes(StandardCharsets.UTF_8));
            park.as("release-engineer")
                    .post("/api/v1/components/mule/stores",
                            Map.of("kind", "registry", "address", "http://127.0.0.1:" + park.storePort,
                                    "name", "park/mule", "pattern", "*", "existing", true))
                    .good();
            Await.until("the other bytes are refused",
                    () -> sighting("mule", "1.0").path("reason").asString("").contains("answered with other bytes"));
            assertEquals(0, park.as("developer").get("/api/v1/versions/mule").body().size());
            answers.remove(where + "/tags/list");
            Await.until("the store is away",
                    () -> sightings("mule").path("error").asString("").contains("answered with status 404"));
        } finally {
            allowed.stop(0);
        }
    }

    @Test
    void aFolderAndAMavenRepositoryAreWatched() throws Exception {
        register("shuttle", "");
        Path drop = park.folder.resolve("drop");
        park.as("release-engineer")
                .post("/api/v1/components/shuttle/stores", Map.of("kind", "folder", "address", "file://" + drop,
                        "pattern", "shuttle-{version}.tgz"))
                .good();
        Await.until("the folder was looked at", () -> sightings("shuttle").has("lookedAt"));
        Files.writeString(drop.resolve("shuttle-3.1.tgz"), "shuttle 3.1");
        Files.writeString(drop.resolve("other.tgz"), "no");
        Files.createSymbolicLink(drop.resolve("shuttle-6.6.tgz"), Path.of("/etc/hostname"));
        Await.until("the file became a version", () -> sighting("shuttle", "3.1").has("version"));
        assertEquals("shuttle 3.1", park.as("developer").text("/api/v1/versions/shuttle/3.1/artifacts/shuttle"));
        Files.writeString(drop.resolve("shuttle-3.1.tgz"), "shuttle 3.1, changed");
        Files.setLastModifiedTime(drop.resolve("shuttle-3.1.tgz"), FileTime.fromMillis(1_000_000));
        Await.until("the change is told",
                () -> sighting("shuttle", "3.1").path("reason").asString("").contains("what was sealed stays"));
        assertEquals(1, park.as("developer").get("/api/v1/versions/shuttle").body().size());
        assertTrue(events("shuttle").stream().anyMatch(event -> event.path("sentence").asString()
                .equals("shuttle 3.1 arrived in the observed folder file://" + drop)));

        register("winch", "");
        Map<String, byte[]> answers = new ConcurrentHashMap<>();
        HttpServer maven = answering(park.storePort, answers);
        try {
            answers.put("/releases/park/huts/winch/maven-metadata.xml",
                    ("<metadata><versioning><versions><version>1.0</version><version>1.1-SNAPSHOT</version>"
                            + "</versions></versioning></metadata>").getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/park/huts/winch/1.0/winch-1.0.jar", "winch".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/park/huts/winch/1.0/winch-1.0.jar.sha1",
                    "0123456789012345678901234567890123456789".getBytes(StandardCharsets.UTF_8));
            park.as("release-engineer")
                    .post("/api/v1/components/winch/stores",
                            Map.of("kind", "maven", "address", "http://127.0.0.1:" + park.storePort + "/releases",
                                    "group", "park.huts", "name", "winch", "pattern", "*", "existing", true))
                    .good();
            Await.until("the wrong checksum is told",
                    () -> sighting("winch", "1.0").path("reason").asString("").contains("stated sha1:0123"));
            answers.put("/releases/park/huts/winch/maven-metadata.xml",
                    "<metadata><version>1.2</version></metadata>".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/park/huts/winch/1.2/winch-1.2.jar", "winch 1.2".getBytes(StandardCharsets.UTF_8));
            answers.put("/releases/park/huts/winch/1.2/winch-1.2.jar.sha256",
                    Registry.sha256("winch 1.2".getBytes(StandardCharsets.UTF_8)).substring(7)
                            .getBytes(StandardCharsets.UTF_8));
            Await.until("the next version is sealed", () -> sighting("winch", "1.2").has("version"));
            assertEquals("winch 1.2", park.as("developer").text("/api/v1/versions/winch/1.2/artifacts/winch"));
        } finally {
            maven.stop(0);
        }
    }
}
