package dev.paseo.service.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.paseo.core.cause.Cause;
import dev.paseo.core.trigger.Event;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.trigger.EventMapper.EventRow;
import dev.paseo.service.trigger.EventMapper.EventsAsked;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.junit.jupiter.api.Test;

class EventMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final EventMapper mapper = database.mapper(EventMapper.class);
    private final Rows rows = database.rows();
    private final long component = rows.component();

    private EventMapper.NewEvent pushed(long of, String key, String commit, boolean told) {
        RegisteredComponent about = new RegisteredComponent(of, "daylight-api", Optional.empty(), "paseo.yaml", "main",
                "", Optional.empty());
        return new EventMapper.NewEvent(new Happened(new Event.Pushed("daylight-api", "main", commit, Optional.empty()),
                about, Optional.of(key), "push to main", new Cause.Push("daylight-api", "main", commit, ""),
                OptionalLong.empty(), "anna", Optional.of("main"), Optional.of(commit), Optional.empty(), told,
                Optional.empty()), null, Rows.NOON);
    }

    private long added(String key, String commit, boolean told) {
        EventMapper.NewEvent event = pushed(component, key, commit, told);
        assertEquals(1, mapper.add(event));
        return event.id;
    }

    private List<Long> ids(List<EventRow> events) {
        return events.stream().map(EventRow::id).toList();
    }

    private EventsAsked asked(Boolean started, Long after) {
        return new EventsAsked(component, null, null, null, null, started, null, null, Long.MAX_VALUE, after, 10);
    }

    @Test
    void whatHappenedOnceIsOneEventHoweverManyNoticeIt() throws Exception {
        List<Integer> added = RealDatabase.atOnce(12, () -> mapper.add(pushed(component, "k", "c0ffee", true)));
        assertEquals(1, added.stream().mapToInt(Integer::intValue).sum());
        assertEquals(1, mapper.add(pushed(rows.component(), "k", "c0ffee", true)), "of another component");
    }

    @Test
    void whoPushedIsToldAsLongAsNobodyHas() {
        long event = added("k", "c0ffee", false);
        assertEquals(List.of("main"), mapper.untold(component, "c0ffee"));
        assertEquals(0, mapper.tell(component, "main", "c0ffee", "ben", Rows.NOON.plusSeconds(1)), "too late");
        assertEquals(1, mapper.tell(component, "main", "c0ffee", "ben", Rows.NOON));
        assertEquals(0, mapper.tell(component, "main", "c0ffee", "carla", Rows.NOON), "somebody has");
        assertEquals("ben", mapper.byId(event).orElseThrow().actor());
        assertEquals(List.of(), mapper.untold(component, "c0ffee"));
    }

    @Test
    void theNewestComeFirstAndThoseAfterOneTheOldestFirst() {
        long one = added("1", "c0ffee1", true);
        long two = added("2", "c0ffee2", true);
        long three = added("3", "c0ffee3", true);
        assertEquals(List.of(three, two, one), ids(mapper.newest(component, Long.MAX_VALUE, 10)));
        assertEquals(List.of(two, one), ids(mapper.newest(component, three, 10)));
        assertEquals(List.of(two, three), ids(mapper.asked(asked(null, one))));
        assertEquals(List.of(three), ids(mapper.ofCommit(component, "c0ffee3", 10)));
        assertEquals(3, mapper.ofCommit(component, "c0ffee", 10).size(), "by its beginning");
    }

    @Test
    void whatStartedARunIsToldFromWhatDidNot() {
        long idle = added("1", "c0ffee1", true);
        long starting = added("2", "c0ffee2", true);
        long run = rows.run(component, rows.line(component));
        mapper.consider(idle, component, component, 0, "pushes to main", null, "nothing changed");
        mapper.consider(starting, component, component, 0, "pushes to main", run, null);
        assertEquals(List.of(starting), ids(mapper.asked(asked(true, null))));
        assertEquals(List.of(idle), ids(mapper.asked(asked(false, null))));
        assertEquals("nothing changed", mapper.considered(List.of(idle)).getFirst().reason());
    }

    @Test
    void whatHappenedElsewhereIsThereWhereItWasConsidered() {
        long other = rows.component();
        long event = added("1", "c0ffee1", true);
        mapper.consider(event, other, other, 0, "runs of daylight-api", null, "it failed");
        assertEquals(List.of(event), ids(mapper.newest(other, Long.MAX_VALUE, 10)));
    }

    @Test
    void aVersionIsBuiltFromWhatItsRunTookAtAnyRemove() {
        long line = rows.line(component);
        long library = rows.component();
        long libraryVersion = rows.version(library, rows.line(library), 1);
        long run = rows.run(component, line);
        database.insert("insert into run_upstream (run_id, component_id, version_id) values (?, ?, ?)", run, library,
                libraryVersion);
        long version = rows.version(component, line, 1);
        database.change("update version set run_id = ? where id = ?", run, version);
        assertEquals(List.of(database.name("component", library)),
                mapper.lineage(List.of(version)).stream().map(EventMapper.LineageRow::component).toList());
        assertEquals(List.of(new EventMapper.UsedRow(library, libraryVersion)), mapper.used(line));
    }
}
