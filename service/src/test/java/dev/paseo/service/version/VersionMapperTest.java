package dev.paseo.service.version;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class VersionMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final VersionMapper mapper = database.mapper(VersionMapper.class);
    private final long component = database.rows().component();
    private final long line = database.rows().line(component);

    @Test
    void aVersionIsFoundByItsNumberAndByASecondName() {
        long version = database.rows().version(component, line, 1);
        String number = mapper.byId(version).number();
        assertEquals(version, mapper.numbered(component, number).orElseThrow().id());
        assertTrue(mapper.numbered(database.rows().component(), number).isEmpty());
        database.insert("insert into version_name (component_id, name, version_id) values (?, 'v2', ?)",
                component, version);
        assertEquals(version, mapper.alsoNamed(component, "v2").orElseThrow().id());
        assertEquals(List.of("v2"), mapper.names(version));
    }

    @Test
    void theNewestComeFirst() {
        long older = database.rows().version(component, line, 1);
        long newer = database.rows().version(component, line, 2);
        assertEquals(List.of(newer, older),
                mapper.newest(component, 9).stream().map(VersionMapper.VersionRow::id).toList());
        assertEquals(1, mapper.newest(component, 1).size());
        assertEquals(2, mapper.count(line));
        assertEquals(Optional.of(2L), mapper.orderOf(line, mapper.byId(newer).number()));
    }
}
