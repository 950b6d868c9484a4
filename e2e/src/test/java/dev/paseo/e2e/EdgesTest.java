package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.cert.X509Certificate;
import java.util.Map;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509TrustManager;
import org.junit.jupiter.api.Test;

/** Where the service meets what is around it: proxies, certificates, cookies, limits of requests, its own files. */
class EdgesTest {

    private static HttpResponse<String> signIn(Park park, String name, String forwarded) throws IOException {
        HttpRequest.Builder request = HttpRequest.newBuilder()
                .POST(HttpRequest.BodyPublishers.ofString(Client.JSON
                        .writeValueAsString(Map.of("name", name, "password", "guessed-wrong", "description", "x"))))
                .header("Content-Type", "application/json").header("X-Forwarded-For", forwarded)
                .header("X-Forwarded-Proto", "https");
        return park.as("admin").raw(request, "/api/v1/tokens");
    }

    private static String failures(Park park) {
        StringBuilder found = new StringBuilder();
        park.as("auditor").get("/api/v1/audit?limit=50").good().path("entries").forEach(entry -> {
            if (entry.path("entry").path("what").asString("").equals("failed to sign in")) {
                found.append(entry.path("entry").path("details")).append('\n');
            }
        });
        return found.toString();
    }

    @Test
    void forwardedHeadersAreBelievedOfANamedProxyAlone() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            HttpResponse<String> forged = signIn(park, "admin", "203.0.113.9");
            assertTrue(failures(park).contains("\"from\":\"127.0.0.1\""), () -> failures(park));
            assertTrue(forged.headers().firstValue("Strict-Transport-Security").isEmpty(), "it did not come by https");
        }
        try (Park park = new Park()) {
            park.startService("--paseo.proxies=127.0.0.1");
            park.accounts();
            HttpResponse<String> forwarded = signIn(park, "admin", "203.0.113.9");
            assertTrue(failures(park).contains("\"from\":\"203.0.113.9\""), () -> failures(park));
            assertTrue(forwarded.headers().firstValue("Strict-Transport-Security").isPresent());
        }
    }

    @Test
    void theCookieIsOfThisHostAloneWhereTheAddressIsHttps() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.address=https://paseo.park.example");
            park.accounts();
            HttpResponse<String> look = park.as("admin").raw(HttpRequest.newBuilder().GET(), "/api/v1/session");
            String proof = look.headers().allValues("Set-Cookie").stream()
                    .filter(cookie -> cookie.startsWith("XSRF-TOKEN=")).findFirst().orElseThrow()
                    .replaceFirst(";.*", "");
            HttpResponse<String> in = park.as("admin").raw(HttpRequest.newBuilder()
                    .POST(HttpRequest.BodyPublishers.ofString(
                            Client.JSON.writeValueAsString(Map.of("name", "developer", "password", Park.PASSWORD))))
                    .header("Content-Type", "application/json").header("Cookie", proof)
                    .header("X-XSRF-TOKEN", proof.replaceFirst("XSRF-TOKEN=", "")), "/api/v1/session");
            String cookie = in.headers().allValues("Set-Cookie").stream().filter(each -> each.contains("paseo-session"))
                    .findFirst().orElseThrow();
            assertTrue(cookie.startsWith("__Host-paseo-session=") && cookie.contains("; Secure")
                    && cookie.contains("; HttpOnly") && cookie.contains("SameSite=Strict") && cookie.contains("Path=/"),
                    cookie);
            String token = cookie.replaceFirst("^[^=]*=", "").replaceFirst(";.*", "");
            assertEquals(401,
                    park.as("admin").raw(HttpRequest.newBuilder().GET().header("Cookie", "paseo-session=" + token),
                            "/api/v1/components").statusCode(),
                    "a cookie that plain http could have set");
            assertEquals(200,
                    park.as("admin")
                            .raw(HttpRequest.newBuilder().GET().header("Cookie", "__Host-paseo-session=" + token),
                                    "/api/v1/components")
                            .statusCode());
        }
    }

    @Test
    void aTokenAsksOnlySoOftenAndIsToldWhenToComeAgain() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.requests-per-minute=600");
            park.accounts();
            HttpResponse<String> answer = null;
            for (int at = 0; at < 400 && (answer == null || answer.statusCode() == 200); at++) {
                answer = park.as("auditor").raw(
                        HttpRequest.newBuilder().GET().header("Authorization", "Bearer " + park.as("auditor").token()),
                        "/api/v1/session");
            }
            assertEquals(429, answer.statusCode());
            assertEquals("1", answer.headers().firstValue("Retry-After").orElseThrow());
            assertTrue(answer.body().contains("More than 600 requests a minute; try again in 1 s"), answer::body);
            assertEquals(200, park.as("developer").get("/api/v1/components").status(), "others are answered");
        }
    }

    @Test
    void theDataFolderIsTheServicesOwn() throws Exception {
        try (Park park = new Park()) {
            Path data = Files.createDirectories(park.folder.resolve("data"));
            Files.setPosixFilePermissions(data, PosixFilePermissions.fromString("rwxrwxrwx"));
            park.startService();
            assertEquals("rwx------", PosixFilePermissions.toString(Files.getPosixFilePermissions(data)));
        }
    }

    private static void certificate(Path folder, String name) throws Exception {
        Process process = new ProcessBuilder("openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2",
                "-subj", "/CN=" + name, "-addext", "subjectAltName=IP:127.0.0.1",
                "-keyout", folder.resolve("key.new").toString(), "-out", folder.resolve("certificate.new").toString())
                .redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
        assertEquals(0, process.waitFor());
        for (String file : new String[]{"key", "certificate"}) {
            Files.move(folder.resolve(file + ".new"), folder.resolve(file), StandardCopyOption.REPLACE_EXISTING);
        }
    }

    /** The name in the certificate that is shown there now. */
    private static String shown(URI address) {
        TrustManager any = new X509TrustManager() {
            @Override
            public void checkClientTrusted(X509Certificate[] chain, String kind) {}

            @Override
            public void checkServerTrusted(X509Certificate[] chain, String kind) {}

            @Override
            public X509Certificate[] getAcceptedIssuers() {
                return new X509Certificate[0];
            }
        };
        try {
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, new TrustManager[]{any}, null);
            try (SSLSocket socket = (SSLSocket) context.getSocketFactory().createSocket(address.getHost(),
                    address.getPort())) {
                socket.startHandshake();
                return ((X509Certificate) socket.getSession().getPeerCertificates()[0]).getSubjectX500Principal()
                        .getName();
            }
        } catch (Exception refused) {
            return refused.toString();
        }
    }

    @Test
    void itServesByHttpsAndTakesACertificateThatWasRenewed() throws Exception {
        try (Park park = new Park()) {
            Path tls = Files.createDirectories(park.folder.resolve("tls"));
            certificate(tls, "first");
            park.startService("--paseo.tls.certificate=" + tls.resolve("certificate"),
                    "--paseo.tls.key=" + tls.resolve("key"));
            URI address = URI.create(park.address());
            assertEquals("CN=first", shown(address));
            assertFalse(plainAnswers(address), "plain http is not served there");
            certificate(tls, "second");
            Await.until("the new certificate is shown", () -> shown(address).equals("CN=second"));
        }
    }

    private static boolean plainAnswers(URI address) {
        try {
            return Client.HTTP.send(HttpRequest
                    .newBuilder(URI.create("http://127.0.0.1:" + address.getPort() + "/api/v1/session")).build(),
                    HttpResponse.BodyHandlers.ofString()).statusCode() != 400;
        } catch (IOException | InterruptedException refused) {
            return false;
        }
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException moving) {
            return "";
        }
    }

    /** The old secret is worth nothing from then on, and what the agent does goes on. */
    @Test
    void anAgentTakesANewSecret() throws Exception {
        try (Park park = new Park()) {
            park.startService("--paseo.watch-every=1s");
            park.accounts();
            park.startAgent("builder");
            Path file = park.folder.resolve("agents/builder/secret");
            String before = Files.readString(file);
            assertEquals(204, new Client(park.address(), before)
                    .post("/agent/v1/work?waitMillis=1", Map.of("held", java.util.List.of())).status());
            assertEquals("builder takes a new secret when it looks next.\n",
                    park.paseo("admin", "agent", "renew", "builder").out());
            Await.until("it has a new one", () -> !read(file).equals(before)
                    && new Client(park.address(), before).get("/agent/v1/watch").status() == 401);
            Repository repository = park.bring("sawmill", Map.of());
            repository.push("developer", "main", Map.of("paseo.yaml",
                    "paseo: 1\ncomponent: sawmill\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages: "
                            + "{saw: {steps: ['true']}}\n"));
            assertEquals("passed", park.runEnds("sawmill", 1).path("run").path("status").asString());
            assertTrue(park.paseo("auditor", "audit", "list").out().contains("renew its secret"));
        }
    }

    /** Whoever has no proof hears the same whether or not there is such a component. */
    @Test
    void hooksAndBadgesSayNothingOfWhatExists() throws Exception {
        try (Park park = new Park()) {
            park.startService();
            park.accounts();
            park.bring("daylight-api", Map.of());
            for (String kind : new String[]{"push", "events", "mapped"}) {
                assertEquals(hook(park, kind, "no-such-component"), hook(park, kind, "daylight-api"), kind);
            }
            String none = park.as("admin").raw(HttpRequest.newBuilder().GET(), "/badges/x/no-such-component.svg")
                    .body();
            assertEquals(none.replace("no-such-component", "daylight-api"),
                    park.as("admin").raw(HttpRequest.newBuilder().GET(), "/badges/x/daylight-api.svg").body());
        }
    }

    private static String hook(Park park, String kind, String component) throws IOException {
        HttpResponse<String> answer = park.as("admin")
                .raw(HttpRequest.newBuilder().POST(HttpRequest.BodyPublishers.ofString("{}")).header("webhook-id", "x")
                        .header("webhook-timestamp", Long.toString(System.currentTimeMillis() / 1000))
                        .header("webhook-signature", "v1,x"), "/hooks/v1/" + kind + "/" + component);
        return answer.statusCode() + " " + answer.body().replace(component, "it");
    }
}
