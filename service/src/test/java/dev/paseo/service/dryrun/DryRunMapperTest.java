package dev.paseo.service.dryrun;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import dev.paseo.core.deployment.Kind;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.dryrun.DryRunMapper.PastRow;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class DryRunMapperTest {

    private static final Instant NOON = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final DryRunMapper mapper = database.mapper(DryRunMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long version = rows.version(place.component(), rows.line(place.component()), 1);

    private long deployment(String set) {
        long id = rows.deployment(place.id(), version);
        database.change("update deployment set " + set + " where id = ?", id);
        return id;
    }

    @Test
    void whatWentThroughOrEndedAtTheGateIsFound() {
        String then = "'2026-05-04 13:00:00'";
        long went = deployment("started_at = " + then + ", emergency_reason = 'snow'");
        deployment("started_at = '2026-05-03 13:00:00'");
        long rejected = deployment("status = 'rejected', ended_at = " + then);
        deployment("live_at = " + then + ", ended_at = " + then);
        deployment("kind = 'preview', started_at = " + then);
        deployment("status = 'waiting'");
        List<PastRow> found = mapper.entered(place.environment(), NOON, 10);
        assertEquals(List.of(rejected, went), found.stream().map(PastRow::id).toList(),
                "not what was recorded, a preview, still waits, or went before");
        assertFalse(found.getFirst().went() || found.getFirst().emergency() || found.getFirst().follows());
        assertEquals(NOON.plusSeconds(3600), found.getLast().at());
        assertEquals(Kind.PROMOTION, found.getLast().kind());
        assertEquals(1, mapper.entered(place.environment(), NOON, 1).size());
    }

    @Test
    void whatWentOnAndWhatHadPassedByThenIsFound() {
        long deployment = deployment("started_at = '2026-05-04 12:00:00'");
        database.insert("insert into passage (version_id, environment_id, deployment_id, status, format, opened_at, "
                + "settled_at, ended_at) values (?, ?, ?, 'ended', 1, ?, ?, ?)", version, place.environment(),
                deployment, NOON, NOON.plusSeconds(60), NOON.plusSeconds(600));
        PastRow found = mapper.wentOn(place.environment(), NOON, 10).getFirst();
        assertEquals(NOON.plusSeconds(60), found.requestedAt());
        assertEquals(NOON.plusSeconds(600), found.at());
        assertEquals(0, mapper.wentOn(place.environment(), NOON.plusSeconds(700), 10).size());
        assertEquals(1, mapper.passed(version, NOON.plusSeconds(600)).size());
        assertEquals(0, mapper.passed(version, NOON.plusSeconds(599)).size());
    }

    @Test
    void whenAVersionWasLiveIsFound() {
        long deployment = deployment("started_at = '2026-05-04 12:00:00'");
        database.insert(
                "insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at) values "
                        + "(?, ?, ?, ?, ?)",
                place.id(), place.environment(), deployment, version, NOON);
        assertEquals(List.of(new DryRunMapper.LivedRow(NOON, null)), mapper.lived(place.id(), version));
    }
}
