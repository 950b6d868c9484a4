package dev.paseo.service.database;

import java.sql.CallableStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.apache.ibatis.type.InstantTypeHandler;
import org.jspecify.annotations.Nullable;

/**
 * Reads moments; all sessions are in UTC. By way of {@code Timestamp}, as MyBatis does it, the driver makes a calendar
 * for each.
 */
final class InstantHandler extends InstantTypeHandler {

    @Override
    public @Nullable Instant getNullableResult(ResultSet rows, String column) throws SQLException {
        return instant(rows.getObject(column, LocalDateTime.class));
    }

    @Override
    public @Nullable Instant getNullableResult(ResultSet rows, int column) throws SQLException {
        return instant(rows.getObject(column, LocalDateTime.class));
    }

    @Override
    public @Nullable Instant getNullableResult(CallableStatement call, int column) throws SQLException {
        return instant(call.getObject(column, LocalDateTime.class));
    }

    private static @Nullable Instant instant(@Nullable LocalDateTime moment) {
        return moment == null ? null : moment.toInstant(ZoneOffset.UTC);
    }
}
