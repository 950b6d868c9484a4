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

    String COLUMNS = "id, kind, run_id, stage_id, deployment_id, host_id, status, agent_id, fence, lease_until, stop";

    @Insert("""
            insert into work (kind, run_id, stage_id, deployment_id, host_id, status, offered_at)
            values (#{kind}, #{run}, #{stage}, #{deployment}, #{host}, 'offered', #{now})""")
    int offer(String kind, @Nullable Long run, @Nullable Long stage, @Nullable Long deployment, @Nullable Long host, Instant now);

    @Select("select " + COLUMNS + " from work where status = 'offered' and stop = 'no' and host_id <=> #{host} order by id limit 10")
    List<Work> offered(@Nullable Long host);

    @Select("select " + COLUMNS + " from work where id = #{id}")
    Optional<Work> byId(long id);

    @Select("select " + COLUMNS + " from work where lease_hash = #{hash} and status = 'leased'")
    Optional<Work> ofLease(String hash);

    @Select("select " + COLUMNS + " from work where lease_hash = #{hash}")
    Optional<Work> everOfLease(String hash);

    @Update("""
            update work set status = 'leased', agent_id = #{agent}, fence = fence + 1, lease_hash = #{hash},
              lease_until = #{until}, taken_at = #{now}
            where id = #{id} and status = 'offered'""")
    int lease(long id, long agent, String hash, Instant until, Instant now);

    /** Leased to this agent, and no step of it was ever reported. */
    @Select("select " + COLUMNS + """
            \sfrom work w where agent_id = #{agent} and status = 'leased'
              and not exists (select 1 from step s where s.work_id = w.id) order by id limit 20""")
    List<Work> notBegun(long agent);

    @Update("""
            update work set fence = fence + 1, lease_hash = #{hash}, lease_until = #{until}
            where id = #{id} and fence = #{fence} and status = 'leased'""")
    int leaseAgain(long id, long fence, String hash, Instant until);

    @Update("update work set lease_until = #{until} where id = #{id} and fence = #{fence} and status = 'leased'")
    int extend(long id, long fence, Instant until);

    @Update("update work set lease_until = lease_until + interval #{micros} microsecond where status = 'leased'")
    int extendAll(long micros);

    @Update("""
            update work set status = 'ended', outcome = #{outcome}, ended_at = #{now}
            where id = #{id} and fence = #{fence} and status = 'leased'""")
    int end(long id, long fence, String outcome, Instant now);

    @Update("""
            update work set status = if(status = 'offered', 'withdrawn', status), stop = #{stop},
              ended_at = if(status = 'withdrawn', #{now}, ended_at)
            where stage_id = #{stage} and status in ('offered', 'leased')""")
    int stopStage(long stage, String stop, Instant now);

    @Update("update work set stop = #{stop} where deployment_id = #{deployment} and host_id = #{host} and status in ('offered', 'leased')")
    int stopHost(long deployment, long host, String stop);

    @Select("select " + COLUMNS + " from work where status = 'leased' and lease_until < #{now} limit 50")
    List<Work> expired(Instant now);

    /** Work for hosts that nobody took in time, or that was told to stop before anybody took it. */
    @Select("select " + COLUMNS + """
            \sfrom work where status = 'offered' and host_id is not null and (offered_at < #{before} or stop <> 'no') limit 50""")
    List<Work> notTaken(Instant before);

    @Update("update work set status = 'ended', outcome = #{outcome}, ended_at = #{now} where id = #{id} and status = 'offered'")
    int endOffered(long id, String outcome, Instant now);

    record StepRow(long workId, int position, int tried, String name, String status, @Nullable Integer exitCode,
            Instant startedAt, @Nullable Instant endedAt) {}

    @Insert("""
            insert into step (work_id, position, tried, name, status, exit_code, started_at, ended_at)
            values (#{workId}, #{position}, #{tried}, #{name}, #{status}, #{exitCode}, #{startedAt}, #{endedAt})
            on duplicate key update status = values(status), exit_code = values(exit_code), ended_at = values(ended_at)""")
    int step(StepRow step);

    @Select("""
            select work_id, position, tried, name, status, exit_code, started_at, ended_at from step
            where work_id = #{work} order by position, tried""")
    List<StepRow> steps(long work);

    @Select("select id from work where stage_id = #{stage} order by id desc limit 1")
    Optional<Long> ofStage(long stage);

    record HostWorkRow(long id, String kind, String host, String status, @Nullable Instant takenAt, @Nullable Instant endedAt) {}

    @Select("""
            select w.id, w.kind, h.name as host, w.status, w.taken_at, w.ended_at from work w join host h on h.id = w.host_id
            where w.deployment_id = #{deployment} order by w.id""")
    List<HostWorkRow> ofDeployment(long deployment);
}
