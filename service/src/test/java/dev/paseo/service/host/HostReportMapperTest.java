package dev.paseo.service.host;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class HostReportMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final HostReportMapper mapper = database.mapper(HostReportMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long host = database.rows().host(place.id());
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final long deployment = database.rows().deployment(place.id(), version);

    private void has() {
        database.insert("insert into live_interval (host_id, component_id, version_id, deployment_id, from_at) values"
                + " (?, ?, ?, ?, ?)", host, place.component(), version, deployment, NOW);
    }

    @Test
    void whatIsLiveIsWatchedUnlessItIsBeingChangedOrAway() {
        HostReportMapper.WatchedRow row = new HostReportMapper.WatchedRow(place.id(), host, deployment);
        assertFalse(mapper.watched(0, host).contains(row));
        has();
        assertTrue(mapper.watched(0, host).contains(row));
        long work = database.insert("insert into work (kind, deployment_id, host_id, status, offered_at) values"
                + " ('INSTALL', ?, ?, 'leased', ?)", deployment, host, NOW);
        assertFalse(mapper.watched(0, host).contains(row));
        database.change("update work set status = 'ended' where id = ?", work);
        mapper.maintenance(host, "new disks", NOW);
        assertFalse(mapper.watched(0, host).contains(row));
    }

    @Test
    void aReportIsTheNewestOfItsHost() {
        keep(2);
        keep(3);
        assertEquals(3, mapper.of(place.id(), host).orElseThrow().failures());
        assertEquals(1, mapper.ofPlace(place.id()).size());
    }

    private void keep(int failures) {
        mapper.keep(new HostReportMapper.ReportRow(place.id(), host, "", deployment, NOW, failures, null, null, null,
                null));
    }

    @Test
    void aStrangerIsThereAndHasSomethingElse() {
        long agent = database.rows().agent();
        database.change("update agent set host_id = ?, last_contact = ? where id = ?", host, NOW, agent);
        database.change("update place set live_deployment_id = ? where id = ?", deployment, place.id());
        assertTrue(strange(NOW.minusSeconds(1)));
        assertFalse(strange(NOW), "it is not there");
        has();
        assertFalse(strange(NOW.minusSeconds(1)), "it has what is live");
    }

    private boolean strange(Instant since) {
        return mapper.strangers(since).stream().anyMatch(row -> row.placeId() == place.id());
    }
}
