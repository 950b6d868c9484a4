package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class TakeMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final TakeMapper mapper = database.mapper(TakeMapper.class);
    private final long component = database.rows().component();
    private final long line = database.rows().line(component);

    private void block(long version) {
        database.change("update version set blocked_at = ? where id = ?", NOW, version);
    }

    @Test
    void theNewestIsTakenThatIsTrustedAndNotBlocked() {
        long first = database.rows().version(component, line, 1);
        long second = database.rows().version(component, line, 2);
        long third = database.rows().version(component, line, 3);
        database.change("update version set trusted = false where id = ?", third);
        assertEquals(second, mapper.newest(component).orElseThrow().version());
        block(second);
        assertEquals(first, mapper.newest(component).orElseThrow().version());
        assertTrue(mapper.cameWith(second).isEmpty());
        block(first);
        assertTrue(mapper.newest(component).isEmpty());
    }

    @Test
    void aBranchGoesOnWithWhatItUsedLast() {
        long from = database.rows().component();
        long version = database.rows().version(from, database.rows().line(from), 1);
        long run = database.rows().run(component, line);
        mapper.add(run, 0, new Takes.Decided("build", version, "app", "lib", "the newest"));
        assertEquals(version, mapper.lastUsed(line, from).orElseThrow().version());
        assertTrue(mapper.lastUsed(database.rows().line(component), from).isEmpty(), "another branch did not");
    }

    @Test
    void whatIsNotOpenedIsNotOpen() {
        long from = database.rows().component();
        assertTrue(mapper.opened(component, from).isEmpty());
        database.insert("insert into component_source (component_id, source_id, all_branches) values (?, ?, false)",
                component, from);
        assertEquals(Optional.of(false), mapper.opened(component, from));
    }
}
