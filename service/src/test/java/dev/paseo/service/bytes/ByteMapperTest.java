package dev.paseo.service.bytes;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class ByteMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final ByteMapper mapper = database.mapper(ByteMapper.class);
    private final String digest = database.rows().digest();

    @Test
    void bytesArriveOnceHoweverManyBringThem() throws Exception {
        List<Integer> arrived = RealDatabase.atOnce(12, () -> mapper.arrived(digest, 7, NOW));
        assertEquals(1, arrived.stream().mapToInt(Integer::intValue).sum());
    }

    @Test
    void oneReplicaReadsThemAgain() throws Exception {
        mapper.arrived(digest, 7, NOW);
        List<Integer> taken = RealDatabase.atOnce(12, () -> mapper.scrubbed(digest, null, NOW));
        assertEquals(1, taken.stream().mapToInt(Integer::intValue).sum());
        assertEquals(0, mapper.scrubbed(digest, NOW.minusSeconds(1), NOW), "somebody else did since");
    }

    @Test
    void whatIsReferredToIsReferredToOnceByEach() {
        mapper.arrived(digest, 7, NOW);
        mapper.refer(digest, "run", 1);
        mapper.refer(digest, "run", 1);
        mapper.refer(digest, "run", 2);
        assertEquals(2, mapper.referred(digest, "run"));
        assertEquals(0, mapper.referred(digest, "version"));
    }

    @Test
    void damagedBytesAreCountedUntilMended() {
        mapper.arrived(digest, 7, NOW);
        int before = mapper.damagedCount();
        mapper.damaged(digest, "f".repeat(64), NOW);
        assertEquals(before + 1, mapper.damagedCount());
        mapper.mended(digest);
        assertEquals(before, mapper.damagedCount());
    }
}
