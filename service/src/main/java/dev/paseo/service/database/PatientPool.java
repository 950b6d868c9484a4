package dev.paseo.service.database;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.HikariPoolMXBean;
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
                if (!hasSome(getHikariPoolMXBean(), getMaximumPoolSize())
                        || System.nanoTime() - began > LONGEST) {
                    throw none;
                }
            }
        }
    }

    /** All are in use, or one was given back at the very moment at which no more was waited. */
    static boolean hasSome(HikariPoolMXBean pool, int most) {
        return pool.getActiveConnections() == most || pool.getIdleConnections() > 0;
    }
}
