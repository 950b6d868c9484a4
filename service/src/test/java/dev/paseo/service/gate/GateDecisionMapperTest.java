package dev.paseo.service.gate;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class GateDecisionMapperTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final GateDecisionMapper mapper = database.mapper(GateDecisionMapper.class);
    private final Rows.Place place = database.rows().place();
    private final long version = database.rows().version(place.component(), database.rows().line(place.component()),
            1);
    private final long deployment = database.rows().deployment(place.id(), version);
    private final long account = database.rows().account();

    private void decide(boolean yes) {
        mapper.add(deployment, null, account, null, yes, "looked at it", "0".repeat(64), "{}", NOW);
    }

    @Test
    void aYesIsTakenBackOnceAndANoStays() throws Exception {
        decide(true);
        List<Integer> taken = RealDatabase.atOnce(12, () -> mapper.takeBack(deployment, null, account, NOW));
        assertEquals(1, taken.stream().mapToInt(Integer::intValue).sum());
        assertEquals(List.of(), mapper.of(deployment, null));
        decide(false);
        assertEquals(0, mapper.takeBack(deployment, null, account, NOW));
        assertFalse(mapper.of(deployment, null).getFirst().yes());
    }

    @Test
    void theStateThatTheTrailStatesHoldsAlsoWhatWasTakenBack() {
        decide(true);
        String before = mapper.states(deployment, null).getFirst().text();
        mapper.takeBack(deployment, null, account, NOW);
        assertFalse(mapper.states(deployment, null).getFirst().text().equals(before));
    }

    @Test
    void aDeputyDecidesInTheirTimeAndWhileTheyMaySignIn() {
        long deputy = database.rows().account();
        mapper.addStandIn(account, deputy, deployment, NOW, account);
        GateDecisionMapper.StandInRow row = new GateDecisionMapper.StandInRow(database.name("account", deputy),
                database.name("account", account));
        assertTrue(mapper.standIns(deployment, NOW).contains(row));
        assertFalse(mapper.standIns(deployment, NOW.minusSeconds(1)).contains(row));
        assertFalse(mapper.standIns(deployment + 1, NOW).contains(row), "it was handed on for this one alone");
        database.change("update account set disabled_at = ? where id = ?", NOW, deputy);
        assertFalse(mapper.standIns(deployment, NOW).contains(row));
    }

    @Test
    void whoPushedSinceWhatIsLiveCountsAndWhoPushedBeforeDoesNot() {
        push("a", "anna", true);
        push("b", "bert", true);
        push("c", "carl", true);
        push("d", "dora", false);
        assertEquals(Set.of("carl", "the pusher of d to main"),
                pushers("b", "d"));
        assertEquals(4, pushers("unknown", "d").size(), "all, where it was never pushed");
    }

    private Set<String> pushers(String live, String proposed) {
        return mapper.wrote(place.component(), live, proposed).stream().filter(GateDecisionMapper.WroteRow::pushed)
                .map(GateDecisionMapper.WroteRow::text).collect(Collectors.toSet());
    }

    @Test
    void theAuthorsAreToldWithThePushersWhereTheyAreKnown() {
        push("b", "bert", true);
        assertEquals(List.of(new GateDecisionMapper.WroteRow(true, "bert")),
                mapper.wrote(place.component(), "a", "b"));
        mapper.keepAuthors(place.component(), "a", "b", "[\"anna@huts.example\"]");
        mapper.keepAuthors(place.component(), "other", "b", "[]");
        assertEquals(Set.of(new GateDecisionMapper.WroteRow(true, "bert"),
                new GateDecisionMapper.WroteRow(false, "[\"anna@huts.example\"]")),
                Set.copyOf(mapper.wrote(place.component(), "a", "b")));
    }

    private void push(String commit, String by, boolean told) {
        database.insert("""
                insert into trigger_event (component_id, kind, branch, commit_id, sentence, actor, told, at)
                values (?, 'push', 'main', ?, '', ?, ?, ?)""", place.component(), commit, by, told, NOW);
    }
}
