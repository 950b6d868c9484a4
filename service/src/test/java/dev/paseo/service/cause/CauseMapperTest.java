package dev.paseo.service.cause;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class CauseMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final CauseMapper mapper = database.mapper(CauseMapper.class);

    private long add(Long parent, String kind) {
        CauseMapper.NewCause cause = new CauseMapper.NewCause(parent, kind, "{}", NOW);
        mapper.add(cause);
        return cause.id;
    }

    @Test
    void aChainLeadsBackToItsBeginning() {
        long push = add(null, "push");
        long run = add(push, "run");
        long live = add(run, "live");
        add(push, "run");
        assertEquals(List.of(live, run, push), mapper.chain(live).stream().map(CauseMapper.CauseRow::id).toList());
        assertEquals(run, mapper.all(List.of(live)).getFirst().parentId());
    }
}
