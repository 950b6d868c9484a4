package dev.paseo.service.history;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.history.HistoryMapper.Behind;
import dev.paseo.service.history.HistoryMapper.HappenedRow;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class HistoryMapperTest {

    private static final Instant NOON = Rows.NOON;
    private static final Behind ALL = new Behind(NOON.plusSeconds(1_000_000), 0);

    private final RealDatabase database = RealDatabase.get();
    private final HistoryMapper mapper = database.mapper(HistoryMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long version = rows.version(place.component(), rows.line(place.component()), 1);
    private final long host = rows.host(place.id());
    private final long person = rows.account();

    private Asked asked(@Nullable Long ofHost, @Nullable Long account) {
        return new Asked(place.component(), null, ofHost, account, null, null, 10);
    }

    private long live(int from, @Nullable Integer to) {
        long deployment = rows.deployment(place.id(), version);
        stretch(deployment, from, to);
        return deployment;
    }

    private void stretch(long deployment, int from, @Nullable Integer to) {
        database.change(
                "insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, to_at) "
                        + "values (?, ?, ?, ?, ?, ?)",
                place.id(), place.environment(), deployment, version, NOON.plusSeconds(from),
                to == null ? null : NOON.plusSeconds(to));
    }

    private static List<Long> deployments(List<HappenedRow> found) {
        return found.stream().map(HappenedRow::deployment).toList();
    }

    @Test
    void whatWentLiveIsFoundByHostPersonAndTimeAndBehindAMark() {
        long first = live(0, 5);
        long second = live(5, 9);
        stretch(first, 9, null);
        database.change("update deployment set requested_by = ?, emergency_reason = 'fire' where id = ?", person,
                second);
        database.change("insert into live_interval (host_id, component_id, version_id, deployment_id, from_at, to_at) "
                + "values (?, ?, ?, ?, ?, ?)", host, place.component(), version, first, NOON, NOON.plusSeconds(9));
        List<HappenedRow> found = mapper.stretches(asked(null, null), ALL);
        assertEquals(List.of(first, second, first), deployments(found));
        assertEquals(List.of(true, false, false), found.stream().map(HappenedRow::again).toList());
        assertEquals(List.of(false, true, false), found.stream().map(HappenedRow::emergency).toList());
        assertEquals(List.of(first, first), deployments(mapper.stretches(asked(host, null), ALL)));
        assertEquals(List.of(second), deployments(mapper.stretches(asked(null, person), ALL)));
        database.change("insert into ruling (deployment_id, account_id, yes, comment, subject, at) values (?, ?, true,"
                + " '', ?, ?)", first, person, rows.digest(), NOON);
        assertEquals(3, mapper.stretches(asked(null, person), ALL).size(), "what one decided is one's own too");
        HappenedRow newest = found.getFirst();
        assertEquals(2, mapper.stretches(asked(null, null), new Behind(newest.at(), newest.id())).size());
        assertEquals(3, mapper.stretches(asked(null, null), new Behind(newest.at(), Long.MAX_VALUE)).size());
        assertEquals(List.of(second), deployments(mapper.stretches(new Asked(place.component(), place.environment(),
                null, null, NOON.plusSeconds(1), NOON.plusSeconds(9), 10), ALL)));
    }

    @Test
    void whatEndedWithoutGoingLiveIsFound() {
        long failed = rows.deployment(place.id(), version);
        database.change("update deployment set status = 'failed', ended_at = ?, reason = 'a check failed' where id = ?",
                NOON, failed);
        live(0, null);
        rows.deployment(place.id(), version);
        HappenedRow found = mapper.ended(asked(null, null), ALL).getFirst();
        assertEquals(failed + " " + DeploymentStatus.FAILED, found.deployment() + " " + found.status());
        assertEquals(1, mapper.ended(asked(null, null), ALL).size());
        assertEquals(List.of(), mapper.ended(asked(host, null), ALL));
    }

    @Test
    void restraintsAreFoundWhenTheyBeganAndWhenTheyWereLifted() {
        database.change("insert into hold (place_id, environment_id, reason, set_by, at, lifted_at, lifted_by) values "
                + "(?, ?, 'snow', ?, ?, ?, ?)", place.id(), place.environment(), person, NOON, NOON.plusSeconds(5),
                rows.account());
        database.change("insert into closure (environment_id, reason, set_by, at) values (?, 'race', ?, ?)",
                place.environment(), person, NOON);
        assertEquals(1, mapper.holds("at", asked(host, person), ALL).size());
        assertEquals(NOON.plusSeconds(5), mapper.holds("lifted_at", asked(null, null), ALL).getFirst().at());
        assertEquals(List.of(), mapper.holds("lifted_at", asked(null, person), ALL), "another lifted it");
        assertEquals(1, mapper.closures("at", asked(host, person), ALL).size());
        assertEquals(List.of(), mapper.closures("lifted_at", asked(null, null), ALL));
    }

    @Test
    void troublesStandInTheTrail() {
        String component = database.name("component", place.component());
        for (String second : List.of("12:00:00.9", "12:00:01")) {
            database.change("insert into audit_entry (body) values (?)", "{\"at\":\"2026-05-04T" + second
                    + "Z\",\"who\":\"north\",\"what\":\"unhealthy\",\"subject\":\"" + component
                    + "\",\"where\":\"test\"}");
        }
        database.change("insert into audit_pending (entry_id) select id from audit_entry where subject = ?", component);
        assertEquals(List.of("2026-05-04T12:00:01", "2026-05-04T12:00:00"), troubles(component, "2026-05-05", 0));
        assertEquals(List.of("2026-05-04T12:00:00"), troubles(component, "2026-05-04T12:00:01", 0));
        assertEquals(2, troubles(component, "2026-05-04T12:00:01", Long.MAX_VALUE).size());
    }

    private List<String> troubles(String component, String second, long id) {
        return mapper.troubles(new HistoryMapper.TroubleAsked("unhealthy", component, "test", "north",
                "2026-05-04T12:00:00", null, 10), second, id).stream().map(HistoryMapper.TroubleRow::second).toList();
    }

    @Test
    void momentsAndTimesAreFound() {
        long first = live(0, 5);
        long second = live(5, null);
        database.change("insert into live_interval (host_id, component_id, version_id, deployment_id, from_at, to_at) "
                + "values (?, ?, ?, ?, ?, ?)", host, place.component(), version, first, NOON, NOON.plusSeconds(5));
        assertEquals(Optional.of(first), then(NOON.plusSeconds(4)));
        assertEquals(Optional.of(second), then(NOON.plusSeconds(5)));
        assertEquals(Optional.empty(), then(NOON.minusSeconds(1)));
        String name = database.name("host", host);
        assertEquals(List.of(first), mapper.hosts(NOON.plusSeconds(4), name, "", 10).stream()
                .map(HistoryMapper.HostRow::deployment).toList());
        assertEquals(List.of(), mapper.hosts(NOON.plusSeconds(5), name, "", 10));
        assertTrue(mapper.component(database.name("component", place.component())).isPresent()
                && mapper.environment(database.name("environment", place.environment())).isPresent()
                && mapper.host(name).isPresent() && mapper.account(database.name("account", person)).isPresent());
    }

    private Optional<Long> then(Instant moment) {
        return mapper.live(moment).stream()
                .filter(row -> row.component().equals(database.name("component", place.component())))
                .map(HistoryMapper.ThenRow::deployment).findFirst();
    }
}
