package dev.paseo.e2e;

import dev.paseo.core.text.Sha256;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.Map;
import java.util.Properties;
import org.flywaydb.core.Flyway;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/**
 * The schema as the migrations make it, as statements that make it again: they take a fraction of the time, and the
 * service still checks that the migrations are those it has. Kept in the server's folder under the digest of the
 * migrations: whoever changes one gets another.
 */
final class PreparedSchema {

    private static final String DIGEST = digest();
    /** What the migrations granted, but on tables that later ones renamed or took away. */
    private static final String GRANTS = """
            select concat('grant ', p.Table_priv, ' on `', p.Table_name, '` to ''', p.User, '''@''', p.Host, ''';')
            from mysql.tables_priv p join information_schema.tables t
              on t.table_schema = p.Db and t.table_name = p.Table_name
            where p.Db = '%s'""";

    /** The moments that migrations put in are those at which a database is made. */
    private static final String NOW = """
            update presence set last_alive = utc_timestamp(6);
            update lease set until_at = utc_timestamp(6);
            """;

    private PreparedSchema() {}

    private static String digest() {
        try {
            MessageDigest sha256 = Sha256.digest();
            Resource[] migrations = new PathMatchingResourcePatternResolver()
                    .getResources("classpath*:db/migration/*.sql");
            Arrays.sort(migrations, Comparator.comparing(each -> String.valueOf(each.getFilename())));
            for (Resource migration : migrations) {
                sha256.update(String.valueOf(migration.getFilename()).getBytes(StandardCharsets.UTF_8));
                sha256.update(migration.getContentAsByteArray());
            }
            return HexFormat.of().formatHex(sha256.digest(), 0, 8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** The statements; made by the first who asks. */
    static synchronized Path on(TestDatabase server, Path folder) throws IOException, InterruptedException {
        Path prepared = folder.resolve("schema-" + DIGEST + ".sql");
        if (Files.notExists(prepared)) {
            Path made = Files.createTempFile(folder, "schema-", ".new");
            Files.writeString(made, migrated(server));
            Files.move(made, prepared, StandardCopyOption.ATOMIC_MOVE);
        }
        return prepared;
    }

    private static String migrated(TestDatabase server) throws IOException, InterruptedException {
        Properties to = server.properties();
        Flyway.configure()
                .dataSource("jdbc:mariadb://127.0.0.1:" + to.getProperty("port") + "/" + server.name()
                        + "?connectionTimeZone=UTC", to.getProperty("owner"), to.getProperty("owner-password"))
                .placeholders(Map.of("service_user", to.getProperty("service"))).load().migrate();
        String statements = server.dump();
        String grants = server.as(GRANTS.formatted(server.name()));
        server.as("drop database " + server.name() + "; create database " + server.name());
        return statements + "\n" + grants + NOW;
    }
}
