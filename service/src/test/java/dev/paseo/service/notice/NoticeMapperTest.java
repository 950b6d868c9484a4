package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.notice.NoticeMapper.NoticeRow;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class NoticeMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final NoticeMapper mapper = database.mapper(NoticeMapper.class);
    private final long somebody = database.rows().account();

    private int tell(String dedupe) {
        return mapper.add(somebody,
                Notices.Said.of(NoticeKind.WAITS, "daylight-api", "It waits", "It waits.", "/", dedupe),
                NOW, NOW, null);
    }

    @Test
    void whatIsToldTwiceIsToldOnce() {
        assertEquals(1, tell("deployment 7 waits"));
        assertEquals(0, tell("deployment 7 waits"));
        assertEquals(1, mapper.unread(somebody));
    }

    @Test
    void ofManyThatMailOneTakesEach() throws Exception {
        for (int at = 0; at < 20; at++) {
            tell("deployment " + at + " waits");
        }
        List<List<Long>> taken = RealDatabase.atOnce(6, () -> database.transactions().in(() -> {
            List<NoticeRow> rows = mapper.dueOf(somebody, NOW);
            rows.forEach(row -> mapper.claim(row.id(), NOW.plusSeconds(60)));
            return rows.stream().map(NoticeRow::id).toList();
        }));
        List<Long> all = taken.stream().flatMap(List::stream).toList();
        assertEquals(20, all.size(), taken::toString);
        assertEquals(20, all.stream().distinct().count());
    }

    @Test
    void whatWasReadStaysReadAndLaterOnesDoNot() {
        tell("one");
        long first = mapper.newest(somebody, 1).getFirst().id();
        tell("two");
        assertEquals(1, mapper.read(somebody, first, NOW));
        assertEquals(1, mapper.unread(somebody));
    }

    @Test
    void aLinkWorksOnceUntilItsEnd() {
        String hash = Rows.fresh("hash");
        mapper.addLink(hash, somebody, "/deployments/7", NOW.plusSeconds(60));
        assertEquals(0, mapper.use(hash, NOW.plusSeconds(60)), "it has expired then");
        assertEquals(1, mapper.use(hash, NOW));
        assertEquals(0, mapper.use(hash, NOW));
    }
}
