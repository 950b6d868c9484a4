package dev.paseo.service.listing;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.core.run.RunStatus;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.jspecify.annotations.Nullable;

class ListingMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final ListingMapper mapper = database.mapper(ListingMapper.class);
    private final Rows rows = database.rows();
    private final Rows.Place place = rows.place();
    private final long component = place.component();
    private final long line = rows.line(component);

    private List<Long> runs(ListingMapper.RunsAsked asked) {
        return mapper.runs(asked).stream().map(ListingMapper.RunRow::id).toList();
    }

    private ListingMapper.RunsAsked of(@Nullable RunStatus status, @Nullable String author, long before, int limit) {
        return new ListingMapper.RunsAsked(component, null, null, status, author, null, null, false, before, null,
                limit);
    }

    @Test
    void runsComeNewestFirstAndOnlyThoseThatAreAskedFor() {
        long first = rows.run(component, line);
        database.change("update run set number = 0 where id = ?", first);
        long second = rows.run(component, line);
        database.change("update run set status = 'failed', commit_author = 'Ada <ada@park.example>', created_at = ? "
                + "where id = ?", Rows.NOON.plus(Duration.ofHours(1)), second);
        assertEquals(List.of(second, first), runs(of(null, null, Long.MAX_VALUE, 10)));
        assertEquals(List.of(second), runs(of(null, null, Long.MAX_VALUE, 1)));
        assertEquals(List.of(first), runs(of(null, null, second, 10)));
        assertEquals(List.of(second), runs(of(RunStatus.FAILED, null, Long.MAX_VALUE, 10)));
        assertEquals(List.of(second), runs(of(null, "ada@", Long.MAX_VALUE, 10)));
        assertEquals(List.of(first, second), oldest(0, 10));
        assertEquals(List.of(first), oldest(0, 1));
        assertEquals(List.of(second), oldest(first, 10));
        assertEquals(List.of(), runs(of(null, "%", Long.MAX_VALUE, 10)), "a sign is a sign");
        assertEquals(List.of(), runs(of(RunStatus.WARNED, null, Long.MAX_VALUE, 10)));
        String branch = "main";
        assertEquals(List.of(second), runs(new ListingMapper.RunsAsked(component, null, branch, null, null,
                Rows.NOON.plusSeconds(1), null, false, Long.MAX_VALUE, null, 10)));
        assertEquals(List.of(first), runs(new ListingMapper.RunsAsked(component, null, branch, null, null, null,
                Rows.NOON.plusSeconds(1), false, Long.MAX_VALUE, null, 10)));
        assertEquals(List.of(), runs(new ListingMapper.RunsAsked(component, null, "another", null, null, null, null,
                false, Long.MAX_VALUE, null, 10)));
        assertEquals(List.of(second), runs(new ListingMapper.RunsAsked(component, null, null, null, null, null, null,
                true, Long.MAX_VALUE, null, 10)));
        assertEquals(List.of(), labelled("light"));
        database.change("insert into component_label (component_id, name, value) values (?, 'team', 'light')",
                component);
        assertEquals(List.of(second, first), labelled("light"));
    }

    private List<Long> oldest(long after, int limit) {
        return runs(new ListingMapper.RunsAsked(component, null, null, null, null, null, null, false, Long.MAX_VALUE,
                after, limit));
    }

    private List<Long> labelled(String value) {
        return runs(
                new ListingMapper.RunsAsked(component, value, null, null, null, null, null, false, Long.MAX_VALUE, null,
                        10));
    }

    private List<ListingMapper.VersionRow> versions(@Nullable String environment, @Nullable Boolean blocked) {
        return mapper.versions(new ListingMapper.VersionsAsked(component, null, null, environment, blocked, null,
                null, Long.MAX_VALUE, null, 10));
    }

    @Test
    void versionsSayWhereTheyAreLive() {
        long first = rows.version(component, line, 1);
        long second = rows.version(component, line, 2);
        database.change("update place set live_deployment_id = ? where id = ?", rows.deployment(place.id(), first),
                place.id());
        String environment = database.name("environment", place.environment());
        assertEquals(List.of(second, first), versions(null, null).stream().map(ListingMapper.VersionRow::id).toList());
        assertEquals(environment, versions(null, null).getLast().live());
        assertEquals(List.of(first, second), mapper.versions(new ListingMapper.VersionsAsked(component, null, null,
                null, null, null, null, Long.MAX_VALUE, 0L, 10)).stream().map(ListingMapper.VersionRow::id).toList());
        assertEquals(List.of(first), versions(environment, null).stream().map(ListingMapper.VersionRow::id).toList());
        assertTrue(versions(null, true).isEmpty());
        database.change("update version set blocked_at = ? where id = ?", Rows.NOON, second);
        assertEquals(List.of(second), versions(null, true).stream().map(ListingMapper.VersionRow::id).toList());
        assertFalse(versions(null, false).stream().anyMatch(row -> row.id() == second));
    }
}
