package dev.paseo.service.log;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class LogMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final LogMapper mapper = database.mapper(LogMapper.class);
    private final long work = database.rows().work();

    @Test
    void aBlockIsKeptOnceHoweverOftenItComes() throws Exception {
        assertEquals(1, mapper.nextLine(work));
        String digest = database.rows().digest();
        List<Integer> added = RealDatabase.atOnce(12, () -> mapper.add(work, 1, 40, digest, 1));
        assertEquals(1, added.stream().mapToInt(Integer::intValue).sum());
        assertEquals(41, mapper.nextLine(work));
    }

    @Test
    void aLineIsInTheBlockThatBeganBeforeIt() {
        mapper.add(work, 1, 40, database.rows().digest(), 1);
        mapper.add(work, 41, 10, database.rows().digest(), 2);
        assertEquals(List.of(41L), mapper.blocks(work, 45).stream().map(LogMapper.BlockRow::firstLine).toList());
        assertEquals(List.of(1L, 41L), mapper.blocks(work, 40).stream().map(LogMapper.BlockRow::firstLine).toList());
    }

    @Test
    void theAgentsOwnWordsStandBeforeTheStepsOrAfterThem() {
        mapper.add(work, 1, 2, database.rows().digest(), 0);
        mapper.add(work, 3, 5, database.rows().digest(), 1);
        mapper.add(work, 8, 1, database.rows().digest(), 0);
        assertEquals(List.of(new LogMapper.SpanRow(0, 1, 2), new LogMapper.SpanRow(1, 3, 7),
                new LogMapper.SpanRow(0, 8, 8)), mapper.spans(work));
    }
}
