package dev.paseo.service.passage;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class PassageMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final PassageMapper mapper = database.mapper(PassageMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long line = database.rows().line(place.component());

    private long opened(long order) {
        long version = database.rows().version(place.component(), line, order);
        mapper.open(version, place.environment(), database.rows().deployment(place.id(), version), NOW);
        return mapper.of(version, place.environment()).orElseThrow();
    }

    @Test
    void aVersionPassesAnEnvironmentOnce() throws Exception {
        long version = database.rows().version(place.component(), line, 1);
        long deployment = database.rows().deployment(place.id(), version);
        assertEquals(1, RealDatabase.atOnce(8, () -> mapper.open(version, place.environment(), deployment, NOW))
                .stream().mapToInt(Integer::intValue).sum());
        long id = mapper.of(version, place.environment()).orElseThrow();
        assertEquals(1, RealDatabase.atOnce(8, () -> mapper.end(id, NOW)).stream().mapToInt(Integer::intValue).sum());
    }

    @Test
    void aTestThatFailedIsForgottenOnceItSettles() {
        long id = opened(1);
        assertEquals(1, mapper.testFailed(id, "a link is dead", NOW));
        assertEquals("a link is dead", mapper.byId(id).orElseThrow().testFailure());
        mapper.settle(id, NOW);
        assertNull(mapper.byId(id).orElseThrow().testFailure());
        assertEquals(0, mapper.testFailed(id, "late", NOW), "it has settled");
        mapper.settle(id, NOW.plusSeconds(60));
        assertEquals(NOW, mapper.byId(id).orElseThrow().settledAt(), "the first time counts");
    }

    @Test
    void onlyOpenPassagesOfOtherVersionsAreLookedAtAgain() {
        long first = opened(1);
        long second = opened(2);
        long ended = opened(3);
        mapper.end(ended, NOW);
        long version = mapper.byId(second).orElseThrow().versionId();
        assertEquals(1, mapper.wakeOthers(place.environment(), place.component(), version, NOW));
        assertEquals(true, mapper.due(NOW).contains(first));
    }
}
