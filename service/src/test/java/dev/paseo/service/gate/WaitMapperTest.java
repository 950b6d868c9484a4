package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class WaitMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WaitMapper mapper = database.mapper(WaitMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final long deployment = database.rows().deployment(place.id(), version);
    private final long account = database.rows().account();

    private long waits(long deployment, Instant since, Instant due) {
        return database.insert("""
                insert into gate_wait (deployment_id, component_id, environment_id, version_id, kind, name, sentence,
                  since_at, due_at, nobody) values (?, ?, ?, ?, 'approval', 'to-enter', '', ?, ?, false)""", deployment,
                place.component(), place.environment(), version, since, due);
    }

    @Test
    void theMostUrgentComesFirstAndOnlyToThoseWhoAreAsked() {
        long late = waits(deployment, NOW, NOW.plusSeconds(90));
        long soon = waits(database.rows().deployment(place.id(), version), NOW, NOW.plusSeconds(30));
        String name = database.name("account", account);
        List.of(late, soon).forEach(wait -> mapper.addPerson(wait, name));
        assertEquals(List.of(soon, late), mapper.forPerson(account, 9).stream().map(WaitMapper.WaitRow::id).toList());
        assertEquals(List.of(), mapper.forPerson(database.rows().account(), 9));
        assertTrue(mapper.stand(deployment, account).orElseThrow().mine());
        mapper.clear(late);
        assertFalse(mapper.stand(deployment, account).orElseThrow().mine());
    }

    @Test
    void whatHasAnEighthOfItsTimeLeftIsToldOf() {
        long wait = waits(deployment, NOW, NOW.plusSeconds(80));
        assertFalse(expires(wait, NOW.plusSeconds(69)));
        assertTrue(expires(wait, NOW.plusSeconds(70)));
        assertFalse(expires(wait, NOW.plusSeconds(80)), "it is over");
    }

    private boolean expires(long wait, Instant now) {
        return mapper.expiring(now).stream().anyMatch(row -> row.id() == wait);
    }
}
