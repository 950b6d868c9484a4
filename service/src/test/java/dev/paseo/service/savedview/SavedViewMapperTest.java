package dev.paseo.service.savedview;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class SavedViewMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final SavedViewMapper mapper = database.mapper(SavedViewMapper.class);
    private final Rows rows = database.rows();
    private final long own = rows.account();
    private final long other = rows.account();

    private List<String> seen(long account) {
        return mapper.seenBy(account).stream().filter(row -> row.address().startsWith("/mine"))
                .map(row -> row.name() + " " + row.address()).toList();
    }

    @Test
    void oneSeesOnesOwnAndThoseForEverybody() {
        mapper.keep(own, "a", "/mine/" + own, false, Rows.NOON);
        mapper.keep(own, "b", "/mine/" + own, true, Rows.NOON);
        assertEquals(2, mapper.count(own));
        assertTrue(seen(own).containsAll(List.of("a /mine/" + own, "b /mine/" + own)));
        assertTrue(seen(other).contains("b /mine/" + own));
        assertTrue(!seen(other).contains("a /mine/" + own));
        mapper.keep(own, "b", "/mine/again/" + own, false, Rows.NOON);
        assertEquals(2, mapper.count(own), "the one of that name is replaced");
        assertTrue(!seen(other).contains("b /mine/again/" + own));
        SavedViewMapper.ViewRow row = mapper.seenBy(own).getFirst();
        assertEquals(row, mapper.byId(row.id()).orElseThrow());
        mapper.drop(row.id());
        assertTrue(mapper.byId(row.id()).isEmpty());
    }
}
