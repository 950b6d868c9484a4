package dev.paseo.service.passage;

import dev.paseo.core.environment.Passage;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface PassageMapper {

    /** @param before the version that was live there before */
    record PassageRow(long id, long versionId, long environmentId, String environment, long deploymentId,
            Passage.Status status,
            Instant openedAt, @Nullable Instant settledAt,
            @Nullable Instant endedAt, @Nullable String reason, @Nullable Long beforeId,
            @Nullable String testFailure) {}

    String COLUMNS = """
            select p.id, p.version_id, p.environment_id, e.name as environment, p.deployment_id, p.status,
              p.opened_at, p.settled_at, p.ended_at, p.reason,
              b.version_id as before_id, p.test_failure
            from passage p join environment e on e.id = p.environment_id join deployment d on d.id = p.deployment_id
              left join deployment b on b.id = d.replaces_id
            """;

    @Insert("""
            insert ignore into passage (version_id, environment_id, deployment_id, status, format, opened_at)
            values (#{version}, #{environment}, #{deployment}, 'open', 1, #{at})""")
    int open(long version, long environment, long deployment, Instant at);

    @Select("select id from passage where version_id = #{version} and environment_id = #{environment}")
    Optional<Long> of(long version, long environment);

    @Select("select id from passage where id = #{id} for update")
    Optional<Long> lock(long id);

    @Select(COLUMNS + "where p.id = #{id}")
    Optional<PassageRow> byId(long id);

    @Select(COLUMNS + "where p.version_id = #{version} order by p.id")
    List<PassageRow> ofVersion(long version);

    record WalkedRow(long id, String environment, Passage.Status status, Instant openedAt, @Nullable Instant endedAt,
            @Nullable String keeps) {}

    @Select("""
            select p.id, e.name as environment, p.status, p.opened_at, p.ended_at,
              if(p.status = 'open' and (p.settled_at is not null or p.test_failed_at is not null), p.reason, null) as
                keeps
            from passage p join environment e on e.id = p.environment_id
            where p.version_id = #{version} order by p.id""")
    List<WalkedRow> walked(long version);

    @Update("update passage set settled_at = coalesce(settled_at, #{at}), test_failed_at = null, test_failure = "
            + "null where id = #{id}")
    int settle(long id, Instant at);

    @Update("update passage set test_failed_at = #{at}, test_failure = #{why} where id = #{id} and status = 'open' "
            + "and settled_at is null")
    int testFailed(long id, String why, Instant at);

    @Update("update passage set status = 'ended', ended_at = #{at}, wake_at = null, reason = null where id = #{id} "
            + "and status = 'open'")
    int end(long id, Instant at);

    @Update("update passage set wake_at = #{at}, reason = #{reason} where id = #{id}")
    int waits(long id, @Nullable Instant at, @Nullable String reason);

    @Select("select id from passage where wake_at <= #{now} order by wake_at limit 50")
    List<Long> due(Instant now);

    /** What waits for the same place is judged again. */
    @Update("update place set wake_at = #{now} where environment_id = #{environment} and component_id = #{component}")
    int wakePlace(long environment, long component, Instant now);

    /** Open passages of other versions of the component there are looked at again: they are no longer what is live. */
    @Update("""
            update passage p join version v on v.id = p.version_id set p.wake_at = #{now}
            where p.environment_id = #{environment} and v.component_id = #{component} and p.version_id <> #{version}
              and p.status = 'open'""")
    int wakeOthers(long environment, long component, long version, Instant now);

    @Select("""
            select count(*) from place p join deployment d on d.id = p.live_deployment_id
            where p.environment_id = #{environment} and p.component_id = #{component} and d.version_id = #{version}""")
    int live(long environment, long component, long version);
}
