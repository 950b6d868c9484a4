package dev.paseo.e2e;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;

/**
 * Real git servers on loopback: over HTTPS with a certificate and a password, and over SSH with the server of Debian's
 * packages.
 */
final class GitServers implements AutoCloseable {

    static final String NAME = "park";
    static final String WORD = "bread-and-water";

    private final Path folder;
    private final List<AutoCloseable> closing = new ArrayList<>();
    private final List<String> shown = new CopyOnWriteArrayList<>();

    GitServers(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    private static void run(Path folder, String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException(String.join(" ", command) + ": " + said);
        }
    }

    /** The certificate that {@link #https} shows, in PEM. */
    String certificate() throws IOException {
        return Files.readString(folder.resolve("server.pem"));
    }

    /** Serves the bare repositories of a folder; its address. */
    String https(Path repositories) throws IOException, InterruptedException, GeneralSecurityException {
        if (Files.notExists(folder.resolve("server.p12"))) {
            makeKeys();
        }
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(folder.resolve("server.p12"))) {
            keys.load(in, "the-park".toCharArray());
        }
        KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(keys, "the-park".toCharArray());
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(managers.getKeyManagers(), null, null);
        HttpsServer server = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setHttpsConfigurator(new HttpsConfigurator(context));
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.createContext("/", exchange -> git(exchange, repositories));
        server.start();
        closing.add(() -> server.stop(0));
        return "https://127.0.0.1:" + server.getAddress().getPort();
    }

    /** What was shown to come in, of requests to this server. */
    List<String> shownTo(String address) {
        return shown.stream().filter(each -> each.startsWith(address + " ")).toList();
    }

    private void makeKeys() throws IOException, InterruptedException {
        run(folder, Path.of(System.getProperty("java.home"), "bin", "keytool").toString(), "-genkeypair", "-alias",
                "server", "-keyalg", "EC", "-storetype", "PKCS12",
                "-keystore", "server.p12", "-storepass", "the-park", "-dname", "CN=127.0.0.1", "-ext",
                "san=ip:127.0.0.1", "-ext", "bc:c=ca:true");
        run(folder, Path.of(System.getProperty("java.home"), "bin", "keytool").toString(), "-exportcert", "-rfc",
                "-alias", "server", "-keystore", "server.p12",
                "-storepass", "the-park", "-file", "server.pem");
    }

    private void git(HttpExchange exchange, Path repositories) throws IOException {
        Optional.ofNullable(exchange.getRequestHeaders().getFirst("Authorization")).ifPresent(
                header -> shown.add("https://127.0.0.1:" + exchange.getLocalAddress().getPort() + " " + header));
        String login = "Basic "
                + Base64.getEncoder().encodeToString((NAME + ":" + WORD).getBytes(StandardCharsets.UTF_8));
        if (!login.equals(exchange.getRequestHeaders().getFirst("Authorization"))) {
            exchange.getResponseHeaders().set("WWW-Authenticate", "Basic realm=\"park\"");
            exchange.sendResponseHeaders(401, -1);
            exchange.close();
            return;
        }
        ProcessBuilder builder = new ProcessBuilder("git", "http-backend");
        builder.environment().put("GIT_PROJECT_ROOT", repositories.toString());
        builder.environment().put("GIT_HTTP_EXPORT_ALL", "1");
        builder.environment().put("REMOTE_USER", NAME);
        builder.environment().put("REQUEST_METHOD", exchange.getRequestMethod());
        builder.environment().put("PATH_INFO", exchange.getRequestURI().getPath());
        builder.environment().put("QUERY_STRING",
                exchange.getRequestURI().getRawQuery() == null ? "" : exchange.getRequestURI().getRawQuery());
        builder.environment().put("CONTENT_TYPE",
                String.valueOf(exchange.getRequestHeaders().getFirst("Content-Type")));
        String encoding = exchange.getRequestHeaders().getFirst("Content-Encoding");
        builder.environment().put("HTTP_CONTENT_ENCODING", encoding == null ? "" : encoding);
        String protocol = exchange.getRequestHeaders().getFirst("Git-Protocol");
        builder.environment().put("HTTP_GIT_PROTOCOL", protocol == null ? "" : protocol);
        builder.environment().put("GIT_CONFIG_GLOBAL", "/dev/null");
        byte[] body = exchange.getRequestBody().readAllBytes();
        builder.environment().put("CONTENT_LENGTH", Integer.toString(body.length));
        Process process = builder.start();
        try (OutputStream in = process.getOutputStream()) {
            in.write(body);
        }
        byte[] answer = process.getInputStream().readAllBytes();
        int end = new String(answer, StandardCharsets.ISO_8859_1).indexOf("\r\n\r\n");
        int status = 200;
        for (String line : new String(answer, 0, end, StandardCharsets.ISO_8859_1).split("\r\n")) {
            int colon = line.indexOf(':');
            if (line.startsWith("Status:")) {
                status = Integer.parseInt(line.substring(8, 11));
            } else {
                exchange.getResponseHeaders().set(line.substring(0, colon), line.substring(colon + 1).strip());
            }
        }
        ByteArrayOutputStream rest = new ByteArrayOutputStream();
        rest.write(answer, end + 4, answer.length - end - 4);
        exchange.sendResponseHeaders(status, rest.size() == 0 ? -1 : rest.size());
        exchange.getResponseBody().write(rest.toByteArray());
        exchange.close();
    }

    /** A server that takes connections and never says a word. */
    String silent() throws IOException {
        ServerSocket socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        closing.add(socket);
        return "https://127.0.0.1:" + socket.getLocalPort();
    }

    /** The private key that may come in, and the line of known_hosts of the server. */
    record Ssh(String address, String key, String hostKeys) {}

    Ssh ssh() throws IOException, InterruptedException {
        Path home = Files.createDirectory(folder.resolve("ssh"),
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
        run(home, "ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", "host");
        run(home, "ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", "user");
        Files.copy(home.resolve("user.pub"), home.resolve("authorized"));
        int port = Processes.freePort();
        Files.createDirectories(Path.of("/run/sshd"));
        Process process = new ProcessBuilder("/usr/sbin/sshd", "-D", "-e", "-f", "/dev/null", "-o", "Port=" + port,
                "-o", "ListenAddress=127.0.0.1", "-o", "HostKey=" + home.resolve("host"),
                "-o", "AuthorizedKeysFile=" + home.resolve("authorized"), "-o", "StrictModes=no", "-o", "UsePAM=no",
                "-o", "PasswordAuthentication=no",
                "-o", "PermitRootLogin=prohibit-password", "-o", "PidFile=none", "-o", "Subsystem=sftp internal-sftp")
                .redirectErrorStream(true).redirectOutput(home.resolve("log").toFile()).start();
        closing.add(process::destroy);
        Await.until("sshd listens", () -> {
            try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
                return socket.isConnected();
            } catch (IOException notYet) {
                return false;
            }
        });
        String[] host = Files.readString(home.resolve("host.pub")).split(" ");
        return new Ssh("ssh://" + System.getProperty("user.name") + "@127.0.0.1:" + port,
                Files.readString(home.resolve("user")),
                "[127.0.0.1]:" + port + " " + host[0] + " " + host[1] + "\n");
    }

    @Override
    public void close() throws Exception {
        for (AutoCloseable each : closing) {
            each.close();
        }
    }
}
