package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class StageFileMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final StageFileMapper mapper = database.mapper(StageFileMapper.class);
    private final long component = database.rows().component();
    private final long run = database.rows().run(component, database.rows().line(component));

    @Test
    void theFilesOfTheNewestAttemptCount() {
        mapper.add(database.rows().stage(run, "build", 1), run, database.rows().digest(), 3, "[]");
        String newer = database.rows().digest();
        mapper.add(database.rows().stage(run, "build", 2), run, newer, 3, "[]");
        assertEquals(List.of(newer), mapper.files(run).stream().map(StageFileMapper.FilesRow::digest).toList());
    }

    @Test
    void whatWasKeptUnderTheKeyComesFirstAndOfItsOwnScope() {
        String name = database.rows().digest();
        keep("", name, "1", "shared, other key");
        keep("", name, "2", "shared");
        keep("feature/map", name, "2", "own");
        keep("feature/else", name, "2", "of another branch");
        assertEquals("own", reused("feature/map", name));
        assertEquals("shared", reused("", name));
        assertEquals(0, keep("", name, "2", "again"), "the first under a key stays");
    }

    private int keep(String scope, String name, String key, String what) {
        return mapper.keep(component, scope, name, key.repeat(64), digest(what), 1, run, NOW);
    }

    private static String digest(String what) {
        return what.replace(' ', '-') + "0".repeat(64 - what.length());
    }

    private String reused(String scope, String name) {
        return mapper.reused(component, scope, name, "2".repeat(64)).orElseThrow().digest().replaceAll("0+$", "");
    }
}
