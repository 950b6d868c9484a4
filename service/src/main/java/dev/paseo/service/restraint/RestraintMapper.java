package dev.paseo.service.restraint;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface RestraintMapper {

    /** @param closes the environment; else it holds the place */
    record RestraintRow(boolean closes, String reason, String by, Instant at, @Nullable Instant until) {}

    String HOLD = """
            select false as closes, h.reason, a.name as `by`, h.at, null as `until` from hold h
              join account a on a.id = h.set_by
            where h.place_id = #{place} and h.lifted_at is null order by h.id desc limit 1""";

    String CLOSURE = """
            select true as closes, c.reason, a.name as `by`, c.at, c.until_at as `until` from closure c
              join account a on a.id = c.set_by
            where c.environment_id = #{environment} and c.lifted_at is null and (c.until_at is null or c.until_at >
              #{now}) order by c.id desc limit 1""";

    @Select(HOLD)
    Optional<RestraintRow> hold(long place);

    /** What holds this place, and what closes its environment, asked together. */
    @Select("(" + HOLD + ") union all (" + CLOSURE + ")")
    List<RestraintRow> restrained(long place, long environment, Instant now);

    record StateRow(String subject, String text) {}

    String STATES = """
            select concat('restraint of place ', h.place_id) as subject, group_concat(concat(h.reason, ' by ',
              h.set_by, ' at ', h.at) order by h.id separator '\n') as text
            from hold h where h.lifted_at is null group by h.place_id
            union all select concat('restraint of environment ', c.environment_id), group_concat(concat(c.reason, '
              by ', c.set_by, ' at ', c.at, ' until ', coalesce(c.until_at, '')) order by c.id separator '\n')
            from closure c where c.lifted_at is null group by c.environment_id
            union all select concat('restraint of version ', v.id), concat(coalesce(v.block_reason, ''), ' by ',
              coalesce(v.blocked_by, ''), ' at ', v.blocked_at) from version v where v.blocked_at is not null
            """;

    /** All that restrains now, as texts that are the same only where the rows are. */
    @Select(STATES)
    List<StateRow> states();

    @Select("select subject, text from (" + STATES + ") s where subject = #{subject}")
    Optional<StateRow> state(String subject);

    @Select("select id from place where id = #{place} for update")
    long lockPlace(long place);

    @Select("select id from environment where id = #{environment} for update")
    long lockEnvironment(long environment);

    @Insert("insert into hold (place_id, environment_id, reason, set_by, at) select id, environment_id, #{reason}, "
            + "#{by}, #{now} from place where id = #{place}")
    int addHold(long place, String reason, long by, Instant now);

    @Update("update hold set lifted_at = #{now}, lifted_by = #{by} where place_id = #{place} and lifted_at is null")
    int liftHold(long place, long by, Instant now);

    @Select(CLOSURE)
    Optional<RestraintRow> closure(long environment, Instant now);

    @Insert("insert into closure (environment_id, reason, set_by, at, until_at) values (#{environment}, #{reason}, "
            + "#{by}, #{now}, #{until})")
    int addClosure(long environment, String reason, long by, Instant now, @Nullable Instant until);

    @Update("update closure set lifted_at = #{now}, lifted_by = #{by} where environment_id = #{environment} and "
            + "lifted_at is null")
    int liftClosure(long environment, long by, Instant now);

    @Update("update place set wake_at = #{now} where environment_id = #{environment}")
    int wake(long environment, Instant now);

    @Update("update place set wake_at = #{now} where id = #{place}")
    int wakePlace(long place, Instant now);

    @Update("update place set wake_at = #{now} where id in (select d.place_id from deployment d where d.version_id "
            + "= #{version} and d.status in ('waiting', 'queued'))")
    int wakeOf(long version, Instant now);

    @Update("update version set blocked_at = #{now}, blocked_by = #{by}, block_reason = #{reason} where id = "
            + "#{version} and blocked_at is null")
    int block(long version, String reason, long by, Instant now);

    @Update("update version set blocked_at = null, blocked_by = null, block_reason = null where id = #{version} and "
            + "blocked_at is not null")
    int unblock(long version);

    record BlockRow(String reason, String by, Instant at) {}

    @Select("select v.block_reason as reason, a.name as `by`, v.blocked_at as at from version v left join account a "
            + "on a.id = v.blocked_by where v.id = #{version} and v.blocked_at is not null")
    Optional<BlockRow> blocked(long version);

    @Select("""
            select v.number from place p join component c on c.id = p.component_id join deployment d on d.id =
              p.live_deployment_id
            join version v on v.id = d.version_id where p.environment_id = #{environment}
              and (c.name = #{component} or c.id = (select component_id from former_name where name = #{component}))""")
    Optional<String> live(long environment, String component);

    /** The version that is live there and whose passage is open, unless a test or an item of its list failed. */
    @Select("""
            select v.number from place p join deployment d on d.id = p.live_deployment_id join version v on v.id =
              d.version_id
            join passage s on s.version_id = d.version_id and s.environment_id = p.environment_id and s.status =
              'open' and s.test_failed_at is null
            where p.id = #{place} and not exists (select 1 from tick t where t.passage_id = s.id and t.outcome =
              'FAILED'
              and t.id = (select max(x.id) from tick x where x.passage_id = s.id and x.item = t.item))""")
    Optional<String> tested(long place);
}
