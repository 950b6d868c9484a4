package dev.paseo.e2e;

import com.sun.net.httpserver.HttpServer;
import dev.paseo.agent.Agent;
import dev.paseo.agent.process.Limits;
import dev.paseo.agent.process.Walls;
import dev.paseo.cli.Context;
import dev.paseo.cli.Paseo;
import dev.paseo.service.App;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/**
 * A whole park on loopback: the real service on the real database, real agents with real processes, hosts that answer
 * with what was installed on them, accounts, and one component. The service and the agents run in this process, unless
 * a test starts them as processes of their own.
 */
final class Park implements AutoCloseable {

    static final List<String> HOSTS = List.of("test-1", "staging-1", "staging-2", "north-hut", "ridge-hut",
            "valley-house");
    static final String PASSWORD = "high-above-the-path";
    static final String SECRET = "fern-and-cod-7781";

    final Path folder;
    final TestDatabase database;
    private final Map<String, Client> clients = new LinkedHashMap<>();
    private final Map<String, HttpServer> pages = new LinkedHashMap<>();
    private final List<AutoCloseable> closing = new ArrayList<>();
    private String address = "";
    private boolean tampered;
    private List<Class<?>> sources = List.of(App.class, QuickHashes.class);
    /** Where a test may start a store that the service may watch. */
    final int storePort = Processes.freePort();

    Park() throws IOException, InterruptedException {
        this(new TestDatabase());
    }

    /** On a server of the test's own. */
    Park(TestDatabase database) throws IOException, InterruptedException {
        this.database = database;
        this.folder = Files.createTempDirectory("paseo-park");
        for (String host : HOSTS) {
            Files.createDirectories(folder.resolve("hosts").resolve(host));
            page(host);
        }
    }

    /** Passwords are hashed as a service hashes them outside of tests. */
    Park hashingStrongly() {
        sources = List.of(App.class);
        return this;
    }

    /** A park with everything in it, in this process. */
    static Park open(String... settings) throws IOException, InterruptedException {
        Park park = new Park();
        park.startService(settings);
        park.accounts();
        for (String agent : park.agents()) {
            park.startAgent(agent);
        }
        return park;
    }

    List<String> agents() {
        return Stream.concat(Stream.of("builder"), HOSTS.stream()).toList();
    }

    /** Settings that any service of this park needs. */
    List<String> settings() {
        List<String> settings = new ArrayList<>(database.settings());
        settings.add("paseo.data=" + folder.resolve("data"));
        settings.add("paseo.allowed-sources=" + folder.resolve("repositories"));
        settings.add("paseo.allowed-stores=" + folder.resolve("drop") + ",http://127.0.0.1:" + storePort);
        settings.add("paseo.allowed-receivers=http://127.0.0.1:" + storePort);
        settings.add("paseo.poll=1h");
        settings.add("paseo.requests-per-minute=1000000");
        return settings;
    }

    ConfigurableApplicationContext startService(String... more) {
        List<String> arguments = new ArrayList<>(settings().stream().map(setting -> "--" + setting).toList());
        arguments.add("--server.port=0");
        arguments.add("--spring.jmx.enabled=false");
        for (String setting : more) {
            arguments.removeIf(each -> each.startsWith(setting.substring(0, setting.indexOf('=') + 1)));
            arguments.add(setting);
        }
        ConfigurableApplicationContext context = SpringApplication.run(
                sources.toArray(Class<?>[]::new), arguments.toArray(String[]::new));
        reach("http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port"));
        closing.addFirst(context);
        return context;
    }

    void reach(String service) {
        address = service;
    }

    String address() {
        return address;
    }

    void accounts() throws IOException {
        String password = Files.readString(folder.resolve("data/admin-password")).strip();
        signIn("admin", password);
        account("developer", List.of("developer"), List.of());
        account("release-engineer", List.of("release-engineer"), List.of("approvers"));
        account("approver-1", List.of("approver"), List.of("approvers"));
        account("approver-2", List.of("approver"), List.of("approvers"));
        account("auditor", List.of("auditor"), List.of());
    }

    void account(String name, List<String> roles, List<String> groups) {
        as("admin").post("/api/v1/accounts",
                Map.of("name", name, "password", PASSWORD, "addresses", List.of(name + "@park.example"),
                        "groups", groups, "roles", roles))
                .good();
        signIn(name, PASSWORD);
    }

    void signIn(String name, String password) {
        String token = new Client(address, "")
                .post("/api/v1/tokens", Map.of("name", name, "password", password, "description", "test"))
                .good().path("token").asString();
        clients.put(name, new Client(address, token));
    }

    /** Somebody's client; where the service has moved, at its new address. */
    Client as(String name) {
        return new Client(address, clients.get(name).token());
    }

    String invite(String agent, String... offers) {
        Map<String, Object> invitation = new LinkedHashMap<>(
                Map.of("name", agent, "offers", List.of(offers), "untrusted", true));
        if (HOSTS.contains(agent)) {
            invitation.put("host", agent);
        }
        return as("admin").post("/api/v1/agents", invitation).good().path("token").asString();
    }

    Path hostFolder(String host) {
        return folder.resolve("hosts").resolve(host);
    }

    void startAgent(String name, String... offers) throws IOException, InterruptedException {
        startAgent(name, invite(name, offers), options());
    }

    void startAgent(String name, String token, Agent.Options options) throws IOException, InterruptedException {
        Agent agent = new Agent(URI.create(address), folder.resolve("agents").resolve(name), hostFolder(name), options);
        agent.enrol(token);
        Thread.ofVirtual().name("agent-" + name).start(() -> {
            try {
                agent.run();
            } catch (IOException | InterruptedException ended) {
                // The park is closing.
            }
        });
        closing.addFirst(agent);
    }

    /** Walled, but for the park's own folder: tests look at what steps leave there. */
    private Agent.Options options() {
        return new Agent.Options(2, new Walls.WallSettings(true, List.of(folder), List.of(), true, false),
                Limits.usual());
    }

    /** Closed with the park. */
    void closeToo(AutoCloseable more) {
        closing.addFirst(more);
    }

    /** A component with its repository, hook, environments and secret; nothing is pushed yet. */
    Repository component() throws IOException, InterruptedException {
        Repository repository = new Repository(folder.resolve("repositories"), "daylight-api");
        as("admin")
                .post("/api/v1/components",
                        Map.of("name", "daylight-api", "repository", repository.url(), "trusted", List.of("main"),
                                "allowed", List.of("feature/*"), "secrets", List.of("DATA_KEY", "REPORT_TOKEN")))
                .good();
        as("admin")
                .put("/api/v1/environments", Map.of("text", Scenario.environments(this::hostAddress), "loosen", true))
                .good();
        for (String environment : List.of("test", "staging", "production")) {
            as("admin").put("/api/v1/secrets", Map.of("name", "DATA_KEY", "value", SECRET, "component", "daylight-api",
                    "environment", environment)).good();
        }
        installHook(repository);
        return repository;
    }

    /** Another component, with its hook; {@code more} goes into its registration. */
    Repository bring(String name, Map<String, Object> more) throws IOException, InterruptedException {
        Repository repository = new Repository(folder.resolve("repositories"), name);
        Map<String, Object> registration = new LinkedHashMap<>(
                Map.of("name", name, "repository", repository.url(), "trusted", List.of("main"),
                        "allowed", List.of("feature/*"), "secrets", List.of()));
        registration.putAll(more);
        as("admin").post("/api/v1/components", registration).good();
        installHook(repository, name, script -> script);
        return repository;
    }

    void installHook(Repository repository) throws IOException {
        installHook(repository, script -> script);
    }

    void installHook(Repository repository, UnaryOperator<String> change) throws IOException {
        installHook(repository, "daylight-api", change);
    }

    void installHook(Repository repository, String component, UnaryOperator<String> change) throws IOException {
        String script = as("release-engineer").raw(java.net.http.HttpRequest.newBuilder().GET()
                .header("Authorization", "Bearer " + clients.get("release-engineer").token()),
                "/api/v1/components/" + component + "/hook").body();
        repository.hook(change.apply(
                script.replaceFirst("address='[^']*'", "address='" + address + "/hooks/v1/push/" + component + "'")));
    }

    private void page(String host) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/version", exchange -> {
            Path file = hostFolder(host).resolve("version");
            byte[] body = (Files.exists(file) ? Files.readString(file) : "nothing").getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(200, body.length);
            try (OutputStream out = exchange.getResponseBody()) {
                out.write(body);
            }
        });
        server.start();
        pages.put(host, server);
        closing.add(() -> server.stop(0));
    }

    String hostAddress(String host) {
        return "http://127.0.0.1:" + pages.get(host).getAddress().getPort();
    }

    /** What a host has: the text that the recipe put there. */
    String installed(String host) throws IOException {
        Path file = hostFolder(host).resolve("version");
        return Files.exists(file) ? Files.readString(file).strip() : "";
    }

    /** Flips a bit in the stored artifact of a version. */
    void damage(String version) throws IOException {
        String digest = as("developer").get("/api/v1/versions/daylight-api/" + version).body().path("artifacts").get(0)
                .path("digest").asString();
        Path file = folder.resolve("data/bytes").resolve(digest.substring(0, 2)).resolve(digest.substring(2));
        byte[] bytes = Files.readAllBytes(file);
        bytes[3] ^= 1;
        Files.write(file, bytes);
    }

    /** What the client said, and its exit code. */
    record Said(int code, String out) {}

    /** Runs the client as somebody. */
    Said paseo(String who, String... arguments) {
        StringWriter out = new StringWriter();
        PrintWriter writer = new PrintWriter(out);
        Map<String, String> environment = Map.of("PASEO_SERVICE", address, "PASEO_TOKEN", as(who).token(), "HOME",
                "/nonexistent");
        int code = Paseo.run(new Context(writer, InputStream.nullInputStream(), environment, false), writer, arguments);
        writer.flush();
        return new Said(code, out.toString());
    }

    // Looking and waiting

    JsonNode run(long number) {
        return run("daylight-api", number);
    }

    JsonNode run(String component, long number) {
        return as("developer").get("/api/v1/runs/" + component + "/" + number).body();
    }

    JsonNode runEnds(long number) {
        return runEnds("daylight-api", number);
    }

    JsonNode runEnds(String component, long number) {
        Await.until(component + "#" + number + " ends", () -> run(component, number).path("run").has("endedAt"));
        return run(component, number);
    }

    /** The lines of a stage's newest attempt, as text. */
    String log(String component, long number, String stage) throws IOException {
        return as("developer").raw(
                java.net.http.HttpRequest.newBuilder().GET().header("Authorization",
                        "Bearer " + clients.get("developer").token()),
                "/api/v1/runs/" + component + "/" + number + "/stages/" + stage + "/log.txt").body();
    }

    JsonNode deployment(long id) {
        return as("developer").get("/api/v1/deployments/" + id).body();
    }

    String status(long id) {
        return deployment(id).path("deployment").path("status").asString("");
    }

    void deploymentIs(long id, String status) {
        Await.until(Await.LONGEST,
                () -> "deployment " + id + " is " + status + ", but " + deployment(id).path("deployment"),
                () -> status(id).equals(status));
    }

    Optional<String> live(String environment) {
        return live("daylight-api", environment);
    }

    /** The version of a component that is live in an environment. */
    Optional<String> live(String component, String environment) {
        for (JsonNode row : as("developer").get("/api/v1/whereabouts?component=" + component).body().path("rows")) {
            for (JsonNode cell : row.path("cells")) {
                if (cell.path("environment").asString().equals(environment) && cell.has("version")) {
                    return Optional.of(cell.path("version").asString());
                }
            }
        }
        return Optional.empty();
    }

    void liveIn(String environment, String version) {
        Await.until(Await.LONGEST, () -> version + " is live in " + environment + ", but "
                + as("developer").get("/api/v1/history/daylight-api/" + environment).body().path(0),
                () -> live(environment).equals(Optional.of(version)));
    }

    long promote(String version, String environment) {
        return as("release-engineer")
                .post("/api/v1/deployments",
                        Map.of("component", "daylight-api", "version", version, "environment", environment))
                .good().path("id").asLong();
    }

    Client.Answer rule(String who, long deployment, boolean yes, String comment) {
        String subject = as(who).get("/api/v1/deployments/" + deployment).body().path("subject").asString();
        return as(who).post("/api/v1/deployments/" + deployment + "/decision",
                Map.of("yes", yes, "comment", comment, "subject", subject));
    }

    /** Does what only the database's administrator can; from then on the trail may find it. */
    void tamper(String sql) throws IOException, InterruptedException {
        tampered = true;
        database.as(sql);
    }

    /** Whatever a test did, all that the trail states is so: nothing of ours changes guarded rows without saying so. */
    List<String> pastTheTrail() {
        Client.Answer report = tampered || !clients.containsKey("admin")
                ? new Client.Answer(0, Client.JSON.createObjectNode()) : as("admin").get("/api/v1/audit/verification");
        return report.body().path("findings").valueStream().map(JsonNode::asString)
                .filter(finding -> finding.contains("past the trail")).toList();
    }

    @Override
    public void close() {
        List<String> past = pastTheTrail();
        closeAll();
        if (!past.isEmpty()) {
            throw new AssertionError(past);
        }
    }

    private void closeAll() {
        for (AutoCloseable each : closing) {
            try {
                each.close();
            } catch (Exception failed) {
                System.err.println("closing: " + failed);
            }
        }
    }
}
