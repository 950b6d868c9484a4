package dev.paseo.service.asking;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

class AskMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final AskMapper mapper = database.mapper(AskMapper.class);
    private final Rows rows = database.rows();
    private final long asks = rows.account();
    private final long does = rows.account();
    private final Rows.Place place = rows.place();
    private final long version = rows.version(place.component(), rows.line(place.component()), 1);

    private long add(String act, @Nullable Long of) {
        mapper.add(asks, act, place.id(), of, "why", Rows.NOON);
        return mapper.same(asks, act, place.id(), of).orElseThrow();
    }

    private List<AskMapper.EndRow> ended(long id) {
        return mapper.ended().stream().filter(row -> row.id() == id).toList();
    }

    @Test
    void theSameIsOpenOnceAndEndsOnce() {
        long id = add("promote", version);
        assertThrows(RuntimeException.class,
                () -> mapper.add(asks, "promote", place.id(), version, "again", Rows.NOON));
        assertEquals(asks, mapper.lock(asks));
        assertEquals(1, mapper.countOpen(asks));
        assertTrue(mapper.open().stream().anyMatch(row -> row.id() == id));
        assertEquals(1, mapper.end(id, "declined", "no", does, null, Rows.NOON));
        assertEquals(0, mapper.end(id, "dropped", null, asks, null, Rows.NOON));
        assertEquals(0, mapper.countOpen(asks));
        AskMapper.AskRow row = mapper.byId(id).orElseThrow();
        assertEquals("declined no " + database.name("account", does),
                row.outcome() + " " + row.answer() + " " + row.answeredBy());
        long again = add("promote", version);
        assertEquals(List.of(again, id), mapper.of(asks).stream().map(AskMapper.AskRow::id).toList());
        database.change("update account set disabled_at = ? where id = ?", Rows.NOON, asks);
        assertTrue(mapper.open().stream().noneMatch(each -> each.id() == again), "who is gone asks nothing");
    }

    @Test
    void whatWasDoneSinceIsFoundWithWhoDidIt() {
        long promote = add("promote", version);
        long back = add("roll-back", null);
        assertEquals(List.of(), ended(promote));
        assertTrue(mapper.already(place.id(), version).isEmpty());
        long deployment = rows.deployment(place.id(), version);
        database.change("update deployment set kind = 'promotion', requested_by = ?, requested_at = ?, status = "
                + "'waiting' where id = ?", does, Rows.NOON, deployment);
        assertEquals(List.of(new AskMapper.EndRow(promote, does, deployment, null)), ended(promote));
        assertEquals(deployment, mapper.already(place.id(), version).orElseThrow());
        assertEquals(List.of(), ended(back));
        database.change("update deployment set kind = 'rollback' where id = ?", deployment);
        assertEquals(List.of(), ended(promote), "going back is no promotion");
        assertEquals(List.of(new AskMapper.EndRow(back, does, deployment, null)), ended(back));
        database.change("update deployment set requested_at = ? where id = ?", Rows.NOON.minusSeconds(1), deployment);
        assertEquals(List.of(), ended(back), "it was before it was asked");
    }

    @Test
    void aHoldAndItsLiftingAreFound() {
        long hold = add("hold", null);
        assertTrue(!mapper.held(place.id()));
        database.insert("insert into hold (place_id, environment_id, reason, set_by, at) values (?, ?, 'r', ?, ?)",
                place.id(),
                place.environment(), does, Rows.NOON);
        assertTrue(mapper.held(place.id()));
        assertEquals(List.of(new AskMapper.EndRow(hold, does, null, null)), ended(hold));
        long lift = add("lift-hold", null);
        assertEquals(List.of(), ended(lift));
        database.change("update hold set lifted_at = ?, lifted_by = ? where place_id = ?", Rows.NOON, does, place.id());
        assertEquals(List.of(new AskMapper.EndRow(lift, does, null, null)), ended(lift));
    }

    @Test
    void whatCanNoLongerBeDoneIsFoundWithItsReason() {
        long promote = add("promote", version);
        database.change("update version set blocked_at = ?, block_reason = 'r' where id = ?", Rows.NOON, version);
        assertEquals(List.of(new AskMapper.EndRow(promote, null, null, "the version was blocked")), ended(promote));
        long back = add("roll-back", null);
        database.change("update place set retired_at = ? where id = ?", Rows.NOON, place.id());
        assertEquals("nothing is deployed there any more", ended(back).getFirst().needless());
    }
}
