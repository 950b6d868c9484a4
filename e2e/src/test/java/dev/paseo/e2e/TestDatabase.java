package dev.paseo.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import java.util.UUID;

/** The real MariaDB, started once; each test that asks gets a database of its own. */
final class TestDatabase {

    static final Path ROOT = Path.of(System.getProperty("paseo.root", "..")).toAbsolutePath().normalize();
    private static final boolean DURABLE = Boolean.getBoolean("paseo.database.durable");
    private static final Path FOLDER = ROOT.resolve(DURABLE ? ".paseo/bench-database" : ".paseo/test-database");

    private final String name = "paseo_test_" + UUID.randomUUID().toString().substring(0, 8);
    private final Properties properties;

    TestDatabase() throws IOException, InterruptedException {
        this.properties = start();
        admin("create database " + name);
    }

    private static synchronized Properties start() throws IOException, InterruptedException {
        String file = run(List.of(ROOT.resolve("script/database").toString(), "start", FOLDER.toString(), DURABLE ? "--durable" : "--fast")).strip();
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
        return admin("", sql);
    }

    String as(String sql) throws IOException, InterruptedException {
        return admin(name, sql);
    }

    private static String admin(String database, String sql) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("mariadb", "--no-defaults", "--socket=" + start().getProperty("socket"),
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
