package dev.paseo.service.loosening;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class LooseningMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final LooseningMapper mapper = database.mapper(LooseningMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long account = database.rows().account();
    private final String by = database.name("account", account);

    @Test
    void theNewestSinceAMomentCountsForThePlace() {
        mapper.add(place.environment(), null, "one approval fewer", by, NOW);
        mapper.add(null, place.component(), "a secret more", by, NOW.plusSeconds(1));
        assertEquals("a secret more",
                mapper.newest(place.environment(), place.component(), NOW.minusSeconds(1)).orElseThrow().what());
        assertEquals("one approval fewer",
                mapper.newest(place.environment(), 0, NOW.minusSeconds(1)).orElseThrow().what());
        assertTrue(mapper.newest(place.environment(), place.component(), NOW.plusSeconds(1)).isEmpty());
    }

    @Test
    void aDeploymentIsReviewedOnceForIt() {
        long version = database.rows().version(place.component(), database.rows().line(place.component()), 1);
        long deployment = database.rows().deployment(place.id(), version);
        assertEquals(1, mapper.review(deployment, NOW, "looser", account));
        assertEquals(0, mapper.review(deployment, NOW.plusSeconds(1), "looser still", account));
    }
}
