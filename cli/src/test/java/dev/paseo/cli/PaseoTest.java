package dev.paseo.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import dev.paseo.cli.command.Commands;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import picocli.CommandLine;

/** The command line, against a small server that answers what it is told to. */
class PaseoTest {

    @TempDir
    Path home;
    private HttpServer server;
    private int status = 200;
    /** So many requests are answered with 429 first. */
    private final AtomicInteger busy = new AtomicInteger();
    private String retryAfter = "0";
    private String body = "{}";

    @BeforeEach
    void serve() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
            int status = busy.getAndDecrement() > 0 ? 429 : this.status;
            exchange.getResponseHeaders().set("Retry-After", retryAfter);
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            try (OutputStream out = exchange.getResponseBody()) {
                out.write(bytes);
            }
        });
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    private record Said(int code, String out) {}

    private Said paseo(Map<String, String> environment, String input, boolean terminal, String... arguments) {
        StringWriter out = new StringWriter();
        PrintWriter writer = new PrintWriter(out);
        int code = Paseo.run(new Context(writer, new ByteArrayInputStream(input.getBytes(StandardCharsets.UTF_8)),
                environment, terminal), writer, arguments);
        writer.flush();
        return new Said(code, out.toString());
    }

    private Said paseo(String... arguments) {
        return paseo(Map.of("HOME", home.toString(), "PASEO_SERVICE", address(), "PASEO_TOKEN", "token"), "", false,
                arguments);
    }

    @ParameterizedTest
    @CsvSource({"409, 1", "404, 1", "400, 1", "401, 4", "403, 4", "500, 3"})
    void theExitCodeFollowsFromTheAnswer(int answered, int code) {
        status = answered;
        body = "{\"detail\":\"because of that\"}";
        Said said = paseo("promote", "daylight-api", "1.4.1", "--to", "production");
        assertEquals(code, said.code(), said.out());
        assertTrue(said.out().startsWith("error: "), said.out());
    }

    @Test
    void aServiceThatIsAskedTooOftenIsAskedAgainAMomentLater() {
        body = "{\"now\":\"2026-11-23T09:00:00Z\",\"rows\":[]}";
        busy.set(3);
        assertEquals(0, paseo("where").code());
        retryAfter = "3600";
        busy.set(1);
        assertEquals(1, paseo("where").code(), "an hour is not waited");
        retryAfter = "0";
        busy.set(1);
        assertEquals(1, paseo("audit", "acknowledge-restore", "--reason", "copy").code(), "only looks are repeated");
        busy.set(1000);
        assertEquals(1, paseo("where").code(), "nor for ever");
    }

    @Test
    void aServiceThatIsAwayIsCodeThree() {
        server.stop(0);
        assertEquals(3, paseo("where").code());
    }

    @ParameterizedTest
    @ValueSource(strings = {"promote", "nonsense", "approve deployment", "why a b c"})
    void wrongUsageIsCodeTwo(String line) {
        assertEquals(2, paseo(line.split(" ")).code());
    }

    @ParameterizedTest
    @ValueSource(strings = {"where", "show", "why", "start", "watch", "promote", "approve", "reject", "cancel", "fetch",
            "check", "sign-in", "publish",
            "component register", "component hook", "component map-hook", "component events", "component links",
            "component labels", "component open", "component save", "component token",
            "component observe", "component stores", "receiver add", "receiver list", "receiver messages",
            "receiver resend", "receiver stop", "environment load", "environment edit", "secret set", "account add",
            "account list", "account change", "account disable", "account enable", "account code", "group list",
            "group change", "group join", "group leave", "token make", "token list", "token revoke", "password",
            "deputy name", "deputy list", "deputy end", "agent enrol", "agent list", "agent renew", "audit verify",
            "audit acknowledge-restore", "audit list"})
    void everyCommandHasHelpWithAnExample(String command) {
        Said said = paseo((command + " --help").split(" "));
        assertEquals(0, said.code(), said.out());
        assertTrue(said.out().contains("Example"), said.out());
        assertTrue(said.out().contains("paseo " + command), said.out());
    }

    @Test
    void signingInRemembersTheServiceForItsOwnerAlone() throws IOException {
        body = "{\"token\":\"paseo-token_x\"}";
        Map<String, String> plain = Map.of("HOME", home.toString());
        assertEquals(2, paseo(plain, "", false, "where").code(), "nobody is signed in yet");
        assertEquals(0, paseo(plain, "secret\n", false, "sign-in", address(), "--name", "developer").code());
        Path file = home.resolve(".config/paseo/services.json");
        assertEquals("rw-------",
                java.nio.file.attribute.PosixFilePermissions.toString(Files.getPosixFilePermissions(file)));
        assertFalse(Files.readString(file).contains("secret"), "the password is not kept");
        body = "{\"now\":\"2026-11-23T09:00:00Z\",\"rows\":[]}";
        assertEquals(0, paseo(plain, "", false, "where").code());
        assertEquals(2, paseo(plain, "", false, "where", "--service", "elsewhere").code());
    }

    /** Signing in a second time makes another service the one that is asked; that is said, and how to ask the first. */
    @Test
    void whichServiceIsAskedFromNowOnIsSaid() {
        body = "{\"token\":\"paseo-token_x\"}";
        Map<String, String> plain = Map.of("HOME", home.toString());
        String first = paseo(plain, "secret\n", false, "sign-in", address(), "--name", "ines").out();
        assertFalse(first.contains("from now on"), first);
        String second = paseo(plain, "secret\n", false, "sign-in", address(), "--name", "ada", "--as", "ada").out();
        assertTrue(second.contains("Commands ask it from now on; the one before: --service default"), second);
        Map<String, String> chosen = Map.of("HOME", home.toString(), "PASEO_SERVICE", "default");
        String third = paseo(chosen, "secret\n", false, "sign-in", address(), "--name", "ada", "--as", "ada").out();
        assertTrue(third.contains("Commands still ask default, as PASEO_SERVICE says; this one: --service ada"), third);
    }

    @Test
    void aTableForPeopleAndJsonForPrograms() {
        body = """
                {"now":"2026-11-23T09:00:00Z","rows":[{"component":"daylight-api","cells":[{"environment":"test",\
                "version":"1.4.2","since":"2026-11-23T08:00:00Z",
                "hosts":1,"coming":[]},{"environment":"production","hosts":3,"behind":2,"coming":[{"deployment":9,\
                "version":"1.4.2","status":"waiting",
                "gate":"0 of 1 approval","requestedAt":"2026-11-23T08:59:30Z","forYou":true}]}]}]}""";
        assertEquals("""
                COMPONENT     ENVIRONMENT  LIVE     SINCE   HOSTS  WHAT WAITS
                daylight-api  test         1.4.2    60 min  1
                              production   nothing          3      1.4.2 waiting for 0 of 1 approval, 30 s \
                (deployment 9) needs you; 2 versions behind
                """, paseo("where").out());
        assertTrue(paseo("where", "--output", "json").out().startsWith("{"));
    }

    @Test
    void colourOnlyOnATerminalAndNotWhereNobodyWantsIt() {
        body = "{\"entries\":3,\"covered\":3,\"notCovered\":0,\"findings\":[]}";
        Map<String, String> environment = Map.of("HOME", home.toString(), "PASEO_SERVICE", address(), "PASEO_TOKEN",
                "t");
        assertTrue(paseo(environment, "", true, "audit", "verify").out().contains("\u001b["));
        assertFalse(paseo(environment, "", false, "audit", "verify").out().contains("\u001b["));
        Map<String, String> plain = Map.of("HOME", home.toString(), "PASEO_SERVICE", address(), "PASEO_TOKEN", "t",
                "NO_COLOR", "1");
        assertFalse(paseo(plain, "", true, "audit", "verify").out().contains("\u001b["));
    }

    @Test
    void anAuditThatDoesNotVerifyIsCodeOne() {
        body = "{\"entries\":3,\"covered\":3,\"notCovered\":0,\"findings\":[\"entry 2 is removed\"]}";
        Said said = paseo("audit", "verify");
        assertEquals(1, said.code());
        assertTrue(said.out().contains("entry 2 is removed"));
    }

    @Test
    void checkNeedsNoService() throws IOException {
        server.stop(0);
        Path file = home.resolve("paseo.yaml");
        Files.writeString(file,
                "paseo: 1\ncomponent: daylight-api\nstages:\n  compile: {steps: [./build.sh], kepe: {app: out}}\n");
        Said bad = paseo("check", file.toString());
        assertEquals(1, bad.code());
        assertEquals(file + ":4:34: error: stages.compile.kepe is not a key that is known here; did you mean keep?\n",
                bad.out());
        Files.writeString(file, Files.readString(file).replace("kepe", "keep"));
        assertEquals(0, paseo("check", file.toString()).code());
        assertEquals(2, paseo("check", home.resolve("nowhere.yaml").toString()).code());
    }

    static Stream<CommandLine> everyCommand() {
        return within(Commands.line(
                new Context(new PrintWriter(new StringWriter()), InputStream.nullInputStream(), Map.of(), false), ""));
    }

    private static Stream<CommandLine> within(CommandLine line) {
        return line.getSubcommands().values().stream().flatMap(each -> Stream.concat(Stream.of(each), within(each)));
    }

    @ParameterizedTest
    @MethodSource
    void everyCommand(CommandLine command) {
        String[] description = command.getCommandSpec().usageMessage().description();
        assertTrue(description[0].endsWith("."), () -> "lists of commands show its beginning alone: " + description[0]);
    }
}
