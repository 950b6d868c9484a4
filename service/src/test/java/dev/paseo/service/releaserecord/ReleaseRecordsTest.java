package dev.paseo.service.releaserecord;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.environment.Rules;
import dev.paseo.service.audit.TrailExport;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.place.Deployments;
import dev.paseo.service.problem.Refusal;
import dev.paseo.core.access.Person;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

class ReleaseRecordsTest {

    private static final Instant NOON = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final ReleaseRecordMapper real = database.mapper(ReleaseRecordMapper.class);
    private final Rows rows = database.rows();

    @Test
    void aPeriodWithTooManyIsRefused() {
        ReleaseRecordMapper mapper = mock(ReleaseRecordMapper.class);
        Environments environments = mock(Environments.class);
        when(environments.named("production"))
                .thenReturn(new Environments.Environment(3, "production", "UTC", Rules.NONE, 1));
        when(mapper.ofPeriod(anyLong(), any(), any(), anyInt())).thenReturn(Collections.nCopies(101, 7L));
        ReleaseRecords records = new ReleaseRecords(mapper, mock(Deployments.class), environments,
                mock(RecordedDeployments.class), mock(TrailExport.class));
        Refusal refused = assertThrows(Refusal.class, () -> records.ofPeriod("production", NOON, NOON.plusSeconds(9),
                new ReleaseRecords.Reader(mock(Person.class), NOON.plusSeconds(9))));
        assertEquals("should be nearer to until: more than 100 deployments are in between", refused.getMessage());
    }

    @Test
    void aPeriodHasWhatWentLiveInItAndWhatEndedWithoutThat() {
        Rows.Place place = rows.place();
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long later = deployment(place, version, "live_at = '2026-05-04 12:00:09', ended_at = '2026-05-09 12:00:00'");
        long live = deployment(place, version, "live_at = '2026-05-04 12:00:00'");
        long rejected = deployment(place, version, "ended_at = '2026-05-04 12:00:05'");
        deployment(place, version, "live_at = '2026-05-03 12:00:00', ended_at = '2026-05-04 12:00:05'");
        deployment(place, version, "live_at = '2026-05-04 12:00:10'");
        deployment(place, version, "requested_at = '2026-05-04 12:00:05'");
        assertEquals(List.of(live, rejected, later),
                real.ofPeriod(place.environment(), NOON, NOON.plusSeconds(10), 10));
        assertEquals(List.of(live), real.ofPeriod(place.environment(), NOON, NOON.plusSeconds(10), 1));
    }

    private long deployment(Rows.Place place, long version, String set) {
        long id = rows.deployment(place.id(), version);
        database.change("update deployment set " + set + " where id = ?", id);
        return id;
    }

    @Test
    void whatWasLiveAtAMomentIsFound() {
        Rows.Place place = rows.place();
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        database.insert(
                "insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, to_at) "
                        + "values (?, ?, ?, ?, ?, ?)",
                place.id(), place.environment(), deployment, version, NOON, NOON.plusSeconds(5));
        assertEquals(0, real.live(place.environment(), NOON.minusSeconds(1)).size());
        assertEquals(version, real.live(place.environment(), NOON).getFirst().version());
        assertEquals(0, real.live(place.environment(), NOON.plusSeconds(5)).size());
        assertEquals(List.of(), real.ofPromotion(-1));
        assertEquals(true, real.promotion(-1).isEmpty());
        assertEquals(null, real.origin(version).summary());
    }
}
