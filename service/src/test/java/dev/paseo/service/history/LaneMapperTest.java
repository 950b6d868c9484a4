package dev.paseo.service.history;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;

import dev.paseo.core.history.What;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.history.HistoryMapper.Asked;
import dev.paseo.service.history.LaneMapper.TrailAsked;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class LaneMapperTest {

    private static final Instant NOON = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final LaneMapper mapper = database.mapper(LaneMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long version = rows.version(place.component(), rows.line(place.component()), 1);
    private final String component = database.name("component", place.component());
    private final String environment = database.name("environment", place.environment());

    private long live(int from, @Nullable Integer to) {
        long deployment = rows.deployment(place.id(), version);
        database.change(
                "insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at, to_at) "
                        + "values (?, ?, ?, ?, ?, ?)",
                place.id(), place.environment(), deployment, version,
                NOON.plusSeconds(from), to == null ? null : NOON.plusSeconds(to));
        return deployment;
    }

    private void trouble(String what, String host, String of, String second) {
        database.change("insert into audit_entry (body) values (?)", "{\"at\":\"2026-05-04T" + second
                + "Z\",\"who\":\"" + host + "\",\"what\":\"" + what + "\",\"subject\":\"" + of
                + "\",\"where\":\"" + environment + "\",\"because\":\"it answered 500\"}");
        database.change("insert into audit_pending (entry_id) select id from audit_entry where subject = ? and id not "
                + "in (select entry_id from audit_pending)", of);
    }

    private Asked window(@Nullable Long environmentId) {
        return new Asked(null, environmentId, null, null, NOON, NOON.plusSeconds(60), 10);
    }

    @Test
    void aPlaceIsALaneOverATimeInWhichSomethingWasLive() {
        live(0, 5);
        long second = live(5, null);
        Asked asked = new Asked(place.component(), null, null, null, NOON.plusSeconds(5), NOON.plusSeconds(9), 10);
        assertEquals(List.of(place.id()), mapper.lanes(asked, "").stream().map(LaneMapper.LaneRow::place).toList());
        assertEquals(List.of(), mapper.lanes(asked, "~"));
        assertEquals(List.of(second), mapper.within(List.of(place.id()), NOON.plusSeconds(5), NOON.plusSeconds(9), 10)
                .stream().map(LaneMapper.StretchRow::deployment).toList());
    }

    @Test
    void restraintsOfThePlaceAndOfItsEnvironmentAreFound() {
        long person = rows.account();
        database.change("insert into hold (place_id, environment_id, reason, set_by, at, lifted_at, lifted_by) values "
                + "(?, ?, 'snow', ?, ?, ?, ?)", place.id(), place.environment(), person, NOON, NOON.plusSeconds(5),
                person);
        database.change("insert into closure (environment_id, reason, set_by, at) values (?, 'race', ?, ?)",
                place.environment(), person, NOON.plusSeconds(1));
        assertEquals(List.of("race", "snow"), mapper.restrained(List.of(place.id()), NOON, NOON.plusSeconds(9), 10)
                .stream().map(LaneMapper.HeldRow::reason).toList());
        assertEquals(1, mapper.restrained(List.of(place.id()), NOON, NOON.plusSeconds(9), 1).size());
        assertEquals(List.of("race"), mapper.restrained(List.of(place.id()), NOON.plusSeconds(6), NOON.plusSeconds(9),
                10).stream().map(LaneMapper.HeldRow::reason).toList(), "the hold was lifted");
    }

    @Test
    void whatWentWrongInTheseLanesIsFoundAndNothingOfOthers() {
        String host = Rows.fresh("hut");
        trouble("unhealthy", host, component, "12:00:01");
        trouble("unhealthy", host, Rows.fresh("other"), "12:00:02");
        trouble("deployment started", host, component, "12:00:03");
        trouble("drift", host, component, "12:00:04");
        List<String> whats = List.of("unhealthy", "drift");
        TrailAsked asked = new TrailAsked(whats, List.of(component), List.of(environment), null,
                "2026-05-04T12:00:00", "2026-05-04T12:01:00", 10);
        assertEquals(List.of("2026-05-04T12:00:04", "2026-05-04T12:00:01"),
                mapper.troubles(asked).stream().map(HistoryMapper.TroubleRow::second).toList());
        assertEquals(0, mapper.troubles(new TrailAsked(whats, List.of(component), List.of(environment),
                "another", "2026-05-04T12:00:00", "2026-05-04T12:01:00", 10)).size());
        long failed = rows.deployment(place.id(), version);
        database.change("update deployment set status = 'failed', ended_at = ?, reason = 'a check failed' where id = ?",
                NOON.plusSeconds(9), failed);
        assertEquals(failed, mapper.ended(List.of(place.id()), window(null)).getFirst().id());
        assertEquals(List.of(), mapper.ended(List.of(rows.place().id()), window(null)));
    }

    @Test
    void aLaneHasItsOwnAndMoreThanIsToldSaysSo() {
        live(0, null);
        String host = Rows.fresh("hut");
        trouble("drift", host, component, "12:00:03");
        Lanes lanes = new Lanes(mapper, new Histories(mock(HistoryMapper.class), database.json()));
        Lanes.LanesView view = lanes.of(window(place.environment()), Optional.empty(), "");
        assertFalse(view.cut());
        assertEquals(List.of(What.DRIFTED), view.lanes().getFirst().wrong().stream()
                .map(HistoryController.HappenedView::what).toList());
        database.change("insert into audit_entry (body) select replace(body, '12:00:03', '12:00:04') from audit_entry "
                + "join seq_1_to_1000 where subject = ?", component);
        database.change("insert into audit_pending (entry_id) select id from audit_entry where subject = ? and id not "
                + "in (select entry_id from audit_pending)", component);
        view = lanes.of(window(place.environment()), Optional.empty(), "");
        assertTrue(view.cut());
        assertEquals(1000, view.lanes().getFirst().wrong().size());
    }
}
