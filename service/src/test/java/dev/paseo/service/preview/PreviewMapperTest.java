package dev.paseo.service.preview;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class PreviewMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final PreviewMapper mapper = database.mapper(PreviewMapper.class);
    private final long template = database.rows().environment();
    private final Rows.Place place = database.rows().place();

    private void there(String branch) {
        database.insert("insert into preview_template (environment_id, body, set_by, at) values (?, '{}', ?, ?)",
                template, database.rows().account(), NOW);
        mapper.add(place.environment(), template, place.component(), branch, "anna", 9000, NOW);
    }

    @Test
    void aPreviewIsRemovedOnce() throws Exception {
        there("feature/map");
        List<Integer> removed = RealDatabase.atOnce(12, () -> mapper.removed(place.environment(), NOW));
        assertEquals(1, removed.stream().mapToInt(Integer::intValue).sum());
        assertTrue(mapper.named(database.name("environment", place.environment())).isEmpty());
    }

    @Test
    void theFirstReasonForWhichItGoesStays() {
        there("feature/map");
        mapper.removing(place.environment(), "nobody pushed", NOW);
        mapper.removing(place.environment(), "its branch is gone", NOW.plusSeconds(1));
        PreviewMapper.PreviewRow row = mapper.of(place.component(), "feature/map").orElseThrow();
        assertEquals("nobody pushed", row.removing());
        assertEquals(NOW.plusSeconds(1), row.triedAt());
    }

    @Test
    void aBranchThatComesBackHasItAnew() {
        there("feature/map");
        mapper.removing(place.environment(), "nobody pushed", NOW);
        mapper.removed(place.environment(), NOW);
        mapper.add(place.environment(), template, place.component(), "feature/map", "bert", 9001,
                NOW.plusSeconds(60));
        PreviewMapper.PreviewRow row = mapper.of(place.component(), "feature/map").orElseThrow();
        assertEquals("bert", row.owner());
        assertTrue(row.removing() == null && row.removedAt() == null);
    }
}
