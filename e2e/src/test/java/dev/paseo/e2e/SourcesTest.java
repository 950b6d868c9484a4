package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;

/**
 * Repositories over file, https and ssh; hooks that are believed and hooks that are not; polls; hostile repositories.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class SourcesTest {

    /** What whoever pushed hears when a poll was there first. */
    private static final String NOTICED = "what was pushed was noticed already";

    private Park park;
    private GitServers servers;
    private String https;
    private String elsewhere;
    private String silent;
    private GitServers.Ssh ssh;

    @BeforeAll
    void open() throws Exception {
        park = new Park();
        servers = new GitServers(park.folder.resolve("servers"));
        https = servers.https(park.folder.resolve("repositories"));
        elsewhere = servers.https(park.folder.resolve("repositories"));
        silent = servers.silent();
        ssh = servers.ssh();
        park.startService("--paseo.poll=1s", "--paseo.allowed-sources=" + park.folder.resolve("repositories") + ","
                + https + "," + elsewhere + "," + silent + "," + ssh.address());
        park.accounts();
        park.startAgent("builder");
    }

    @AfterAll
    void close() throws Exception {
        servers.close();
        park.close();
    }

    private Repository repository(String name) throws Exception {
        Repository repository = new Repository(park.folder.resolve("repositories"), name);
        repository.push("developer", "main",
                Map.of("paseo.yaml", StartingTest.pipeline(name, "- push: [main, \"season/**\", \"feature/**\"]")));
        return repository;
    }

    private Client.Answer register(String name, String url, Map<String, ?> credentials) {
        Map<String, Object> request = new LinkedHashMap<>(Map.of("name", name, "repository", url, "trusted",
                List.of("main", "season/**"), "allowed", List.of("feature/**"), "secrets", List.of()));
        if (!credentials.isEmpty()) {
            request.put("credentials", credentials);
        }
        return park.as("release-engineer").post("/api/v1/components", request);
    }

    private List<JsonNode> events(String component) {
        return StreamSupport
                .stream(park.as("developer").get("/api/v1/components/" + component + "/events").body().spliterator(),
                        false)
                .toList();
    }

    private int runs(String component) {
        return park.as("developer").get("/api/v1/runs?limit=200&component=" + component).body().path("runs").size();
    }

    @Test
    void aPollFindsPushesOverHttpsAndTheAgentNeedsNoCredentials() throws Exception {
        Repository repository = repository("secure");
        String url = https + "/secure.git";
        Map<String, String> login = Map.of("name", GitServers.NAME, "password", GitServers.WORD, "authority",
                servers.certificate());
        assertEquals(503,
                register("secure", url,
                        Map.of("name", GitServers.NAME, "password", "wrong-word", "authority", servers.certificate()))
                        .status());
        Client.Answer again = register("secure", url, login);
        assertEquals(201, again.status(), again.toString());
        repository.push("developer", "main", Map.of("paseo.yaml", StartingTest.pipeline("secure", "- push: [main]")));
        Await.until("a poll found the push", () -> runs("secure") == 1);
        assertEquals("passed", park.runEnds("secure", 1).path("run").path("status").asString());
        assertEquals("0",
                park.database.as(
                        "select count(*) from secret_revision where instr(ciphertext, '" + GitServers.WORD + "') > 0")
                        .strip());
        assertFalse(park.as("admin").get("/api/v1/components/secure").body().toString().contains(GitServers.WORD));
    }

    /** What was given for one host is never shown to another, and what replaces it has to work first. */
    @Test
    void credentialsStayWithTheHostThatTheyWereGivenFor() throws Exception {
        Repository repository = repository("guarded");
        Map<String, String> login = Map.of("name", GitServers.NAME, "password", GitServers.WORD, "authority",
                servers.certificate());
        assertEquals(201, register("guarded", https + "/guarded.git", login).status());
        assertFalse(servers.shownTo(https).isEmpty());
        assertEquals(503, change("guarded", Map.of("repository", elsewhere + "/guarded.git")).status());
        assertEquals(List.of(), servers.shownTo(elsewhere));
        assertEquals(503,
                change("guarded", Map.of("credentials",
                        Map.of("name", GitServers.NAME, "password", "wrong-word", "authority", servers.certificate())))
                        .status());
        repository.push("developer", "main", Map.of("paseo.yaml", StartingTest.pipeline("guarded", "- push: [main]")));
        Await.until("those that worked are still used", () -> runs("guarded") == 1);
        assertEquals(200,
                change("guarded", Map.of("repository", elsewhere + "/guarded.git", "credentials", login)).status());
        repository.push("developer", "main", Map.of("again", "1"));
        Await.until("it is looked at there", () -> runs("guarded") == 2);
        assertTrue(park.as("admin").get("/api/v1/audit?limit=50").body().toString().contains("set anew"));
    }

    /** A repository is that of all its components: whoever moves it needs the right for each. */
    @Test
    void aRepositoryOfSeveralComponentsIsMovedByWhoMayChangeThemAll() throws Exception {
        repository("shared");
        Repository moved = repository("shared-moved");
        String url = "file://" + park.folder.resolve("repositories/shared.git");
        assertEquals(201, register("shared", url, Map.of()).status());
        assertEquals(201, register("shared-too", url, Map.of()).status());
        park.account("keeper", List.of("viewer"), List.of());
        park.as("admin")
                .put("/api/v1/accounts/keeper", Map.of("roles", List.of("viewer", "release-engineer of shared")))
                .good();
        Client.Answer refused = park.as("keeper").post("/api/v1/components/shared/changes",
                Map.of("repository", moved.url()));
        assertEquals(403, refused.status(), refused.toString());
        assertTrue(refused.detail().contains("may not") && refused.detail().contains("shared-too"), refused.detail());
        assertEquals(200,
                park.as("keeper").post("/api/v1/components/shared/changes", Map.of("mainBranch", "main")).status());
        assertEquals(200, change("shared", Map.of("repository", moved.url())).status());
        assertEquals(moved.url(),
                park.as("developer").get("/api/v1/components/shared-too").good().path("repository").asString());
    }

    private Client.Answer change(String component, Map<String, ?> change) {
        return park.as("release-engineer").post("/api/v1/components/" + component + "/changes", change);
    }

    /**
     * A commit of the year 20000, with a sign between fields in its subject, on a branch that no rule names; and a file
     * of 3 MB on another.
     */
    @Test
    void anOddCommitAndALargeFileKeepNothingElse() throws Exception {
        Repository repository = repository("peculiar");
        assertEquals(201, register("peculiar", repository.url(), Map.of()).status());
        park.installHook(repository, "peculiar", script -> script);
        String tree = repository.git("rev-parse", "HEAD^{tree}").strip();
        Path object = Files.writeString(park.folder.resolve("object"), "tree " + tree
                + "\nauthor A <a@park.example> 568971820800 +9999\ncommitter A <a@park.example> 568971820800 "
                + "+9999\n\nodd \u001f one\n");
        String odd = repository.git("hash-object", "-t", "commit", "-w", "--literally", object.toString()).strip();
        repository.git("update-ref", "refs/heads/a-first", odd);
        repository.git("push", "-q", "origin", "a-first");
        Await.until("the odd one is told",
                () -> park.paseo("developer", "why", "peculiar").out().contains("to a-first"));
        String large = repository.push("developer", "feature/large",
                Map.of("paseo.yaml", "paseo: 1\n#" + "x".repeat(3_000_000) + "\n"));
        assertTrue(large.contains("paseo.yaml has 3000011 bytes; at most 1 MB are read") || large.contains(NOTICED),
                large);
        Await.until("the large one is told",
                () -> park.paseo("developer", "why", "peculiar").out().contains("paseo.yaml has 3000011 bytes"));
        String answered = repository.push("developer", "main",
                Map.of("paseo.yaml", StartingTest.pipeline("peculiar", "- push: [main]")));
        assertTrue(answered.contains("Paseo started peculiar#1 for main") || answered.contains(NOTICED), answered);
        assertEquals("passed", park.runEnds("peculiar", 1).path("run").path("status").asString());
    }

    @Test
    void sshNeedsTheKeyOfTheHostThatWasNamed() throws Exception {
        Repository repository = repository("moored");
        String url = ssh.address() + park.folder.resolve("repositories/moored.git");
        Client.Answer unpinned = register("moored", url, Map.of("key", ssh.key()));
        assertTrue(unpinned.status() == 400 && unpinned.detail().contains("known_hosts"), unpinned.toString());
        String other = ssh.hostKeys().replaceAll("[A-Za-z0-9+/]{8}\\n$", "AAAAAAAA\n");
        Client.Answer changed = register("moored", url, Map.of("key", ssh.key(), "hostKeys", other));
        assertTrue(changed.status() == 503 && changed.detail().contains("the host shows another key"),
                changed.toString());
        assertEquals(201, register("moored", url, Map.of("key", ssh.key(), "hostKeys", ssh.hostKeys())).status());
        repository.push("developer", "main", Map.of("paseo.yaml", StartingTest.pipeline("moored", "- push: [main]")));
        Await.until("a poll found the push", () -> runs("moored") == 1);
        assertEquals("passed", park.runEnds("moored", 1).path("run").path("status").asString());
    }

    @Test
    void addressesThatAreNotAllowedAreRefused() {
        for (String url : List.of("https://127.0.0.1:1/x", "ssh://-oProxyCommand=touch@127.0.0.1/x", "ext::sh -c true",
                "http://127.0.0.1/x", https + "/../x", https + "/a b",
                "file:///etc", https.replace("127", "u:p@127") + "/x", https + ".evil/x")) {
            Client.Answer answer = register("refused", url, Map.of());
            assertTrue(answer.status() == 400 || answer.status() == 403, url + " " + answer);
        }
    }

    @Test
    void aRepositoryThatHangsIsToldAndTheOthersGoOn() throws Exception {
        Repository quick = repository("quick");
        assertEquals(201, register("quick", quick.url(), Map.of()).status());
        park.tamper("insert into component (name, repository, file_path, main_branch, created_at) values ('hanging', '"
                + silent + "/x.git', 'paseo.yaml', 'main', utc_timestamp(6))");
        quick.push("developer", "main", Map.of("note", "quick"));
        Await.until("the other one goes on", () -> runs("quick") == 1);
        Await.until("the hanging one is told", () -> park.as("developer").get("/api/v1/components/hanging/source")
                .body().path("error").asString("").contains("is unreachable"));
    }

    // Hooks

    private Client.Answer hook(String path, Map<String, String> headers, byte[] body) throws IOException {
        HttpRequest.Builder request = HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        HttpResponse<String> answer = park.as("developer").raw(request, path);
        return new Client.Answer(answer.statusCode(),
                new tools.jackson.databind.json.JsonMapper().createObjectNode().put("detail", answer.body()));
    }

    private static byte[] hmac(byte[] key, String text) throws Exception {
        Mac mac = Mac.getInstance("HmacSHA256");
        mac.init(new SecretKeySpec(key, "HmacSHA256"));
        return mac.doFinal(text.getBytes(StandardCharsets.UTF_8));
    }

    private Map<String, String> signed(byte[] key, String id, long at, String body) throws Exception {
        return Map.of("webhook-id", id, "webhook-timestamp", Long.toString(at), "webhook-signature",
                "v1," + Base64.getEncoder().encodeToString(hmac(key, id + "." + at + "." + body)));
    }

    @Test
    void hooksAreBelievedOrNotAndFollowedOnce() throws Exception {
        Repository repository = repository("bell");
        register("bell", repository.url(), Map.of()).good();
        String script = park.as("release-engineer").text("/api/v1/components/bell/hook");
        byte[] key = Base64.getDecoder().decode(script.replaceAll("(?s).*secret='([^']*)'.*", "$1"));
        long now = Instant.now().getEpochSecond();
        String body = "{\"pusher\":\"developer\"}";
        repository.push("developer", "main", Map.of("note", "one"));
        List<Client.Answer> two = List.of(
                hook("/hooks/v1/push/bell", signed(key, "m1", now, body), body.getBytes(StandardCharsets.UTF_8)),
                hook("/hooks/v1/push/bell", signed(key, "m2", now, body), body.getBytes(StandardCharsets.UTF_8)));
        assertTrue(two.stream().allMatch(answer -> answer.status() == 200), two.toString());
        Await.until("one run", () -> runs("bell") == 1);
        assertTrue(hook("/hooks/v1/push/bell", signed(key, "m1", now, body), body.getBytes(StandardCharsets.UTF_8))
                .detail().contains("had this message before"));
        assertEquals(401, hook("/hooks/v1/push/bell", signed(new byte[24], "m3", now, body),
                body.getBytes(StandardCharsets.UTF_8)).status(), "forged");
        assertEquals(401,
                hook("/hooks/v1/push/bell", signed(key, "m4", now - 3600, body), body.getBytes(StandardCharsets.UTF_8))
                        .status(),
                "old");
        assertEquals(401,
                hook("/hooks/v1/push/bel", signed(key, "m5", now, body), body.getBytes(StandardCharsets.UTF_8))
                        .status(),
                "unknown");
        assertEquals(400,
                hook("/hooks/v1/push/bell", signed(key, "m6", now, "{\"pus"), "{\"pus".getBytes(StandardCharsets.UTF_8))
                        .status(),
                "truncated");
        assertEquals(413, hook("/hooks/v1/push/bell", signed(key, "m7", now, body), new byte[50 << 20]).status(),
                "50 MB");
        String merged = "{\"specversion\":\"1.0\",\"id\":\"1\",\"source\":\"/works\","
                + "\"type\":\"dev.cdevents.change.merged.0.2.0\"}";
        repository.push("developer", "main", Map.of("note", "two"));
        assertEquals(200,
                hook("/hooks/v1/events/bell", signed(key, "m8", now, merged), merged.getBytes(StandardCharsets.UTF_8))
                        .status());
        Await.until("two runs", () -> runs("bell") == 2);
        String nothing = "{\"specversion\":\"1.0\",\"id\":\"2\",\"source\":\"/works\","
                + "\"type\":\"dev.cdevents.testcaserun.started.0.2.0\"}";
        assertTrue(
                hook("/hooks/v1/events/bell", signed(key, "m9", now, nothing), nothing.getBytes(StandardCharsets.UTF_8))
                        .detail().contains("starts nothing here"));
        assertEquals(2, runs("bell"));
    }

    @Test
    void aSourceThatCannotSignOurWayIsMapped() throws Exception {
        Repository repository = repository("gong");
        register("gong", repository.url(), Map.of()).good();
        String secret = "a-secret-of-the-works";
        park.as("release-engineer")
                .put("/api/v1/components/gong/hook-mapping",
                        Map.of("header", "X-Digest", "scheme", "hmac-sha256", "prefix", "digest:",
                                "pusher", "/who/account", "secret", secret))
                .good();
        repository.push("developer", "main", Map.of("note", "mapped"));
        String body = "{\"who\":{\"account\":\"release-engineer\"}}";
        String digest = "digest:" + HexFormat.of().formatHex(hmac(secret.getBytes(StandardCharsets.UTF_8), body));
        assertEquals(401,
                hook("/hooks/v1/mapped/gong", Map.of("X-Digest", "digest:00"), body.getBytes(StandardCharsets.UTF_8))
                        .status());
        assertEquals(401, hook("/hooks/v1/mapped/gong", Map.of(), body.getBytes(StandardCharsets.UTF_8)).status());
        assertEquals(200,
                hook("/hooks/v1/mapped/gong", Map.of("X-Digest", digest), body.getBytes(StandardCharsets.UTF_8))
                        .status());
        Await.until("one run", () -> runs("gong") == 1);
        assertTrue(hook("/hooks/v1/mapped/gong", Map.of("X-Digest", digest), body.getBytes(StandardCharsets.UTF_8))
                .detail().contains("had this message before"));
        assertEquals(400,
                park.as("release-engineer")
                        .put("/api/v1/components/gong/hook-mapping",
                                Map.of("header", "X-Digest", "scheme", "shared-word",
                                        "secret", "short"))
                        .status());
    }

    @Test
    void rewrittenEmptiedAndHostileBranches() throws Exception {
        Repository repository = repository("ridge");
        register("ridge", repository.url(), Map.of()).good();
        repository.push("developer", "main", Map.of("note", "one"));
        Await.until("the push ran", () -> runs("ridge") == 1);
        repository.git("commit", "-q", "--amend", "-m", "Say it otherwise");
        repository.git("push", "-q", "--force", "origin", "main");
        Await.until("the rewriting ran", () -> runs("ridge") == 2);
        assertTrue(events("ridge").getFirst().path("sentence").asString().contains("it rewrote the branch"),
                events("ridge").getFirst().toString());
        String head = repository.head();
        List<String> names = List.of("-dash", "season/öresund-明石", "feature/a;b", "feature/$(touch)",
                "season/" + "x".repeat(180), "feature/" + "y".repeat(230), "a'b\"c");
        for (String name : names) {
            repository.raw("refs/heads/" + name, head);
        }
        Await.until("every one is told", () -> events("ridge").stream()
                .filter(event -> event.path("kind").asString().equals("push")).count() == 2 + names.size());
        assertTrue(events("ridge").stream()
                .anyMatch(event -> event.path("reason").asString("").contains("more than 200 characters")));
        assertEquals(6, runs("ridge"), "season/öresund, feature/a;b, feature/$(…) and the long one of season have run");
        for (String name : names) {
            repository.raw("refs/heads/" + name, "");
        }
        repository.raw("refs/heads/main", "");
        Await.until("no branch is left",
                () -> park.as("developer").get("/api/v1/components/ridge").body().path("heads").isEmpty());
        assertEquals(404, park.as("developer").post("/api/v1/runs", Map.of("component", "ridge")).status());
        repository.raw("refs/heads/main", head);
        Await.until("it came back and ran", () -> runs("ridge") == 7);
    }

    @Test
    void aRepositoryThatIsMovedAwayIsToldAndFoundAgain() throws Exception {
        Repository repository = repository("drifter");
        register("drifter", repository.url(), Map.of()).good();
        var place = park.folder.resolve("repositories/drifter.git");
        Files.move(place, park.folder.resolve("away.git"));
        Await.until("it is told", () -> park.as("developer").get("/api/v1/components/drifter/source").body()
                .path("failures").asInt() > 0);
        Files.move(park.folder.resolve("away.git"), place);
        repository.push("developer", "main", Map.of("note", "back"));
        Await.until("it ran", () -> runs("drifter") == 1);
        Await.until("all is well again", () -> park.as("developer").get("/api/v1/components/drifter/source").body()
                .path("failures").asInt() == 0);
    }
}
