package dev.paseo.service.dryrun;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.run.RunStatus;
import dev.paseo.core.trigger.BranchPattern;
import dev.paseo.core.trigger.BranchRules;
import dev.paseo.core.trigger.Matching.InForce;
import dev.paseo.core.trigger.Trigger;
import dev.paseo.core.trigger.TriggerDryRun;
import dev.paseo.service.cause.Causes;
import dev.paseo.service.component.Components;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.dryrun.TriggerDryRunMapper.OwnRow;
import dev.paseo.service.source.Mirror;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** With what gathers events, on the real database. */
class TriggerDryRunMapperTest {

    private static final Instant NOON = Rows.NOON;
    private static final BranchRules RULES = BranchRules.of(List.of("*"), List.of("main"));

    private final RealDatabase database = RealDatabase.get();
    private final TriggerDryRunMapper mapper = database.mapper(TriggerDryRunMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();

    private long event(String kind, String branch, String commit, int at) {
        return database.insert("insert into trigger_event (component_id, kind, branch, commit_id, sentence, actor, "
                + "cause_id, at) values (?, ?, ?, ?, ?, 'ana', ?, ?)", place.component(), kind, branch, commit,
                kind + " " + commit, rows.cause(), NOON.plusSeconds(at));
    }

    @Test
    void whatHappenedToItIsFoundTheNewestFirst() {
        long push = event("push", "main", "c0ffee", 0);
        long tag = event("tag", "main", "c0ffee", 5);
        event("clock", "main", "c0ffee", 6);
        event("push", "main", "bead", -10);
        assertEquals(List.of(tag, push), mapper.own(place.component(), NOON, 10).stream().map(OwnRow::id).toList());
        assertEquals(1, mapper.own(place.component(), NOON, 1).size());
    }

    @Test
    void runsThatEndedAndVersionsThatWentLiveAreFound() {
        String name = database.name("component", place.component());
        long line = rows.line(place.component());
        long run = rows.run(place.component(), line);
        database.change("update run set status = 'passed', ended_at = ? where id = ?", NOON.plusSeconds(9), run);
        TriggerDryRunMapper.EndedRow ended = mapper.ended(List.of(name), NOON, 10).getFirst();
        assertEquals(name + " main main " + RunStatus.PASSED, ended.component() + " " + ended.branch() + " "
                + ended.mainBranch() + " " + ended.status());
        long version = rows.version(place.component(), line, 1);
        for (int at : new int[]{20, 30}) {
            database.change("update deployment set live_at = ? where id = ?", NOON.plusSeconds(at),
                    rows.deployment(place.id(), version));
        }
        assertEquals(List.of(NOON.plusSeconds(20)), mapper.live(List.of(name), NOON, 10).stream()
                .map(TriggerDryRunMapper.LiveRow::liveAt).toList(), "the first time alone");
        assertEquals(0, mapper.live(List.of(name), NOON.plusSeconds(25), 10).size());
    }

    private static InForce inForce(Trigger trigger) {
        return new InForce("board", 0, trigger, RULES, "main", Optional.empty());
    }

    /** Git does not know one of the commits any more: of that push it cannot be told what it changed. */
    @Test
    void aCommitThatIsGoneLeavesOpenWhatChanged() {
        TriggerDryRunMapper events = mock(TriggerDryRunMapper.class);
        when(events.own(anyLong(), any(), anyInt())).thenReturn(List.of(
                new OwnRow(3, "push", "main", "c3", "push c3", 3, NOON.plusSeconds(3)),
                new OwnRow(2, "push", "main", "c2", "push c2", 2, NOON.plusSeconds(2)),
                new OwnRow(1, "push", "main", "c1", "push c1", 1, NOON.plusSeconds(1))));
        Causes causes = mock(Causes.class);
        when(causes.cause(anyLong()))
                .thenAnswer(call -> new Cause.Push("board", "main", "c" + call.getArgument(0), "ana"));
        Mirror mirror = mock(Mirror.class);
        when(mirror.changed(anyString(), anyString(), anyInt())).thenThrow(new IllegalStateException("gone"));
        doReturn(List.of("docs/a")).when(mirror).changed("c1", "c2", 10_000);
        Components components = mock(Components.class);
        when(components.mirror(any())).thenReturn(mirror);
        RegisteredComponent board = new RegisteredComponent(1, "board", Optional.of("x"), "paseo.yaml", "main", "",
                Optional.empty());
        Trigger now = new Trigger.Push(List.of(new BranchPattern("main")), List.of());
        Trigger tried = new Trigger.Push(List.of(new BranchPattern("main")), List.of(new BranchPattern("src/**")));
        TriggerDryRun.Result result = new TriggerDryRuns(events, components, causes)
                .of(board, List.of(inForce(now)), List.of(inForce(tried)), NOON, NOON.plusSeconds(60)).result();
        assertEquals(List.of("push c3 UNKNOWN", "push c2 STARTS_NOTHING", "push c1 UNKNOWN"),
                result.differing().stream()
                        .map(each -> each.past().sentence() + " " + each.then()).toList());
    }

    @Test
    void aClockStrikesInTheTimeThatIsLookedAt() {
        RegisteredComponent board = new RegisteredComponent(place.component(), "board", Optional.empty(), "paseo.yaml",
                "main", "",
                Optional.empty());
        TriggerDryRun.Result result = new TriggerDryRuns(mapper, mock(Components.class), mock(Causes.class)).of(board,
                List.of(inForce(new Trigger.Clock("0 * * * *", "UTC"))),
                List.of(inForce(new Trigger.Clock("30 13 * * *", "UTC")),
                        inForce(new Trigger.Upstream(List.of("none"), List.of(), Set.of(), false,
                                Trigger.Novelty.ANY))),
                NOON, NOON.plusSeconds(3 * 3600 + 1)).result();
        assertEquals("4 3 1 4", result.events() + " " + result.now() + " " + result.then() + " "
                + result.differing().size());
    }
}
