package dev.paseo.service.secret;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;

class SecretMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final SecretMapper mapper = database.mapper(SecretMapper.class);
    private final Rows.Place place = database.rows().place();
    private final String name = Rows.fresh("SECRET").toUpperCase(Locale.ROOT).replace('-', '_');

    private long set(long component, long environment, String value) {
        mapper.add(name, component, environment, 0);
        SecretMapper.NewRevision revision = new SecretMapper.NewRevision(
                mapper.lock(name, component, environment, 0), value.getBytes(StandardCharsets.UTF_8), new byte[1], null,
                NOW);
        mapper.addRevision(revision);
        return revision.id;
    }

    private String newest() {
        SecretMapper.RevisionRow newest = mapper.newest(name, place.component(), place.environment()).orElseThrow();
        assertEquals(List.of(new SecretMapper.InForceRow(name, null, newest.id())), inForce(),
                "asked for with others it is the same one");
        return new String(newest.ciphertext(), StandardCharsets.UTF_8);
    }

    private List<SecretMapper.InForceRow> inForce() {
        return mapper.inForce(List.of("NOT_THERE", name), place.component(), place.environment());
    }

    @Test
    void theNarrowestScopeIsTakenAndInItTheNewest() {
        set(0, 0, "everywhere");
        assertEquals("everywhere", newest());
        set(0, place.environment(), "environment");
        assertEquals("environment", newest());
        set(place.component(), 0, "component");
        assertEquals("component", newest());
        set(place.component(), place.environment(), "both");
        set(place.component(), place.environment(), "both, newer");
        assertEquals("both, newer", newest());
    }

    /** What is given to stages has a value everywhere, of the component's own or of all. */
    @Test
    void whatIsOpenedToComponentsSaysWhetherStagesAreGivenAValue() {
        assertEquals(List.of(), opened());
        mapper.open(place.component(), name);
        assertEquals(List.of(false), opened());
        set(0, place.environment(), "elsewhere");
        assertEquals(List.of(false), opened());
        set(place.component(), 0, "component");
        assertEquals(List.of(true), opened());
    }

    private List<Boolean> opened() {
        return mapper.allOpened().stream().filter(row -> row.componentId() == place.component())
                .map(SecretMapper.OpenedRow::valued).toList();
    }

    @Test
    void aPreviewHasOnlyWhatWasGivenToIt() {
        set(0, 0, "everywhere");
        long template = database.rows().environment();
        database.insert("insert into preview_template (environment_id, body, set_by, at) values (?, '{}', ?, ?)",
                template, database.rows().account(), NOW);
        database.insert("""
                insert into preview (environment_id, template_id, component_id, branch, owner, port, created_at,
                  pushed_at) values (?, ?, ?, 'feature/map', 'anna', 9000, ?, ?)""", place.environment(), template,
                place.component(), NOW, NOW);
        assertTrue(mapper.newest(name, place.component(), place.environment()).isEmpty());
        assertEquals(List.of(), inForce());
        set(0, place.environment(), "for previews");
        assertEquals("for previews", newest());
    }

    @Test
    void valuesAreNumberedFromOneInTheirSecret() {
        long first = set(place.component(), 0, "a");
        long second = set(place.component(), 0, "b");
        assertEquals(1, mapper.revision(first).orElseThrow().number());
        assertEquals(2, mapper.told(second).orElseThrow().number());
        assertTrue(mapper.revision(second).orElseThrow().bound().endsWith("\n2"));
    }

    @Test
    void whatIsGivenToAComponentIsTakenFromItAgain() {
        assertEquals(1, mapper.open(place.component(), name));
        assertEquals(0, mapper.open(place.component(), name), "it was given");
        assertEquals(List.of(name), mapper.given(place.component()));
        mapper.close(place.component(), name);
        assertEquals(0, mapper.opened(place.component(), name));
    }
}
