package dev.paseo.service.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.gate.Criterion.Approvals;
import dev.paseo.core.pace.LeadTime.Obstacles;
import dev.paseo.core.pace.TimePart;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.pace.PaceMapper.Asked;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.dao.QueryTimeoutException;

class PaceMapperTest {

    private static final Instant NOON = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final PaceMapper mapper = database.mapper(PaceMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long line = rows.line(place.component());
    private final long version = rows.version(place.component(), line, 1);

    private long live(String kind, int at, @Nullable Long replaces) {
        long deployment = rows.deployment(place.id(), version);
        database.change("update deployment set kind = ?, started_at = ?, live_at = ?, replaces_id = ?, status = 'live' "
                + "where id = ?", kind, NOON.plusSeconds(at - 5), NOON.plusSeconds(at), replaces, deployment);
        return deployment;
    }

    /** What is in the way, and who is asked, is said here by the environment's rules alone. */
    private PaceKeeping keeping(String... asked) {
        InTheWay inTheWay = mock(InTheWay.class);
        when(inTheWay.of(any())).thenReturn(Obstacles.NONE);
        when(inTheWay.wanted(any())).thenReturn(Stream.of(asked).map(name -> new Approvals(List.of(name), 1, List.of(),
                false, Optional.empty(), Optional.empty())).toList());
        return new PaceKeeping(mapper, inTheWay);
    }

    private Asked asked(@Nullable String label, int limit) {
        return new Asked(place.component(), place.environment(), label, NOON, NOON.plusSeconds(1000), limit);
    }

    @Test
    void aPromotionIsCountedAndWhetherItWasGoneBackFrom() {
        PaceKeeping keeping = keeping();
        long good = live("promotion", 10, null);
        long bad = live("promotion", 100, good);
        long back = live("rollback", 160, bad);
        List.of(good, bad, back).forEach(each -> keeping.perform(Long.toString(each)));
        keeping.perform(Long.toString(rows.deployment(place.id(), version)));
        List<Paces.LeadTimeView> ways = new Paces(mapper).slowest(asked(null, 10));
        assertEquals(List.of(bad, good), ways.stream().map(Paces.LeadTimeView::deployment).toList(),
                "the slowest first, and no rollback");
        assertEquals(Optional.of(60L), ways.getFirst().badFor());
        assertEquals(100, ways.getFirst().seconds());
        assertEquals(List.of(new Paces.PartOfLeadTimeView(TimePart.TIME, 95),
                new Paces.PartOfLeadTimeView(TimePart.DEPLOYING, 5)),
                ways.getFirst().parts().stream().filter(part -> part.seconds() > 0).toList());
        keeping.perform(Long.toString(bad));
        assertEquals(Optional.of(60L), new Paces(mapper).slowest(asked(null, 1)).getFirst().badFor(),
                "made anew it is the same");
        assertEquals(2, mapper.samples(asked(null, 0)).size());
        database.change("update deployment set status = 'undone', ended_at = ? where id = ?", NOON.plusSeconds(17),
                good);
        keeping.perform(Long.toString(good));
        assertEquals(Optional.of(7L), new Paces(mapper).slowest(asked(null, 10)).getLast().badFor(),
                "what was taken back is gone back from");
    }

    @Test
    void whoeverIsAskedIsWaitedForByTheNameOfTheirGroup() {
        long account = rows.account();
        String group = Rows.fresh("rangers");
        long id = database.insert("insert into account_group (name) values (?)", group);
        database.change("insert into group_member (group_id, account_id) values (?, ?)", id, account);
        long deployment = live("promotion", 50, null);
        database.change("insert into ruling (deployment_id, account_id, yes, comment, subject, at) values (?, ?, true,"
                + " '', ?, ?)", deployment, account, rows.digest(), NOON.plusSeconds(20));
        assertEquals(List.of(new PaceMapper.YesRow(database.name("account", account), group, NOON.plusSeconds(20))),
                mapper.said(deployment));
        keeping(group).perform(Long.toString(deployment));
        keeping(group).perform(Long.toString(deployment));
        assertEquals(List.of(new PaceMapper.WaitedRow(place.environment(), group, 1, 20)),
                mapper.waitedFor(asked(null, 0)));
        Paces.EnvironmentPaceView view = new Paces(mapper).of(asked(null, 0)).environments().getFirst();
        assertEquals(List.of(new Paces.WaitedForView(group, 1, 20)), view.waitedFor());
    }

    @Test
    void whatStoodInTheWayIsFoundWithBothItsEnds() {
        long account = rows.account();
        Instant late = NOON.plusSeconds(100);
        database.change("insert into closure (environment_id, reason, set_by, at, until_at) values (?, '', ?, ?, ?)",
                place.environment(), account, NOON.plusSeconds(5), NOON.plusSeconds(9));
        database.change("insert into hold (place_id, environment_id, reason, set_by, at) values (?, ?, '', ?, ?)",
                place.id(),
                place.environment(), account, NOON.plusSeconds(50));
        long other = live("promotion", 40, null);
        long own = live("promotion", 90, null);
        assertEquals(List.of(new PaceMapper.SpanRow(NOON.plusSeconds(5), NOON.plusSeconds(9))),
                mapper.closures(place.environment(), NOON, late));
        assertEquals(List.of(new PaceMapper.SpanRow(NOON.plusSeconds(50), late)), mapper.holds(place.id(), NOON, late));
        assertEquals(List.of(new PaceMapper.SpanRow(NOON.plusSeconds(35), NOON.plusSeconds(40))),
                mapper.others(place.id(), own, NOON, late));
        assertEquals(List.of(), mapper.others(place.id(), other, NOON, NOON.plusSeconds(80)));
    }

    @Test
    void itIsAskedByLabelAndTime() {
        PaceKeeping keeping = keeping();
        keeping.perform(Long.toString(live("promotion", 10, null)));
        keeping.perform(Long.toString(live("promotion", 2000, null)));
        assertEquals(1, mapper.samples(asked(null, 0)).size());
        String team = Rows.fresh("team");
        assertEquals(0, mapper.samples(asked(team, 0)).size());
        database.change("insert into component_label (component_id, name, value) values (?, 'team', ?)",
                place.component(), team);
        assertEquals(1, mapper.samples(asked(team, 0)).size());
        assertTrue(mapper.environments().stream().anyMatch(each -> each.id() == place.environment()));
    }

    /** Whoever commits says when, and may say anything. */
    @Test
    void aCommitOfAnotherAgeCountsAsAHundredAndThirtySixYears() {
        long deployment = live("promotion", 10, null);
        keeping().perform(Long.toString(deployment));
        database.change("update lead_time set committed = ? where deployment_id = ?", 63_000_000_000L, deployment);
        assertEquals(new Paces.PartOfLeadTimeView(TimePart.COMMITTED, 4_294_967_295L),
                new Paces(mapper).slowest(asked(null, 1)).getFirst().parts().getFirst());
    }

    @Test
    void whatWasBegunAndDidNotGoLiveIsCounted() {
        long failed = rows.deployment(place.id(), version);
        database.change("update deployment set status = 'undone', started_at = ?, ended_at = ? where id = ?", NOON,
                NOON.plusSeconds(9), failed);
        long rejected = rows.deployment(place.id(), version);
        database.change("update deployment set status = 'rejected', ended_at = ? where id = ?", NOON.plusSeconds(9),
                rejected);
        assertEquals(List.of(new PaceMapper.CountRow(place.environment(), 1)), mapper.failed(asked(null, 0)));
    }

    @Test
    void theWorkOfARunAndTheLastDecisionAreFound() {
        long run = rows.run(place.component(), line);
        database.insert("insert into work (kind, status, offered_at, run_id, taken_at, ended_at) values ('STAGE', "
                + "'ended', ?, ?, ?, ?)", NOON, run, NOON, NOON.plusSeconds(3));
        database.insert("insert into work (kind, status, offered_at, run_id) values ('STAGE', 'offered', ?, ?)", NOON,
                run);
        assertEquals(List.of(new PaceMapper.WorkRow(NOON, NOON.plusSeconds(3))), mapper.work(run));
        long deployment = live("promotion", 50, null);
        database.change("insert into ruling (deployment_id, account_id, yes, comment, subject, at) values (?, ?, true,"
                + " '', ?, ?)", deployment, rows.account(), rows.digest(), NOON.plusSeconds(20));
        PaceMapper.MadeRow made = mapper.made(deployment).orElseThrow();
        assertEquals(NOON.plusSeconds(20), made.decided());
        assertEquals(Optional.empty(), mapper.badFor(deployment));
    }

    @Test
    void whatFailsBesideFailsTheWhole() {
        PaceMapper failing = mock(PaceMapper.class);
        RuntimeException away = new QueryTimeoutException("too long");
        when(failing.waitedFor(any())).thenThrow(away);
        assertSame(away, assertThrows(QueryTimeoutException.class, () -> new Paces(failing).of(asked(null, 1))));
    }
}
