package dev.paseo.service.waiting;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class WaitingMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final WaitingMapper mapper = database.mapper(WaitingMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final long deployment = database.rows().deployment(place.id(), version);

    private boolean asked(long account) {
        return mapper.reviews(account).stream().anyMatch(row -> row.deployment() == deployment);
    }

    @Test
    void aReviewIsForWhoHadNoPartInIt() {
        long asked = database.rows().account();
        long loosened = database.rows().account();
        database.change("update deployment set requested_by = ?, emergency_reason = 'it burns' where id = ?", asked,
                deployment);
        database.insert("insert into review (deployment_id, due_at, loosened_by) values (?, ?, ?)", deployment, NOW,
                loosened);
        assertFalse(asked(asked));
        assertFalse(asked(loosened));
        assertTrue(asked(database.rows().account()));
        database.change("update review set done_at = ? where deployment_id = ?", NOW, deployment);
        assertFalse(asked(database.rows().account()));
    }

    @Test
    void whatIsRetiredStaysNowhere() {
        database.insert("""
                insert into walk_stay (version_id, environment, came_from, reason, since_at, retry_at)
                values (?, 'test', '', 'no hosts', ?, ?)""", version, NOW, NOW);
        assertTrue(stays());
        database.rows().retire(place.component());
        assertFalse(stays());
    }

    private boolean stays() {
        String component = database.name("component", place.component());
        return mapper.stays().stream().anyMatch(row -> row.component().equals(component));
    }
}
