package dev.paseo.service.arrival;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class UploadMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final UploadMapper mapper = database.mapper(UploadMapper.class);
    private final long component = database.rows().component();
    private final long account = database.rows().account();

    private long begin(String statement) {
        UploadMapper.NewUpload upload = new UploadMapper.NewUpload(component, "1.4.2", account, statement, NOW);
        mapper.add(upload);
        return upload.id;
    }

    @Test
    void anUploadEndsOnce() throws Exception {
        long id = begin("{}");
        List<Integer> ended = RealDatabase.atOnce(12, () -> mapper.end(id, "sealed", NOW));
        assertEquals(1, ended.stream().mapToInt(Integer::intValue).sum());
        assertEquals(0, mapper.end(id, "abandoned", NOW), "what was sealed is not abandoned");
    }

    @Test
    void itGoesOnWhereTheSameWasBegunByTheSame() {
        long id = begin("{\"a\":1}");
        assertEquals(id, mapper.open(component, "1.4.2", account, "{\"a\":1}").orElseThrow().id());
        assertTrue(mapper.open(component, "1.4.2", account, "{\"a\":2}").isEmpty());
        assertTrue(mapper.open(component, "1.4.2", database.rows().account(), "{\"a\":1}").isEmpty());
    }

    @Test
    void whatHasArrivedOfOneGivenUpStays() {
        long id = begin("{}");
        mapper.addFile(id, "artifact", "app", "app.jar", 3, database.rows().digest());
        mapper.addFile(id, "artifact", "doc", "doc.tar", 3, database.rows().digest());
        mapper.complete(id, "artifact", "app");
        assertEquals(1, mapper.dropFiles(id));
        assertEquals(List.of("app"), mapper.files(id).stream().map(UploadMapper.FileRow::name).toList());
        assertTrue(mapper.forgotten(NOW.plusSeconds(1)).contains(id));
        assertFalse(mapper.forgotten(NOW).contains(id));
    }
}
