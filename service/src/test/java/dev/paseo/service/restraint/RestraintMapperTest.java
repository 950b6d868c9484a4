package dev.paseo.service.restraint;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DuplicateKeyException;

class RestraintMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final RestraintMapper mapper = database.mapper(RestraintMapper.class);
    private final long somebody = database.rows().account();
    private final Rows.Place place = database.rows().place();

    @Test
    void aPlaceHasOneOpenHoldAndAsManyPastOnesAsThereWere() {
        mapper.addHold(place.id(), "the snow", somebody, NOW);
        assertThrows(DuplicateKeyException.class, () -> mapper.addHold(place.id(), "more snow", somebody, NOW));
        assertEquals(1, mapper.liftHold(place.id(), somebody, NOW.plusSeconds(1)));
        mapper.addHold(place.id(), "more snow", somebody, NOW.plusSeconds(2));
        assertEquals(Optional.of("more snow"), mapper.hold(place.id()).map(RestraintMapper.RestraintRow::reason));
        assertEquals(1, mapper.liftHold(place.id(), somebody, NOW.plusSeconds(3)));
        assertEquals(0, mapper.liftHold(place.id(), somebody, NOW.plusSeconds(4)), "none is open any more");
    }

    @Test
    void anEnvironmentHasOneClosureAtATime() {
        mapper.addClosure(place.environment(), "the night", somebody, NOW, NOW.plusSeconds(60));
        assertThrows(DuplicateKeyException.class,
                () -> mapper.addClosure(place.environment(), "the day", somebody, NOW, null));
        assertEquals(true, mapper.closure(place.environment(), NOW).isPresent());
        assertEquals(false, mapper.closure(place.environment(), NOW.plusSeconds(60)).isPresent(), "it ends by itself");
        mapper.liftClosure(place.environment(), somebody, NOW.plusSeconds(90));
        mapper.addClosure(place.environment(), "the day", somebody, NOW.plusSeconds(90), null);
        assertEquals(true, mapper.closure(place.environment(), NOW.plusSeconds(9000)).isPresent());
    }

    @Test
    void whatHoldsAPlaceAndClosesItsEnvironmentIsToldTogether() {
        assertEquals(List.of(), mapper.restrained(place.id(), place.environment(), NOW));
        mapper.addHold(place.id(), "the snow", somebody, NOW);
        mapper.addClosure(place.environment(), "the night", somebody, NOW, NOW.plusSeconds(60));
        assertEquals(Set.of(mapper.hold(place.id()).orElseThrow(),
                mapper.closure(place.environment(), NOW).orElseThrow()),
                Set.copyOf(mapper.restrained(place.id(), place.environment(), NOW)));
        assertEquals(List.of("the snow"), mapper.restrained(place.id(), place.environment(), NOW.plusSeconds(60))
                .stream().filter(row -> !row.closes()).map(RestraintMapper.RestraintRow::reason).toList());
        assertEquals(1, mapper.restrained(place.id(), place.environment(), NOW.plusSeconds(60)).size());
    }

    @Test
    void aVersionIsBlockedOnce() {
        long version = database.rows().version(place.component(), database.rows().line(place.component()), 1);
        assertEquals(1, mapper.block(version, "broken", somebody, NOW));
        assertEquals(0, mapper.block(version, "still", somebody, NOW));
        assertEquals(Optional.of("broken"), mapper.blocked(version).map(RestraintMapper.BlockRow::reason));
        assertEquals(1, mapper.unblock(version));
        assertEquals(0, mapper.unblock(version));
    }
}
