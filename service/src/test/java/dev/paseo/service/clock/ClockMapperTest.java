package dev.paseo.service.clock;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class ClockMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final ClockMapper mapper = database.mapper(ClockMapper.class);

    @Test
    void theClockIsMovedForwardByAll() throws Exception {
        Instant before = mapper.now().at();
        long moved = mapper.now().moved();
        RealDatabase.atOnce(4, () -> mapper.forward(1_000_000));
        assertEquals(moved + 4_000_000, mapper.now().moved());
        assertFalse(mapper.now().at().isBefore(before.plusSeconds(4)));
        mapper.forward(-4_000_000);
    }
}
