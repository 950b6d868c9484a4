package dev.paseo.service.pipeline;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PipelineFileMapperTest {

    private static final String NONE = "";
    private static final String SOME = "1".repeat(64);

    private final RealDatabase database = RealDatabase.get();
    private final PipelineFileMapper mapper = database.mapper(PipelineFileMapper.class);
    private final Rows rows = database.rows();
    private final long component = rows.component();

    private int keep(String pieces) {
        return mapper.keep(component, "c0ffee", "paseo.yaml", "text", "[]", pieces, Rows.NOON);
    }

    /** However many read a commit at once, a text is a row for each set of pieces, and no more. */
    @Test
    void aTextIsKeptOnceForEachSetOfPieces() throws Exception {
        assertEquals(1, RealDatabase.atOnce(12, () -> keep(NONE)).stream().mapToInt(Integer::intValue).sum());
        assertEquals(1, keep(SOME));
        assertEquals(SOME, mapper.newest(component, "c0ffee", "paseo.yaml").orElseThrow().pieces());
        assertEquals(NONE, mapper.of(component, "c0ffee", "paseo.yaml", NONE).orElseThrow().pieces());
        assertEquals(2, mapper.history(component, 20).size());
        assertEquals(1, mapper.history(component, 1).size());
    }

    @Test
    void everyBranchAtACommitGetsTheFileThatIsInForce() {
        rows.fileOfMain(component, "text");
        database.insert("insert into head (component_id, branch, commit_id, seen_at) values (?, 'side', 'other', ?)",
                component, Rows.NOON);
        keep(SOME);
        long file = mapper.newest(component, "c0ffee", "paseo.yaml").orElseThrow().id();
        assertEquals(1, mapper.putInForce(component, "c0ffee", file), "the branch at another commit has its own");
    }

    @Test
    void releasesAreOfTrustedBranchesTheNewestFirstAndSayWhatIsBlocked() {
        long line = rows.line(component);
        long first = rows.version(component, line, 1);
        long second = rows.version(component, line, 2);
        long foreign = rows.version(component, line, 3);
        database.change("update version set trusted = false where id = ?", foreign);
        database.change("update version set blocked_at = ? where id = ?", Rows.NOON, second);
        List<PipelineFileMapper.ReleaseRow> found = mapper.releases(component);
        assertEquals(List.of(second, first), found.stream().map(PipelineFileMapper.ReleaseRow::version).toList());
        assertTrue(found.getFirst().blocked());
    }

    @Test
    void whatIsLiveIsReadByTheEnvironment() {
        Rows.Place place = rows.place();
        String environment = database.name("environment", place.environment());
        assertEquals(Optional.empty(), mapper.liveIn(place.component(), environment));
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        database.change("update place set live_deployment_id = ? where id = ?", deployment, place.id());
        assertEquals(version, mapper.liveIn(place.component(), environment).orElseThrow().version());
    }

    @Test
    void aComponentIsFoundByANameThatItHad() {
        String now = database.name("component", component);
        String before = Rows.fresh("before");
        database.change("insert into former_name (component_id, name) values (?, ?)", component, before);
        assertEquals(now, mapper.named(before).orElseThrow().name());
        assertEquals(Optional.empty(), mapper.named(Rows.fresh("nobody")));
        long other = rows.component();
        assertEquals(Optional.empty(), mapper.opened(component, other));
        rows.open(component, other);
        assertEquals(Optional.of(1), mapper.opened(component, other));
    }
}
