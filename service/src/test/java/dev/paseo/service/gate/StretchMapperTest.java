package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class StretchMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final StretchMapper mapper = database.mapper(StretchMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);

    @Test
    void aStretchBegunTwiceBeganWhenItBegan() {
        mapper.begin(place.id(), version, NOW);
        mapper.begin(place.id(), version, NOW.plusSeconds(5));
        assertEquals(NOW, mapper.of(place.id(), version).orElseThrow().sinceAt());
    }

    @Test
    void thoseOfSeveralEnvironmentsAreToldTogether() {
        String environment = database.name("environment", place.environment());
        assertEquals(List.of(), mapper.in(List.of(environment, "elsewhere"), version));
        mapper.begin(place.id(), version, NOW);
        assertEquals(List.of(new StretchMapper.StretchInRow(environment, NOW, 0)),
                mapper.in(List.of(environment, "elsewhere"), version));
        database.change("update place set retired_at = ? where id = ?", NOW, place.id());
        assertEquals(List.of(), mapper.in(List.of(environment, "elsewhere"), version), "nothing is there any more");
    }

    @Test
    void theLongestIsKept() {
        mapper.begin(place.id(), version, NOW);
        mapper.end(place.id(), NOW.plusSeconds(60));
        mapper.begin(place.id(), version, NOW.plusSeconds(90));
        mapper.end(place.id(), NOW.plusSeconds(100));
        assertEquals(60_000_000, mapper.of(place.id(), version).orElseThrow().longestMicros());
        assertEquals(0, mapper.end(place.id(), NOW.plusSeconds(200)), "it has ended");
    }
}
