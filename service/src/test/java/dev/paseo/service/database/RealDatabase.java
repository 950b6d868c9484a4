package dev.paseo.service.database;

import com.zaxxer.hikari.HikariDataSource;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.apache.ibatis.session.SqlSessionFactory;
import org.flywaydb.core.Flyway;
import org.mybatis.spring.SqlSessionFactoryBean;
import org.mybatis.spring.SqlSessionTemplate;
import org.mybatis.spring.boot.autoconfigure.MybatisProperties;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.boot.env.YamlPropertySourceLoader;
import org.springframework.boot.context.properties.source.ConfigurationPropertySources;
import org.springframework.core.env.PropertySource;
import org.springframework.core.io.ClassPathResource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import tools.jackson.databind.json.JsonMapper;

/**
 * The real MariaDB with the schema as it is now, once for all tests of this module; mappers read and write as the
 * service does: by its user, its settings, its isolation. Tests take rows of their own.
 */
public final class RealDatabase {

    private static final Path ROOT = Path.of(System.getProperty("paseo.root", "..")).toAbsolutePath().normalize();
    private static RealDatabase now;

    private final Properties server;
    private final String name;
    private final SqlSessionFactory factory;
    private final Transactions transactions;
    private final Rows rows;

    private RealDatabase() throws Exception {
        server = server();
        name = create(server);
        migrate(server, name, "latest");
        HikariDataSource pool = new HikariDataSource();
        pool.setJdbcUrl(address(server, name) + "&forceConnectionTimeZoneToSession=true&preserveInstants=true");
        pool.setUsername(server.getProperty("service"));
        pool.setPassword(server.getProperty("service-password"));
        pool.setTransactionIsolation("TRANSACTION_READ_COMMITTED");
        pool.setMaximumPoolSize(24);
        SqlSessionFactoryBean bean = new SqlSessionFactoryBean();
        bean.setDataSource(pool);
        new RecordMapping(settings()).customize(bean);
        factory = bean.getObject();
        transactions = new Transactions(new JdbcTransactionManager(pool), new SimpleMeterRegistry());
        rows = new Rows(this);
    }

    public static synchronized RealDatabase get() {
        try {
            now = now == null ? new RealDatabase() : now;
            return now;
        } catch (Exception failed) {
            throw new IllegalStateException("the test database cannot be had", failed);
        }
    }

    /** MyBatis's settings, as the service has them. */
    private static MybatisProperties settings() throws IOException {
        PropertySource<?> yaml = new YamlPropertySourceLoader()
                .load("application", new ClassPathResource("application.yaml")).getFirst();
        return new Binder(ConfigurationPropertySources.from(yaml)).bind("mybatis", MybatisProperties.class).get();
    }

    private static Properties server() throws IOException, InterruptedException {
        Process script = new ProcessBuilder(ROOT.resolve("script/database").toString(), "start",
                ROOT.resolve(".paseo/test-database").toString(), "--fast").redirectErrorStream(true).start();
        String said = new String(script.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
        if (script.waitFor() != 0) {
            throw new IllegalStateException(said);
        }
        Properties properties = new Properties();
        try (InputStream in = Files.newInputStream(Path.of(said))) {
            properties.load(in);
        }
        return properties;
    }

    static String create(Properties server) throws SQLException {
        String name = "paseo_rows_" + UUID.randomUUID().toString().substring(0, 8);
        try (Connection connection = owner(server, ""); Statement statement = connection.createStatement()) {
            statement.execute("create database " + name);
        }
        return name;
    }

    static void migrate(Properties server, String database, String target) {
        Flyway.configure()
                .dataSource(address(server, database), server.getProperty("owner"),
                        server.getProperty("owner-password"))
                .placeholders(java.util.Map.of("service_user", server.getProperty("service"))).target(target).load()
                .migrate();
    }

    private static String address(Properties server, String database) {
        return "jdbc:mariadb://127.0.0.1:" + server.getProperty("port") + "/" + database + "?connectionTimeZone=UTC"
                + "&forceConnectionTimeZoneToSession=true&preserveInstants=true&useServerPrepStmts=true";
    }

    private static Connection owner(Properties server, String database) throws SQLException {
        return DriverManager.getConnection(address(server, database), server.getProperty("owner"),
                server.getProperty("owner-password"));
    }

    /** An empty database of this release or an earlier one, which the test migrates. */
    static final class Upgraded implements AutoCloseable {
        private final Properties server;
        private final String name;
        private final Connection connection;

        Upgraded(String target) throws Exception {
            server = server();
            name = create(server);
            migrate(server, name, target);
            connection = owner(server, name);
        }

        void to(String target) {
            migrate(server, name, target);
        }

        void write(String sql) throws SQLException {
            try (Statement statement = connection.createStatement()) {
                statement.execute(sql);
            }
        }

        List<String> read(String sql) throws SQLException {
            try (Statement statement = connection.createStatement(); ResultSet rows = statement.executeQuery(sql)) {
                List<String> values = new ArrayList<>();
                while (rows.next()) {
                    values.add(rows.getString(1));
                }
                return values;
            }
        }

        @Override
        public void close() throws SQLException {
            write("drop database " + name);
            connection.close();
        }
    }

    public Transactions transactions() {
        return transactions;
    }

    public Json json() {
        return new Json(JsonMapper.builder()
                .changeDefaultPropertyInclusion(inclusion -> inclusion
                        .withValueInclusion(com.fasterxml.jackson.annotation.JsonInclude.Include.NON_ABSENT))
                .build());
    }

    public <M> M mapper(Class<M> type) {
        synchronized (factory) {
            if (!factory.getConfiguration().hasMapper(type)) {
                factory.getConfiguration().addMapper(type);
            }
        }
        return new SqlSessionTemplate(factory).getMapper(type);
    }

    /** Rows that others refer to. */
    public Rows rows() {
        return rows;
    }

    public long insert(String sql, Object... values) {
        try (Connection connection = owner(server, name);
                PreparedStatement statement = connection.prepareStatement(sql, Statement.RETURN_GENERATED_KEYS)) {
            fill(statement, values);
            statement.executeUpdate();
            try (ResultSet keys = statement.getGeneratedKeys()) {
                return keys.next() ? keys.getLong(1) : 0;
            }
        } catch (SQLException failed) {
            throw new IllegalStateException(sql + ": " + failed.getMessage(), failed);
        }
    }

    /** Changes rows behind the service's back; how many. */
    public int change(String sql, Object... values) {
        try (Connection connection = owner(server, name);
                PreparedStatement statement = connection.prepareStatement(sql)) {
            fill(statement, values);
            return statement.executeUpdate();
        } catch (SQLException failed) {
            throw new IllegalStateException(sql + ": " + failed.getMessage(), failed);
        }
    }

    /** The name of a row. */
    public String name(String table, long id) {
        try (Connection connection = owner(server, name);
                PreparedStatement statement = connection.prepareStatement("select name from " + table
                        + " where id = ?")) {
            fill(statement, id);
            try (ResultSet row = statement.executeQuery()) {
                row.next();
                return row.getString(1);
            }
        } catch (SQLException failed) {
            throw new IllegalStateException(table + " " + id + ": " + failed.getMessage(), failed);
        }
    }

    private static void fill(PreparedStatement statement, Object... values) throws SQLException {
        for (int at = 0; at < values.length; at++) {
            statement.setObject(at + 1, values[at] instanceof Instant moment ? Timestamp.from(moment) : values[at]);
        }
    }

    /** What so many threads get that do the same at once. */
    public static <T> List<T> atOnce(int threads, Callable<T> what) throws Exception {
        CyclicBarrier together = new CyclicBarrier(threads);
        try (ExecutorService executor = Executors.newFixedThreadPool(threads)) {
            List<Future<T>> futures = new ArrayList<>();
            for (int at = 0; at < threads; at++) {
                futures.add(executor.submit(() -> {
                    together.await();
                    return what.call();
                }));
            }
            List<T> got = new ArrayList<>();
            for (Future<T> future : futures) {
                got.add(future.get());
            }
            return got;
        } catch (ExecutionException failed) {
            throw failed.getCause() instanceof Exception cause ? cause : failed;
        }
    }
}
