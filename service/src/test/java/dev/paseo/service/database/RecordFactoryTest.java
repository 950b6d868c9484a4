package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.apache.ibatis.reflection.ReflectionException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class RecordFactoryTest {

    private record Row(long id, @Nullable Instant at) {}

    private static final List<Class<?>> TYPES = List.of(long.class, Instant.class);

    private final RecordFactory factory = new RecordFactory();

    private static List<Object> values(@Nullable Object... values) {
        return new ArrayList<>(Arrays.asList(values));
    }

    @Test
    void aRecordIsMadeOfItsColumnsAgainAndAgain() {
        for (long id = 0; id < 3; id++) {
            assertEquals(new Row(id, Rows.NOON), factory.create(Row.class, TYPES, values(id, Rows.NOON)));
        }
        assertEquals(new Row(7, null), factory.create(Row.class, TYPES, values(7L, null)));
    }

    @Test
    void whatDoesNotFitSaysWhich() {
        assertEquals("A dev.paseo.service.database.RecordFactoryTest$Row cannot be made of [null, null]",
                assertThrows(ReflectionException.class, () -> factory.create(Row.class, TYPES, values(null, null)))
                        .getMessage());
        assertThrows(ReflectionException.class,
                () -> new RecordFactory().create(Row.class, List.of(String.class), values("seven")));
    }

    @Test
    void whatIsNoRecordIsMadeAsBefore() {
        assertEquals(List.of(), factory.create(List.class));
    }
}
