package dev.paseo.service.passage;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class WalkStayMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WalkStayMapper mapper = database.mapper(WalkStayMapper.class);
    private final long component = database.rows().component();
    private final long line = database.rows().line(component);

    private long stays(long order) {
        long version = database.rows().version(component, line, order);
        mapper.stay(version, "staging", "test", "no hosts", NOW, NOW.plusSeconds(10));
        return version;
    }

    @Test
    void aStayIsKeptOnceWithItsFirstMomentAndItsLastReason() {
        long version = stays(1);
        mapper.stay(version, "staging", "test", "no secret", NOW.plusSeconds(60), NOW.plusSeconds(70));
        WalkStayMapper.StayRow row = mapper.of(version, "staging").orElseThrow();
        assertEquals("no secret", row.reason());
        assertEquals(NOW, row.sinceAt());
        assertEquals(NOW.plusSeconds(70), row.retryAt());
    }

    @Test
    void ofManyReplicasOneTriesIt() throws Exception {
        long version = stays(1);
        assertEquals(1, RealDatabase.atOnce(12,
                () -> mapper.claim(version, "staging", NOW.plusSeconds(10), NOW.plusSeconds(20))).stream()
                .mapToInt(Integer::intValue).sum());
    }

    @Test
    void aNewerOneOfTheLineTakesTheOlderOnesPlaceThereAlone() {
        long older = stays(1);
        long newer = stays(2);
        mapper.stay(older, "production", "staging", "no hosts", NOW, NOW);
        long otherLine = database.rows().version(component, database.rows().line(component), 1);
        mapper.stay(otherLine, "staging", "test", "no hosts", NOW, NOW);
        assertEquals(1, mapper.overtaken(newer, "staging"));
        assertEquals(Optional.empty(), mapper.of(older, "staging"));
        assertEquals(true, mapper.of(older, "production").isPresent());
        assertEquals(true, mapper.of(otherLine, "staging").isPresent());
        assertEquals(0, mapper.overtaken(older, "staging"), "never the newer by the older");
    }
}
