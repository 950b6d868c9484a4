package dev.paseo.service.chain;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ChainMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final ChainMapper mapper = database.mapper(ChainMapper.class);
    private final long component = database.rows().component();
    private final long run = database.rows().run(component, database.rows().line(component));

    @Test
    void aCauseIsLedFromToAllThatItLedTo() {
        long push = database.rows().cause();
        long left = led(push);
        long right = led(push);
        long deep = led(left);
        led(database.rows().cause());
        assertEquals(Set.of(push, left, right, deep),
                Set.copyOf(mapper.led(push).stream().map(ChainMapper.CauseRow::id).toList()));
    }

    private long led(long by) {
        return database.insert("insert into cause (parent_id, kind, body, at) values (?, 'run', '{}', ?)", by, NOW);
    }

    @Test
    void aRunIsFoundByItsCauseAndItsCauseByTheRun() {
        String name = database.name("component", component);
        long cause = mapper.causeOfRun(name, 1).orElseThrow();
        assertEquals(List.of(run), mapper.runs(List.of(cause)).stream().map(ChainMapper.RunRow::id).toList());
        assertTrue(mapper.causeOfRun(name, 2).isEmpty());
    }
}
