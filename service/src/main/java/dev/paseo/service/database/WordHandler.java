package dev.paseo.service.database;

import dev.paseo.core.text.Word;
import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.jspecify.annotations.Nullable;

/** Constants in rows, as their words. A word that is none of its type's is an error, never passed over. */
public class WordHandler<E extends Enum<E>> extends BaseTypeHandler<E> {

    private final Class<E> type;

    public WordHandler(Class<E> type) {
        this.type = type;
    }

    @Override
    public void setNonNullParameter(PreparedStatement statement, int at, E constant, @Nullable JdbcType jdbcType)
            throws SQLException {
        statement.setString(at, Word.of(constant));
    }

    private @Nullable E constant(@Nullable String word) throws SQLException {
        return word == null ? null : Word.read(type, word)
                .orElseThrow(() -> new SQLException("'" + word + "' is no " + type.getSimpleName()));
    }

    @Override
    public @Nullable E getNullableResult(ResultSet rows, String column) throws SQLException {
        return constant(rows.getString(column));
    }

    @Override
    public @Nullable E getNullableResult(ResultSet rows, int column) throws SQLException {
        return constant(rows.getString(column));
    }

    @Override
    public @Nullable E getNullableResult(CallableStatement call, int column) throws SQLException {
        return constant(call.getString(column));
    }
}
