package dev.paseo.service.pace;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.pace.Shift;
import dev.paseo.core.pace.StageFigures.Order;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.pace.FigureShifts.ShiftsView;
import dev.paseo.service.pace.StagePaceMapper.Wanted;
import dev.paseo.service.pace.StagePaces.StagePacesView;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** With what adds up and explains what it reads, on the real database. */
class StagePaceMapperTest {

    private static final Instant NOON = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final StagePaceMapper mapper = database.mapper(StagePaceMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long line = rows.line(place.component());
    private final StagePaces paces = new StagePaces(mapper);
    private final FigureShifts shifts = new FigureShifts(mapper, database.json());

    private long stage(long run, String name, int attempt, String status, long from, long seconds) {
        long stage = rows.stage(run, name, attempt);
        database.change("update stage set status = ?, started_at = ?, ended_at = ? where id = ?", status,
                NOON.plusSeconds(from), NOON.plusSeconds(from + seconds), stage);
        return stage;
    }

    private Wanted wanted(@Nullable String label, int most) {
        return new Wanted(place.component(), label, NOON, NOON.plusSeconds(100_000), most);
    }

    private static List<String> names(StagePacesView view) {
        return view.stages().stream().map(StagePaces.StagePaceView::stage).toList();
    }

    @Test
    void stagesAreAddedUpInTheOrderThatIsAskedFor() {
        for (int number = 1; number <= 3; number++) {
            long run = rows.run(place.component(), line, number);
            stage(run, "build", 1, "passed", 10L * number, 60);
            stage(run, "unit", 1, number == 2 ? "failed" : "passed", 100L * number, 10);
            stage(run, "check", 1, number == 3 ? "failed" : "passed", 200L * number, 20);
        }
        long run = rows.run(place.component(), line, 4);
        stage(run, "unit", 1, "failed", 1000, 5);
        stage(run, "unit", 2, "warned", 1010, 12);
        stage(run, "left", 1, "cancelled", 1000, 5000);
        StagePacesView all = paces.of(wanted(null, 100), Order.SPENT, 10);
        assertEquals(List.of("build", "check", "unit"), names(all));
        StagePaces.StagePaceView unit = all.stages().getLast();
        assertEquals("4 Optional[10.0] Optional[12.0] 47.0 1 1 1", unit.runs() + " " + unit.median() + " "
                + unit.ninety() + " " + unit.spent() + " " + unit.failed() + " " + unit.flaky() + " " + unit.retried());
        assertEquals(List.of("unit"), names(paces.of(wanted(null, 100), Order.FLAKIEST, 1)));
        assertEquals(List.of("check", "unit", "build"), names(paces.of(wanted(null, 100), Order.FAILING, 10)));
        assertEquals(List.of("unit", "build", "check"), names(paces.of(wanted(null, 100), Order.RETRIED, 10)));
        assertEquals(List.of("build", "check", "unit"), names(paces.of(wanted(null, 100), Order.SLOWEST, 10)));
        assertEquals(List.of(), names(paces.of(wanted("nobody", 100), Order.SPENT, 10)));
        assertEquals(NOON, all.since());
        assertEquals(NOON.plusSeconds(1022), paces.of(wanted(null, 1), Order.SPENT, 10).since(),
                "fewer than asked for say from when on");
    }

    private void work(long run, @Nullable Long stage, @Nullable Long deployment, @Nullable Long host, long agent) {
        database.insert(
                "insert into work (kind, status, offered_at, run_id, stage_id, deployment_id, host_id, agent_id, "
                        + "ended_at) values ('STAGE', 'ended', ?, ?, ?, ?, ?, ?, ?)",
                NOON, run == 0 ? null : run, stage,
                deployment, host, agent, NOON);
    }

    @Test
    void aStageThatBecameSlowerWithAnotherAgentAndUpstreamSaysSo() {
        long fast = rows.agent();
        long slow = rows.agent();
        long upstream = rows.component();
        long old = rows.version(upstream, rows.line(upstream), 1);
        long fresh = rows.version(upstream, rows.line(upstream), 1);
        for (int number = 1; number <= 16; number++) {
            boolean after = number > 8;
            long run = rows.run(place.component(), line, number);
            long stage = stage(run, "unit", 1, "passed", 100L * number, after ? 40 : 10);
            work(run, stage, null, null, after ? slow : fast);
            database.change("insert into run_upstream (run_id, component_id, version_id) values (?, ?, ?)", run,
                    upstream,
                    after ? fresh : old);
        }
        ShiftsView view = shifts.ofStage(place.component(), "unit");
        assertEquals(16, view.points().size());
        assertEquals(1, view.points().getFirst().number(), "the oldest first");
        FigureShifts.ShiftView shift = view.shifts().getFirst();
        assertEquals(Shift.Kind.SLOWER + " 8 10.0 40.0 1",
                shift.kind() + " " + shift.point() + " " + shift.before() + " "
                        + shift.after() + " " + view.shifts().size());
        assertEquals(List.of("agent", "upstream " + database.name("component", upstream)),
                shift.differences().stream().map(FigureShifts.DifferenceView::fact).toList());
        assertEquals(new FigureShifts.ValueView(database.name("agent", slow), 8, 8),
                shift.differences().getFirst().after().getFirst());
        assertEquals(List.of(), shifts.ofStage(place.component(), "none").points());
    }

    @Test
    void deploymentsThatBeganToFailSayWhatWasOtherwise() {
        long agent = rows.agent();
        long host = rows.host(place.id());
        long version = rows.version(place.component(), line, 1);
        for (int number = 1; number <= 12; number++) {
            boolean bad = number > 6;
            long deployment = rows.deployment(place.id(), version);
            database.change("update deployment set kind = 'promotion', status = ?, started_at = ?, live_at = ?, "
                    + "ended_at = ?, settings_revision = ?, secret_revisions = ? where id = ?",
                    bad ? "failed" : "replaced", NOON.plusSeconds(number), bad ? null : NOON.plusSeconds(number + 30),
                    NOON.plusSeconds(number + 40), 1, bad ? "{\"API_KEY\":2}" : "{\"API_KEY\":1}", deployment);
            work(0, null, deployment, host, agent);
        }
        ShiftsView view = shifts.ofPlace(place.id());
        FigureShifts.ShiftView shift = view.shifts().getFirst();
        assertEquals(Shift.Kind.FAILS_MORE + " 6 0.0 100.0", shift.kind() + " " + shift.point() + " " + shift.before()
                + " " + shift.after());
        assertEquals(List.of("secret API_KEY"),
                shift.differences().stream().map(FigureShifts.DifferenceView::fact).toList());
        assertTrue(Optional.of(view.points().getLast()).filter(FigureShifts.PointView::failed).isPresent());
    }
}
