package dev.paseo.service.component;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

/** A branch has moved for whoever saw where it was, and for nobody else. */
class HeadsTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final ComponentMapper mapper = database.mapper(ComponentMapper.class);
    private final long component = database.rows().component();

    private String head() {
        return mapper.heads(component).getFirst().commitId();
    }

    @Test
    void ofHooksAndPollsThatSeeTheSamePushOneStartsRuns() throws Exception {
        mapper.addHead(component, "main", "a", null, NOW);
        assertEquals(0, mapper.addHead(component, "main", "b", null, NOW), "it is known already");
        assertEquals(1, RealDatabase.atOnce(12, () -> mapper.moveHead(component, "main", "a", "b", null, NOW)).stream()
                .mapToInt(Integer::intValue).sum());
        assertEquals("b", head());
        assertEquals(0, mapper.moveHead(component, "main", "a", "c", null, NOW), "an older look is too late");
        assertEquals(0, mapper.dropHead(component, "main", "a"));
        assertEquals(1, mapper.dropHead(component, "main", "b"));
    }
}
