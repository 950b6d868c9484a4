package dev.paseo.service.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.trigger.PollMapper.PollRow;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class PollMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final PollMapper mapper = RealDatabase.get().mapper(PollMapper.class);
    private final String repository = "file:///" + Rows.fresh("repository");

    private PollRow row() {
        return mapper.of(repository).orElseThrow();
    }

    @Test
    void ofManyReplicasOneLooks() throws Exception {
        assertEquals(1, mapper.add(repository, NOW));
        assertEquals(0, mapper.add(repository, NOW.plusSeconds(5)), "it is known already");
        PollRow row = row();
        assertEquals(1, RealDatabase.atOnce(12, () -> mapper.claim(repository, row.nextAt(), NOW.plusSeconds(60)))
                .stream().mapToInt(Integer::intValue).sum());
        assertEquals(NOW.plusSeconds(60), row().nextAt());
    }

    @Test
    void failuresAreCountedUntilItIsSeenAgain() {
        mapper.add(repository, NOW);
        mapper.failed(repository, NOW.plusSeconds(10), "no answer");
        mapper.failed(repository, NOW.plusSeconds(30), "still none");
        assertEquals(2, row().failures());
        assertEquals("still none", row().lastError());
        mapper.looked(repository, NOW.plusSeconds(60), "abc", NOW);
        assertEquals(0, row().failures());
        assertNull(row().lastError());
        assertEquals("abc", row().listing());
    }
}
