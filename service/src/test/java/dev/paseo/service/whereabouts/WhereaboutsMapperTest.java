package dev.paseo.service.whereabouts;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class WhereaboutsMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WhereaboutsMapper mapper = database.mapper(WhereaboutsMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long line = database.rows().line(place.component());
    private final String component = database.name("component", place.component());

    private WhereaboutsMapper.CellRow cell(long place) {
        return mapper.cells(component, component).stream().filter(row -> row.placeId() == place).findFirst()
                .orElseThrow();
    }

    private void live(long place, long version) {
        database.change("update place set live_deployment_id = ? where id = ?",
                database.rows().deployment(place, version), place);
    }

    @Test
    void whatLiesBehindTheEnvironmentBeforeIsCounted() {
        long older = database.rows().version(place.component(), line, 1);
        database.rows().version(place.component(), line, 2);
        long newest = database.rows().version(place.component(), line, 3);
        long after = database.insert("""
                insert into place (environment_id, component_id, settings_revision) values (?, ?, 1)""",
                database.rows().environment(), place.component());
        live(place.id(), newest);
        live(after, older);
        assertEquals(2, cell(after).behind());
        assertEquals(0, cell(place.id()).behind());
        live(after, newest);
        assertEquals(0, cell(after).behind());
    }

    @Test
    void aMomentOfThePastIsWithinTheStretchThatHadBegun() {
        long version = database.rows().version(place.component(), line, 1);
        long deployment = database.rows().deployment(place.id(), version);
        database.insert("""
                insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, to_at)
                values (?, ?, ?, ?, ?, ?)""", place.id(), place.environment(), deployment, version, NOW,
                NOW.plusSeconds(60));
        assertEquals(0, at(NOW.minusSeconds(1)));
        assertEquals(1, at(NOW));
        assertEquals(1, at(NOW.plusSeconds(59)));
        assertEquals(0, at(NOW.plusSeconds(60)));
    }

    private int at(Instant moment) {
        return mapper.at(moment, "", component, component).size();
    }

    @Test
    void aPageGoesOnAfterTheLastOfThePageBefore() {
        assertEquals(List.of(component), mapper.page(component, "", 9));
        assertEquals(List.of(), mapper.page(component, component, 9));
        assertTrue(mapper.page("", component, 9).stream().allMatch(name -> name.compareTo(component) > 0));
    }
}
