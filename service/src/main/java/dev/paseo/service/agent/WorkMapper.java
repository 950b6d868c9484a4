package dev.paseo.service.agent;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface WorkMapper {

    String SELECT = """
            select w.id, w.kind, w.run_id, w.stage_id, w.deployment_id, w.host_id, w.status, w.agent_id, w.fence,
              w.lease_until, w.stop, w.wants, w.untrusted,
              s.name as stage, s.variant, s.attempt
            from work w left join stage s on s.id = w.stage_id
            """;

    @Insert("""
            insert into work (kind, run_id, stage_id, status, offered_at, wants, untrusted)
            select 'STAGE', s.run_id, s.id, 'offered', #{now}, #{wants}, not r.trusted from stage s join run r on
              r.id = s.run_id
            where s.run_id = #{run} and s.name = #{name} and s.variant = #{variant} and s.attempt = #{attempt}""")
    int offerStage(long run, String name, String variant, int attempt, String wants, Instant now);

    @Insert("""
            insert into work (kind, deployment_id, host_id, status, offered_at, untrusted)
            select #{kind}, d.id, #{host}, 'offered', #{now}, exists (select 1 from place p join preview v on
              v.environment_id = p.environment_id where p.id = d.place_id)
            from deployment d where d.id = #{deployment}""")
    int offerOnHost(String kind, long deployment, long host, Instant now);

    /** The oldest offered work whose wants an agent with these offers meets; the index gives it in its order. */
    @Select("""
            select w.id, w.kind, w.run_id, w.stage_id, w.deployment_id, w.host_id, w.status, w.agent_id, w.fence,
              w.lease_until, w.stop, w.wants, w.untrusted,
              s.name as stage, s.variant, s.attempt
            from (select * from work force index (status) where status = 'offered'
                    and (host_id <=> #{host} or host_id in (select h.id from host h where h.served_by = #{agent}))
                      and stop = 'no' and json_contains(#{offers}, wants)
                    and (not untrusted or #{untrusted})
                  order by id limit 8) w left join stage s on s.id = w.stage_id order by w.id""")
    List<Work> offered(long agent, @Nullable Long host, String offers, boolean untrusted);

    @Select(SELECT + "where w.id = #{id}")
    Optional<Work> byId(long id);

    @Select(SELECT + "where w.lease_hash = #{hash} and w.status = 'leased'")
    Optional<Work> ofLease(String hash);

    @Select(SELECT + "where w.lease_hash = #{hash}")
    Optional<Work> everOfLease(String hash);

    @Update("""
            update work set status = 'leased', agent_id = #{agent}, fence = fence + 1, lease_hash = #{hash},
              lease_until = #{until}, taken_at = #{now}
            where id = #{id} and status = 'offered' and not exists (select 1 from agent a where a.id = #{agent} and
              a.drained)""")
    int lease(long id, long agent, String hash, Instant until, Instant now);

    /** Leased to this agent, and no step of it was ever reported. */
    @Select(SELECT + """
            where w.agent_id = #{agent} and w.status = 'leased'
              and not exists (select 1 from step p where p.work_id = w.id) order by w.id limit 20""")
    List<Work> notBegun(long agent);

    @Update("""
            update work set fence = fence + 1, lease_hash = #{hash}, lease_until = #{until}
            where id = #{id} and fence = #{fence} and status = 'leased'""")
    int leaseAgain(long id, long fence, String hash, Instant until);

    @Update("update work set lease_until = #{until} where id = #{id} and fence = #{fence} and status = 'leased'")
    int extend(long id, long fence, Instant until);

    /** None ends later than a whole lease from now. */
    @Update("update work set lease_until = least(lease_until + interval #{micros} microsecond, #{latest}) where "
            + "status = 'leased'")
    int extendAll(long micros, Instant latest);

    @Update("""
            update work set status = 'ended', outcome = #{outcome}, ended_at = #{now}
            where id = #{id} and fence = #{fence} and status = 'leased'""")
    int end(long id, long fence, String outcome, Instant now);

    @Update("""
            update work w join stage s on s.id = w.stage_id
            set w.ended_at = if(w.status = 'offered', #{now}, w.ended_at), w.stop = #{stop}, w.status = if(w.status =
              'offered', 'withdrawn', w.status)
            where s.run_id = #{run} and s.name = #{name} and s.variant = #{variant} and s.attempt = #{attempt} and
              w.status in ('offered', 'leased')""")
    int stopStage(long run, String name, String variant, int attempt, String stop, Instant now);

    /**
     * The host whose agent works for this one: itself, or that of the agent that serves it; none for an agent without
     * host.
     */
    @Select("select if(h.served_by is null, h.id, a.host_id) from host h left join agent a on a.id = h.served_by "
            + "where h.id = #{host}")
    @Nullable
    Long nudged(long host);

    /** What is done once for a place. */
    String OF_PLACE = "kind in ('ONCE_BEFORE', 'ONCE_AFTER', 'TRAFFIC', 'TRAFFIC_BACK', 'WHOLE', 'WATCH_WHOLE', "
            + "'TEST')";

    @Update("update work set stop = #{stop} where deployment_id = #{deployment} and status in ('offered', 'leased') "
            + "and "
            + OF_PLACE)
    int stopOfPlace(long deployment, String stop);

    @Update("update work set stop = #{stop} where deployment_id = #{deployment} and host_id = #{host} and status in "
            + "('offered', 'leased') and not "
            + OF_PLACE)
    int stopHost(long deployment, long host, String stop);

    @Select("""
            select count(*) from work w join deployment d on d.id = w.deployment_id
            where d.place_id = #{place} and w.host_id = #{host} and w.kind = 'INSTALL' and w.status = 'offered' and
              w.stop = 'no'""")
    int installOffered(long place, long host);

    @Update("update work set status = 'withdrawn', ended_at = #{now} where deployment_id = #{deployment} and "
            + "host_id = #{host} and kind = 'INSTALL' and status = 'offered'")
    int withdrawInstall(long deployment, long host, Instant now);

    /** What is done once for this place, and nobody has taken, is offered to another host. */
    @Update("""
            update work w join deployment d on d.id = w.deployment_id set w.host_id = #{to}
            where d.place_id = #{place} and w.host_id = #{from} and w.status = 'offered' and w.stop = 'no' and w."""
            + OF_PLACE)
    int moveOfPlace(long place, long from, long to);

    @Select(SELECT + "where w.status = 'leased' and w.lease_until < #{now} limit 50")
    List<Work> expired(Instant now);

    /** Work for hosts that nobody took in time, or that was told to stop before anybody took it. */
    @Select(SELECT
            + "where w.status = 'offered' and w.host_id is not null and (w.offered_at < #{before} or w.stop <> "
            + "'no') limit 50")
    List<Work> notTaken(Instant before);

    @Update("update work set status = 'ended', outcome = #{outcome}, ended_at = #{now} where id = #{id} and status "
            + "= 'offered'")
    int endOffered(long id, String outcome, Instant now);

    record StepRow(long workId, int position, int tried, String name, String status, @Nullable Integer exitCode,
            Instant startedAt, @Nullable Instant endedAt, @Nullable Long peakMemory) {}

    @Insert("""
            insert into step (work_id, position, tried, name, status, exit_code, started_at, ended_at, peak_memory)
            values (#{workId}, #{position}, #{tried}, #{name}, #{status}, #{exitCode}, #{startedAt}, #{endedAt},
              #{peakMemory})
            on duplicate key update status = values(status), exit_code = values(exit_code), ended_at = values(ended_at),
              peak_memory = values(peak_memory)""")
    int step(StepRow step);

    @Select("""
            select s.work_id, s.position, s.tried, s.name, s.status, s.exit_code, s.started_at, s.ended_at,
              s.peak_memory
            from stage g join work w on w.stage_id = g.id join step s on s.work_id = w.id
            where g.run_id = #{run} order by s.work_id, s.position, s.tried""")
    List<StepRow> stepsOfRun(long run);

    record StageWorkRow(long stageId, long id) {}

    /** The newest work of each stage of a run. */
    @Select("""
            select w.stage_id, max(w.id) as id from stage g join work w on w.stage_id = g.id where g.run_id = #{run}
            group by w.stage_id""")
    List<StageWorkRow> newestOfStages(long run);

    @Select("""
            select s.work_id, s.position, s.tried, s.name, s.status, s.exit_code, s.started_at, s.ended_at,
              s.peak_memory
            from work w join step s on s.work_id = w.id where w.deployment_id = #{deployment} order by s.work_id,
              s.position, s.tried""")
    List<StepRow> stepsOfDeployment(long deployment);

    @Select("select id from work where stage_id = #{stage} order by id desc limit 1")
    Optional<Long> ofStage(long stage);

    record HostWorkRow(long id, String kind, String host, String status, @Nullable Instant takenAt,
            @Nullable Instant endedAt) {}

    @Select("""
            select w.id, w.kind, h.name as host, w.status, w.taken_at, w.ended_at from work w join host h on h.id =
              w.host_id
            where w.deployment_id = #{deployment} order by w.id""")
    List<HostWorkRow> ofDeployment(long deployment);
}
