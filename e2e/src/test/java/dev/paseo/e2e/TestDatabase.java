package dev.paseo.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Properties;
import java.util.UUID;
import java.util.stream.Stream;

/** The real MariaDB, started once; each test that asks gets a database of its own. */
final class TestDatabase {

    static final Path ROOT = Path.of(System.getProperty("paseo.root", "..")).toAbsolutePath().normalize();
    private static final boolean DURABLE = Boolean.getBoolean("paseo.database.durable");
    private static final Path FOLDER = ROOT.resolve(DURABLE ? ".paseo/bench-database" : ".paseo/test-database");

    private final String name = "paseo_test_" + UUID.randomUUID().toString().substring(0, 8);
    private final Path folder;
    private final Properties properties;

    TestDatabase() throws IOException, InterruptedException {
        this(FOLDER, DURABLE);
    }

    private TestDatabase(Path folder, boolean durable) throws IOException, InterruptedException {
        this.folder = folder;
        this.properties = start(folder, durable);
        admin(folder, durable, "", "create database " + name);
        if (folder.equals(FOLDER)) {
            as("source " + PreparedSchema.on(this, folder));
        }
    }

    String name() {
        return name;
    }

    Properties properties() {
        return properties;
    }

    /** The statements that make this database again. */
    String dump() throws IOException, InterruptedException {
        return run(List.of("mariadb-dump", "--no-defaults", "--socket=" + properties.getProperty("socket"),
                "--user=" + System.getProperty("user.name"), "--skip-comments", "--no-tablespaces", name));
    }

    /** A server for one test alone, which may kill it; nothing that was committed is lost then. */
    static TestDatabase ofItsOwn() throws IOException, InterruptedException {
        return new TestDatabase(
                Files.createTempDirectory(Files.createDirectories(ROOT.resolve(".paseo")), "own-database"), true);
    }

    /** {@code kill -9}; back once its process is gone. */
    void kill() throws IOException {
        ProcessHandle server = ProcessHandle.of(Long.parseLong(Files.readString(folder.resolve("m.pid")).strip()))
                .orElseThrow();
        server.destroyForcibly();
        server.onExit().join();
    }

    boolean answers() {
        try (Socket socket = new Socket(InetAddress.getLoopbackAddress(),
                Integer.parseInt(properties.getProperty("port")))) {
            return socket.isConnected();
        } catch (IOException refused) {
            return false;
        }
    }

    void startAgain() throws IOException, InterruptedException {
        start(folder, true);
    }

    /** Ends a server of its own, and removes what it kept. */
    void stop() throws IOException, InterruptedException {
        run(List.of(ROOT.resolve("script/database").toString(), "stop", folder.toString()));
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(file);
            }
        }
    }

    private static synchronized Properties start(Path folder, boolean durable)
            throws IOException, InterruptedException {
        String file = run(List.of(ROOT.resolve("script/database").toString(), "start", folder.toString(),
                durable ? "--durable" : "--fast")).strip();
        Properties properties = new Properties();
        try (InputStream in = Files.newInputStream(Path.of(file))) {
            properties.load(in);
        }
        return properties;
    }

    /** Settings of a service on this database. */
    List<String> settings() {
        List<String> settings = new ArrayList<>(List.of("paseo.database.name=" + name));
        for (String key : List.of("port", "owner", "owner-password", "service", "service-password")) {
            settings.add("paseo.database." + key + "=" + properties.getProperty(key));
        }
        return settings;
    }

    /** What the database's administrator can do, and the service's own user cannot. */
    static String admin(String sql) throws IOException, InterruptedException {
        return admin(FOLDER, DURABLE, "", sql);
    }

    String as(String sql) throws IOException, InterruptedException {
        return admin(folder, DURABLE || !folder.equals(FOLDER), name, sql);
    }

    private static String admin(Path folder, boolean durable, String database, String sql)
            throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(
                List.of("mariadb", "--no-defaults", "--socket=" + start(folder, durable).getProperty("socket"),
                        "--user=" + System.getProperty("user.name"), "--batch", "--skip-column-names", "-e", sql));
        if (!database.isEmpty()) {
            command.add(database);
        }
        return run(command);
    }

    private static String run(List<String> command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IllegalStateException(String.join(" ", command) + ": " + said);
        }
        return said;
    }
}
