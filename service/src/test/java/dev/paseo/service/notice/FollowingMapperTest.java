package dev.paseo.service.notice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import org.junit.jupiter.api.Test;

class FollowingMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final FollowingMapper mapper = database.mapper(FollowingMapper.class);
    private final NoticeMapper notices = database.mapper(NoticeMapper.class);
    private final Rows rows = database.rows();
    private final long somebody = rows.account();
    private final String name = database.name("account", somebody);
    private final Rows.Place place = rows.place();

    @Test
    void whoFollowsAComponentAnEnvironmentOrADeploymentIsFound() {
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        assertEquals(List.of(), notices.followers(place.component(), place.environment(), deployment));
        mapper.follow(somebody, "environment", place.environment());
        mapper.follow(somebody, "environment", place.environment());
        assertEquals(List.of(name), notices.followers(place.component(), place.environment(), deployment));
        assertEquals(List.of(), notices.followers(place.component(), null, null), "a run is in no environment");
        mapper.follow(somebody, "component", place.component());
        assertEquals(List.of(name), notices.followers(place.component(), null, null));
        mapper.follow(somebody, "deployment", deployment);
        assertEquals(List.of("component " + database.name("component", place.component()), "deployment " + deployment,
                "environment " + database.name("environment", place.environment())),
                mapper.of(somebody).stream().map(row -> row.what() + " " + row.name()).toList());
        assertEquals(1, mapper.leave(somebody, "component", place.component()));
        assertEquals(List.of(), notices.followers(place.component(), null, null));
        database.change("update account set disabled_at = ? where id = ?", Rows.NOON, somebody);
        assertEquals(List.of(), notices.followers(place.component(), place.environment(), deployment));
        assertTrue(mapper.deployment(deployment).isPresent());
        assertTrue(mapper.deployment(0).isEmpty());
    }

    @Test
    void whatAskedForADecisionIsGoneOnceItIsDecided() {
        long version = rows.version(place.component(), rows.line(place.component()), 1);
        long deployment = rows.deployment(place.id(), version);
        notices.add(somebody, Notices.Said.of(NoticeKind.WAITS, "", "It waits", "", "/deployments/" + deployment, "a"),
                Rows.NOON, null, null);
        notices.add(somebody,
                Notices.Said.of(NoticeKind.DECIDED, "", "It was decided", "", "/deployments/" + deployment,
                        "b"),
                Rows.NOON, null, null);
        assertEquals(2, notices.newest(somebody, 10).size());
        assertEquals(2, notices.unread(somebody));
        database.insert("insert into ruling (deployment_id, account_id, yes, comment, subject, at) values (?, ?, true, "
                + "'', repeat('0', 64), ?)", deployment, somebody, Rows.NOON);
        assertEquals(List.of("decided"), notices.newest(somebody, 10).stream().map(NoticeMapper.NoticeRow::event)
                .toList());
        assertEquals(1, notices.unread(somebody));
        database.change("update ruling set taken_back_at = ? where deployment_id = ?", Rows.NOON, deployment);
        assertEquals(2, notices.unread(somebody), "who took it back is asked again");
        database.change("update deployment set status = 'live' where id = ?", deployment);
        assertEquals(1, notices.unread(somebody));
    }
}
