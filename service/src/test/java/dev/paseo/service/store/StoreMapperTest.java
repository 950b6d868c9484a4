package dev.paseo.service.store;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class StoreMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final StoreMapper mapper = database.mapper(StoreMapper.class);
    private final long component = database.rows().component();
    private final long store = database.rows().store(component);

    private boolean due(Instant at) {
        return mapper.due(at).stream().anyMatch(row -> row.id() == store);
    }

    @Test
    void ofManyReplicasOneLooks() throws Exception {
        assertTrue(due(NOW));
        assertEquals(1, RealDatabase.atOnce(12, () -> mapper.claim(store, NOW, NOW.plusSeconds(60))).stream()
                .mapToInt(Integer::intValue).sum());
        assertFalse(due(NOW));
        assertTrue(due(NOW.plusSeconds(60)), "whoever had it did not come back");
    }

    @Test
    void aStoreOfARetiredComponentIsNotLookedAt() {
        database.rows().retire(component);
        assertFalse(due(NOW));
    }

    @Test
    void whatWasSeenIsSeenOnce() {
        assertEquals(1, mapper.see(store, "1.0", "abc", null, "no version fits", NOW));
        assertEquals(0, mapper.see(store, "1.0", "def", null, null, NOW.plusSeconds(5)));
        mapper.say(store, "1.0", "it is another now");
        assertEquals("it is another now", mapper.sightings(store).getFirst().reason());
        assertEquals("abc", mapper.sightings(store).getFirst().digest());
    }
}
