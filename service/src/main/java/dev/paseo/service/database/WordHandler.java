package dev.paseo.service.database;

import dev.paseo.core.text.Word;
import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.jspecify.annotations.Nullable;

/** Constants in rows, as their words. A word that is none of its type's is an error, never passed over. */
public class WordHandler<E extends Enum<E>> extends BaseTypeHandler<E> {

    private final Class<E> type;
    private final Map<String, E> constants;

    public WordHandler(Class<E> type) {
        this.type = type;
        this.constants = Arrays.stream(type.getEnumConstants())
                .collect(Collectors.toMap(Word::of, Function.identity()));
    }

    @Override
    public void setNonNullParameter(PreparedStatement statement, int at, E constant, @Nullable JdbcType jdbcType)
            throws SQLException {
        statement.setString(at, Word.of(constant));
    }

    private @Nullable E constant(@Nullable String word) throws SQLException {
        @Nullable
        E constant = word == null ? null : constants.get(word);
        if (word != null && constant == null) {
            throw new SQLException("'" + word + "' is no " + type.getSimpleName());
        }
        return constant;
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
