package dev.paseo.service.start;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class StartTriggerMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final long component = database.rows().component();

    @Test
    void aClockStartsItsComponentOnceForAllReplicas() throws Exception {
        StartTriggerMapper clocks = database.mapper(StartTriggerMapper.class);
        clocks.add(new StartTriggerMapper.Row(component, 1, "clock", "", "", "0 3 * * *", "UTC", NOW));
        List<Integer> fired = RealDatabase.atOnce(12,
                () -> clocks.fire(component, 1, NOW, NOW.plusSeconds(86_400)));
        assertEquals(1, fired.stream().mapToInt(Integer::intValue).sum());
    }
}
