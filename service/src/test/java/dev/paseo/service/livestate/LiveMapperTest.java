package dev.paseo.service.livestate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class LiveMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final LiveMapper mapper = database.mapper(LiveMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();

    private long live() {
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        database.change("update place set live_deployment_id = ?, live_side = null where id = ?", deployment,
                place.id());
        return deployment;
    }

    @Test
    void whatIsLiveIsStatedWithItsSide() {
        assertEquals(List.of(), mapper.whatIsLive(place.id()), "nothing is");
        long deployment = live();
        LiveMapper.LiveRow all = new LiveMapper.LiveRow(place.id(), "deployment " + deployment + " on all");
        assertEquals(List.of(all), mapper.whatIsLive(place.id()));
        assertTrue(mapper.whatIsLive(null).contains(all), "of every place");
        database.change("update place set live_side = 'green' where id = ?", place.id());
        assertEquals("deployment " + deployment + " on green", mapper.whatIsLive(place.id()).getFirst().text());
    }

    @Test
    void whatComesAndGoesIsNotStated() {
        live();
        database.change("update environment set temporary = true where id = ?", place.environment());
        assertEquals(List.of(), mapper.whatIsLive(place.id()));
    }
}
