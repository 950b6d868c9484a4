package dev.paseo.service.part;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.part.PartFinding.PackageView;
import dev.paseo.service.part.PartMapper.Asked;
import dev.paseo.service.part.PartMapper.HasRow;
import dev.paseo.service.problem.Refusal;
import java.util.List;
import java.util.stream.LongStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class PartFindingTest {

    private final RealDatabase database = RealDatabase.get();
    private final PartMapper mapper = database.mapper(PartMapper.class);
    private final Rows rows = database.rows();
    private final Person anybody = mock(Person.class);

    PartFindingTest() {
        when(anybody.may(any(), any(), any())).thenReturn(true);
    }

    private void part(String set, Object of, String name, String version) {
        long evidence = database.insert("insert into evidence (kind, origin, body, at, " + set + ") values ('parts', "
                + "'x', '{}', '2026-05-04 12:00:00', " + of + ")");
        database.insert("insert into part (evidence_id, name, version, licence) values (?, ?, ?, '')", evidence, name,
                version);
    }

    private List<String> having(String name, @Nullable String version) {
        return mapper.having(new Asked(name, version, 10)).stream().map(row -> row.versionId() + " " + row.version())
                .toList();
    }

    @Test
    void versionsAreFoundByWholeNameLastWordAndVersion() {
        Rows.Place place = rows.place();
        long line = rows.line(place.component());
        long arrived = rows.version(place.component(), line, 1);
        long built = rows.version(place.component(), line, 2);
        long run = rows.run(place.component(), line);
        database.change("update version set run_id = ? where id = ?", run, built);
        long first = rows.stage(run, "compile", 1);
        long again = rows.stage(run, "compile", 2);
        String word = Rows.fresh("horizon");
        String name = "pkg:maven/park.example/" + word;
        part("version_id", arrived, name, "3.0");
        part("run_id, stage_id", run + ", " + first, name, "3.1");
        part("run_id, stage_id", run + ", " + again, name, "3.2");
        assertEquals(List.of(built + " 3.2", arrived + " 3.0"), having(name, null),
                "of what was tried again only the last");
        assertEquals(List.of(arrived + " 3.0"), having(word, "3.0"));
        assertEquals(List.of(), having(word, "3.1"));
        assertEquals(List.of(), having("pkg:maven/park.example", null));
        long deployment = rows.deployment(place.id(), built);
        database.change("update place set live_deployment_id = ? where id = ?", deployment, place.id());
        PackageView found = new PartFinding(mapper).of(name + "@3.2", true, anybody);
        assertEquals(deployment, found.versions().getFirst().live().getFirst().deployment());
        assertEquals(List.of(), new PartFinding(mapper).of(name + "@3.0", true, anybody).versions());
    }

    @Test
    void ofMoreThanAreToldTheNewestAre() {
        PartMapper many = mock(PartMapper.class);
        when(many.having(any())).thenReturn(LongStream.rangeClosed(1, 501)
                .mapToObj(id -> new HasRow(id, "daylight-api", "1.4." + id, Rows.NOON, "horizon", "3.1", "")).toList());
        PackageView found = new PartFinding(many).of("horizon", false, anybody);
        assertEquals(500, found.versions().size());
        assertFalse(found.all());
        when(anybody.may(any(), any(), any())).thenReturn(false);
        assertTrue(new PartFinding(many).of("horizon", false, anybody).versions().isEmpty());
    }

    @Test
    void whatIsNoPackageUrlIsRefused() {
        assertEquals("should be a package URL such as pkg:maven/org.example/horizon@3.1, or the last word of a name",
                assertThrows(Refusal.class, () -> new PartFinding(mapper).of("pkg:x", false, anybody)).getMessage());
    }
}
