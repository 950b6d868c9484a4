package dev.paseo.service.edit;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class NamesMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final NamesMapper mapper = database.mapper(NamesMapper.class);
    private final Rows rows = database.rows();
    private final long component = rows.component();
    private final long source = rows.component();

    private long keeping(String artifact, long order) {
        long version = rows.version(source, rows.line(source), order);
        database.insert("insert into version_artifact (version_id, name, file_name, digest, size) values (?, ?, 'a', "
                + "repeat('0', 64), 1)", version, artifact);
        return version;
    }

    private List<String> artifacts() {
        return mapper.artifacts(component).stream().map(NamesMapper.ArtifactRow::artifact).toList();
    }

    @Test
    void whatTheNewestVersionOfAnOpenedComponentKeepsIsNamed() {
        keeping("old", 1);
        keeping("model", 2);
        assertEquals(List.of(), artifacts(), "nothing is opened");
        rows.open(component, source);
        assertEquals(List.of("model"), artifacts());
        assertEquals(List.of(database.name("component", source)), mapper.sources(component));
        assertEquals(List.of(), mapper.sources(source), "opened one way only");
    }

    @Test
    void whatIsBlockedOrRetiredIsNotOffered() {
        rows.open(component, source);
        keeping("model", 1);
        long blocked = keeping("wrong", 2);
        database.change("update version set blocked_at = ? where id = ?", Rows.NOON, blocked);
        assertEquals(List.of("model"), artifacts());
        rows.retire(source);
        assertEquals(List.of(), artifacts());
        assertEquals(List.of(), mapper.sources(component));
    }
}
