package dev.paseo.service.outside;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class OutsideMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final OutsideMapper mapper = database.mapper(OutsideMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long deployment = database.rows().deployment(place.id(),
            database.rows().version(place.component(), database.rows().line(place.component()), 1));

    @Test
    void theFirstAnswerCountsHoweverManyCome() throws Exception {
        String hash = Rows.fresh("token");
        assertEquals(1, mapper.ask(deployment, "change-desk", hash, NOW));
        assertEquals(0, mapper.ask(deployment, "change-desk", Rows.fresh("token"), NOW), "it was asked already");
        long asked = database.transactions().in(() -> mapper.byToken(hash).orElseThrow().id());
        List<Integer> answered = RealDatabase.atOnce(12, () -> mapper.answer(asked, true, "fine", NOW));
        assertEquals(1, answered.stream().mapToInt(Integer::intValue).sum());
        assertEquals(0, mapper.answer(asked, false, "no", NOW.plusSeconds(5)));
        assertEquals(0, mapper.asked(deployment, "change-desk", Rows.fresh("token"), "asked again"),
                "who has answered is not asked again");
    }
}
