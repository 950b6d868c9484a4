package dev.paseo.service.database;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;

/**
 * The pool of connections. While the database is away, whoever asks hears so after the pool's own time; where all
 * connections are in use, which a slow disk does for seconds, it is waited for longer.
 */
final class PatientPool extends HikariDataSource {

    private static final long LONGEST = Duration.ofSeconds(10).toNanos();

    @Override
    public Connection getConnection() throws SQLException {
        long began = System.nanoTime();
        while (true) {
            try {
                return super.getConnection();
            } catch (SQLTransientConnectionException none) {
                boolean busy = getHikariPoolMXBean().getActiveConnections() == getMaximumPoolSize();
                if (!busy || System.nanoTime() - began > LONGEST) {
                    throw none;
                }
            }
        }
    }
}
