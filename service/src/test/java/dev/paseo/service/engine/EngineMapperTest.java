package dev.paseo.service.engine;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.EngineMapper.EffectRow;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class EngineMapperTest {

    private static final RealDatabase DATABASE = RealDatabase.get();
    private static final Instant NOW = Rows.NOON;

    private final EngineMapper mapper = DATABASE.mapper(EngineMapper.class);
    private final String kind = Rows.fresh("kind");

    private int add(String aggregate, String key) {
        return mapper.addEffect(aggregate, key, kind, "{}", NOW, NOW.plusSeconds(60));
    }

    private List<EffectRow> next() {
        return DATABASE.transactions().in(() -> mapper.nextEffects(NOW, kind));
    }

    @Test
    void whatIsAskedTwiceIsDoneOnce() {
        String key = Rows.fresh("key");
        assertEquals(1, add("place 1", key));
        assertEquals(0, add("place 1", key));
        assertEquals(1, next().size());
    }

    @Test
    void whoServesIsKnownForADay() {
        String name = Rows.fresh("replica");
        mapper.serves(name, NOW, NOW);
        mapper.serves(name, NOW, NOW.plusSeconds(5));
        assertEquals(0, mapper.forget(NOW.plusSeconds(5)), "it was at work then");
        assertEquals(1, mapper.forget(NOW.plusSeconds(6)), "it is one row, however often it is seen");
    }

    @Test
    void onlyTheLowestOfAnAggregateIsNext() {
        String one = Rows.fresh("place");
        String other = Rows.fresh("place");
        add(one, Rows.fresh("key"));
        add(one, Rows.fresh("key"));
        add(other, Rows.fresh("key"));
        List<EffectRow> next = next();
        assertEquals(List.of(one, other), next.stream().map(EffectRow::aggregate).toList());
        mapper.done(next.getFirst().id(), NOW);
        List<EffectRow> then = next();
        assertEquals(List.of(one, other), then.stream().map(EffectRow::aggregate).sorted().toList());
        assertEquals(false, then.stream().map(EffectRow::id).toList().contains(next.getFirst().id()));
    }

    @Test
    void ofManyThatClaimOneGetsIt() throws Exception {
        add(Rows.fresh("place"), Rows.fresh("key"));
        EffectRow row = next().getFirst();
        List<Integer> claimed = RealDatabase.atOnce(12,
                () -> mapper.claim(row.id(), row.tries(), NOW.plusSeconds(30)));
        assertEquals(1, claimed.stream().mapToInt(Integer::intValue).sum());
        assertEquals(List.of(), next(), "it is in hand");
        assertEquals(1, DATABASE.transactions().in(() -> mapper.nextEffects(NOW.plusSeconds(31), kind)).size(),
                "whoever had it did not come back");
    }

    @Test
    void whatIsDoneIsNeitherDoneAgainNorPutOff() {
        add(Rows.fresh("place"), Rows.fresh("key"));
        long id = next().getFirst().id();
        assertEquals(1, mapper.done(id, NOW));
        assertEquals(0, mapper.done(id, NOW));
        assertEquals(0, mapper.again(id, NOW, "late"));
        assertEquals(0, mapper.goesOn(id, NOW));
    }

    @Test
    void othersPassOverWhatIsLocked() throws Exception {
        for (int at = 0; at < 40; at++) {
            add(Rows.fresh("place"), Rows.fresh("key"));
        }
        List<List<Long>> taken = RealDatabase.atOnce(6, () -> DATABASE.transactions().in(() -> {
            List<EffectRow> rows = mapper.nextEffects(NOW, kind);
            rows.forEach(row -> mapper.claim(row.id(), row.tries(), NOW.plusSeconds(30)));
            return rows.stream().map(EffectRow::id).toList();
        }));
        List<Long> all = taken.stream().flatMap(List::stream).toList();
        assertEquals(all.size(), all.stream().distinct().count(), "two took the same: " + taken);
    }
}
