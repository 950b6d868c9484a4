package dev.paseo.service.quota;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class QuotaMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final QuotaMapper mapper = database.mapper(QuotaMapper.class);
    private final long component = database.rows().component();

    @Test
    void whatIsKeptAddsUpHoweverManyKeep() throws Exception {
        RealDatabase.atOnce(12, () -> mapper.add(component, 5));
        assertEquals(60, mapper.of(component).orElseThrow().bytes());
    }

    @Test
    void peopleHearOnceThatItIsNearlyAll() throws Exception {
        mapper.add(component, 5);
        List<Integer> told = RealDatabase.atOnce(12, () -> mapper.told(component, true));
        assertEquals(1, told.stream().mapToInt(Integer::intValue).sum());
    }
}
