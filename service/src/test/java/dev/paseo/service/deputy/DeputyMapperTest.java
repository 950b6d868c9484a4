package dev.paseo.service.deputy;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class DeputyMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final DeputyMapper mapper = database.mapper(DeputyMapper.class);
    private final long account = database.rows().account();
    private final long deputy = database.rows().account();

    private long from(Instant from, Instant until) {
        mapper.add(account, deputy, from, until, account);
        String name = database.name("account", account);
        return mapper.all(NOW.minusSeconds(1)).stream().filter(row -> row.account().equals(name)).findFirst()
                .orElseThrow().id();
    }

    @Test
    void aDeputyIsLiftedOnce() throws Exception {
        long id = from(NOW, NOW.plusSeconds(60));
        List<Integer> lifted = RealDatabase.atOnce(12, () -> mapper.lift(id, NOW));
        assertEquals(1, lifted.stream().mapToInt(Integer::intValue).sum());
        assertTrue(mapper.byId(id).isEmpty());
    }

    @Test
    void whoseTimeBeganOrEndedIsNoticedAtThatMoment() {
        Instant far = NOW.plus(Duration.ofDays(4000));
        from(far, far.plusSeconds(60));
        assertEquals(1, mapper.changed(far.minusSeconds(1), far));
        assertEquals(0, mapper.changed(far, far.plusSeconds(59)));
        assertEquals(1, mapper.changed(far.plusSeconds(59), far.plusSeconds(60)));
    }
}
