package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class WorkMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WorkMapper mapper = database.mapper(WorkMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long host = database.rows().host(place.id());
    private final long deployment = database.rows().deployment(place.id(),
            database.rows().version(place.component(), database.rows().line(place.component()), 1));
    private final long agent = database.rows().agent();

    private long offered() {
        mapper.offerOnHost("INSTALL", deployment, host, NOW);
        return mapper.offered(agent, host, "[]", true).getFirst().id();
    }

    @Test
    void ofManyAgentsOneGetsAWorkAndItsFenceIsHigher() throws Exception {
        long work = offered();
        AtomicInteger hash = new AtomicInteger();
        String run = Rows.fresh("lease");
        List<Integer> leased = RealDatabase.atOnce(12,
                () -> mapper.lease(work, agent, run + hash.incrementAndGet(), NOW.plusSeconds(60), NOW));
        assertEquals(1, leased.stream().mapToInt(Integer::intValue).sum());
        assertEquals(1, mapper.byId(work).orElseThrow().fence());
        assertEquals(List.of(), mapper.offered(agent, host, "[]", true));
    }

    @Test
    void anOldFenceNeitherExtendsNorEnds() {
        long work = offered();
        mapper.lease(work, agent, Rows.fresh("lease"), NOW.plusSeconds(60), NOW);
        assertEquals(1, mapper.leaseAgain(work, 1, Rows.fresh("lease"), NOW.plusSeconds(90)));
        assertEquals(0, mapper.extend(work, 1, NOW.plusSeconds(120)));
        assertEquals(0, mapper.end(work, 1, "{}", NOW));
        assertEquals(1, mapper.extend(work, 2, NOW.plusSeconds(120)));
        assertEquals(1, mapper.end(work, 2, "{}", NOW));
        assertEquals(0, mapper.end(work, 2, "{}", NOW), "it has ended");
    }

    @Test
    void anAgentThatIsDrainedGetsNothing() {
        long work = offered();
        database.rows().drain(agent);
        assertEquals(0, mapper.lease(work, agent, Rows.fresh("lease"), NOW.plusSeconds(60), NOW));
    }

    @Test
    void leasesLastLongerByWhatWasMissedButNoLongerThanAWholeOne() {
        long work = offered();
        mapper.lease(work, agent, Rows.fresh("lease"), NOW.plusSeconds(60), NOW);
        database.transactions().run(() -> {
            mapper.extendAll(30_000_000, NOW.plusSeconds(300));
            assertEquals(NOW.plusSeconds(90), mapper.byId(work).orElseThrow().leaseUntil());
            mapper.extendAll(3_600_000_000L, NOW.plusSeconds(300));
            assertEquals(NOW.plusSeconds(300), mapper.byId(work).orElseThrow().leaseUntil());
        });
    }
}
