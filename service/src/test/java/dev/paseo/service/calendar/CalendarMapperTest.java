package dev.paseo.service.calendar;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class CalendarMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final CalendarMapper mapper = database.mapper(CalendarMapper.class);
    private final long environment = database.rows().environment();
    private final long account = database.rows().account();

    private void closed(Instant from, Instant until) {
        database.insert("insert into closure (environment_id, reason, set_by, at, until_at) values (?, 'inventory', ?,"
                + " ?, ?)", environment, account, from, until);
    }

    @Test
    void aClosureIsOfEachStretchThatItReachesInto() {
        closed(NOW, NOW.plusSeconds(60));
        assertEquals(1, mapper.closures(environment, NOW.plusSeconds(59), NOW.plusSeconds(90)).size());
        assertEquals(0, mapper.closures(environment, NOW.plusSeconds(60), NOW.plusSeconds(90)).size());
        assertEquals(0, mapper.closures(environment, NOW.minusSeconds(60), NOW).size());
    }

    @Test
    void aDeploymentIsWhereItStarted() {
        Rows.Place place = database.rows().place();
        long version = database.rows().version(place.component(), database.rows().line(place.component()), 1);
        long deployment = database.rows().deployment(place.id(), version);
        assertEquals(List.of(), mapper.deployments(place.environment(), NOW, NOW.plusSeconds(60)), "it waits");
        database.change("update deployment set started_at = ? where id = ?", NOW, deployment);
        assertEquals(deployment, mapper.deployments(place.environment(), NOW, NOW.plusSeconds(60)).getFirst().id());
        assertEquals(List.of(), mapper.deployments(place.environment(), NOW.minusSeconds(60), NOW));
    }
}
