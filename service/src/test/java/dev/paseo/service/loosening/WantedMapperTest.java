package dev.paseo.service.loosening;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DuplicateKeyException;

class WantedMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WantedMapper mapper = database.mapper(WantedMapper.class);
    private final long somebody = database.rows().account();
    private final long wanted = database.rows().wantedLoosening(somebody);

    @Test
    void itEndsOnceHoweverManyEndIt() throws Exception {
        List<Integer> ended = RealDatabase.atOnce(12, () -> mapper.end(wanted, "agreed", "by all", NOW));
        assertEquals(1, ended.stream().mapToInt(Integer::intValue).sum());
        assertEquals("agreed", mapper.byId(wanted).orElseThrow().status());
        assertEquals(0, mapper.end(wanted, "refused", "late", NOW.plusSeconds(1)));
    }

    @Test
    void everybodySaysOneWord() {
        mapper.say(wanted, somebody, true, "fine", NOW);
        assertThrows(DuplicateKeyException.class, () -> mapper.say(wanted, somebody, false, "no", NOW));
        assertEquals(List.of("fine"), mapper.words(wanted).stream().map(WantedMapper.WordRow::comment).toList());
    }
}
