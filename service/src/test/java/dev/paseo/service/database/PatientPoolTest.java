package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.zaxxer.hikari.HikariPoolMXBean;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;
import javax.sql.DataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Both ways of having no connection to give. */
class PatientPoolTest {

    private static PatientPool pool(DataSource database) {
        PatientPool pool = new PatientPool();
        pool.setDataSource(database);
        pool.setMaximumPoolSize(1);
        pool.setConnectionTimeout(250);
        pool.setInitializationFailTimeout(-1);
        return pool;
    }

    /**
     * Before: refused after the pool's own time, so that whoever shared a slow disk with others heard that the database
     * is away.
     */
    @Test
    void whereAllAreInUseItIsWaitedFor() throws Exception {
        Connection connection = mock(Connection.class);
        when(connection.isValid(anyInt())).thenReturn(true);
        DataSource database = mock(DataSource.class);
        when(database.getConnection()).thenReturn(connection);
        try (PatientPool pool = pool(database); Connection held = pool.getConnection()) {
            Thread.startVirtualThread(() -> close(held, 800));
            try (Connection second = pool.getConnection()) {
                assertEquals(true, second.isValid(1));
            }
        }
    }

    /** Before: a connection that was given back between the end of the wait and this question counted as none. */
    @ParameterizedTest
    @CsvSource({"2, 0, true", "0, 1, true", "1, 1, true", "0, 0, false", "1, 0, false"})
    void oneThatWasGivenBackMeanwhileCounts(int active, int idle, boolean some) {
        HikariPoolMXBean pool = mock(HikariPoolMXBean.class);
        when(pool.getActiveConnections()).thenReturn(active);
        when(pool.getIdleConnections()).thenReturn(idle);
        assertEquals(some, PatientPool.hasSome(pool, 2));
    }

    private static void close(Connection held, long after) {
        try {
            Thread.sleep(after);
            held.close();
        } catch (SQLException | InterruptedException failed) {
            throw new IllegalStateException(failed);
        }
    }

    @Test
    void whileTheDatabaseIsAwayItIsToldSoon() throws Exception {
        DataSource database = mock(DataSource.class);
        when(database.getConnection()).thenThrow(new SQLException("away"));
        try (PatientPool pool = pool(database)) {
            long began = System.nanoTime();
            assertThrows(SQLTransientConnectionException.class, pool::getConnection);
            assertTrue(Duration.ofNanos(System.nanoTime() - began).toMillis() < 2000);
        }
    }
}
