package dev.paseo.service.chain;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface ChainMapper {

    record CauseRow(long id, @Nullable Long parentId) {}

    /** A cause and everything that it led to. */
    @Select("""
            with recursive led as (
              select id, parent_id, 0 as depth from cause where id = #{cause}
              union all select c.id, c.parent_id, depth + 1 from cause c join led on c.parent_id = led.id where depth
                < 100)
            select id, parent_id from led order by id limit 2000""")
    List<CauseRow> led(long cause);

    record RunRow(long id, String component, long number, RunStatus status, String branch, String version,
            @Nullable String reason, long causeId,
            Instant createdAt, @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    @Select("""
            <script>
            select r.id, c.name as component, r.number, r.status, r.branch, r.version_number as version, r.reason,
              r.cause_id, r.created_at, r.started_at, r.ended_at
            from run r join component c on c.id = r.component_id
            where r.cause_id in <foreach collection="causes" item="id" open="(" separator="," close=")">#{id}</foreach>
            </script>""")
    List<RunRow> runs(List<Long> causes);

    record DeploymentRow(long id, String component, String version, String environment, DeploymentStatus status,
            @Nullable String reason, long causeId,
            Instant requestedAt, @Nullable Instant startedAt, @Nullable Instant liveAt, @Nullable Instant endedAt) {}

    @Select("""
            <script>
            select d.id, c.name as component, v.number as version, e.name as environment, d.status, d.reason,
              d.cause_id, d.requested_at, d.started_at, d.live_at, d.ended_at
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id join
              environment e on e.id = p.environment_id
            join version v on v.id = d.version_id
            where d.cause_id in <foreach collection="causes" item="id" open="(" separator="," close=")">#{id}</foreach>
            </script>""")
    List<DeploymentRow> deployments(List<Long> causes);

    record NothingRow(String component, String words, String reason, long causeId, Instant at) {}

    /** Triggers of other components that were considered and started nothing. */
    @Select("""
            <script>
            select c.name as component, d.words, d.reason, e.cause_id, e.at
            from trigger_event e join considered d on d.event_id = e.id and d.reason is not null join component c on
              c.id = d.component_id
            where e.kind in ('run', 'live') and e.cause_id in <foreach collection="causes" item="id" open="("
              separator="," close=")">#{id}</foreach>
            </script>""")
    List<NothingRow> nothing(List<Long> causes);

    record StretchRow(long runId, Instant startedAt, @Nullable Instant endedAt, @Nullable String reused) {}

    @Select("""
            <script>
            select run_id, started_at, ended_at, reused from stage
            where started_at is not null and run_id in <foreach collection="runs" item="id" open="(" separator=","
              close=")">#{id}</foreach>
            </script>""")
    List<StretchRow> stages(List<Long> runs);

    record TakenRow(long runId, String component, String version) {}

    @Select("""
            <script>
            select distinct t.run_id, c.name as component, v.number as version from run_take t join version v on v.id
              = t.version_id
            join component c on c.id = v.component_id
            where t.run_id in <foreach collection="runs" item="id" open="(" separator="," close=")">#{id}</foreach>
            </script>""")
    List<TakenRow> taken(List<Long> runs);

    @Select("select cause_id from trigger_event where id = #{event}")
    Optional<Long> causeOfEvent(long event);

    @Select("select r.cause_id from run r join component c on c.id = r.component_id where c.name = #{component} and "
            + "r.number = #{number}")
    Optional<Long> causeOfRun(String component, long number);

    @Select("select cause_id from deployment where id = #{deployment}")
    Optional<Long> causeOfDeployment(long deployment);

    @Select("select v.cause_id from version v join component c on c.id = v.component_id where c.name = #{component} "
            + "and v.number = #{number}")
    Optional<Long> causeOfVersion(String component, String number);

    // The graph

    record NewestRow(String component, long number, RunStatus status, String version, String commitSummary,
            Instant at) {}

    /** The newest run of each component's main branch. */
    @Select("""
            select c.name as component, r.number, r.status, r.version_number as version, r.commit_summary,
              r.created_at as at
            from component c join line l on l.component_id = c.id and l.branch = c.main_branch
            join run r on r.component_id = c.id and r.number = (select max(n.number) from run n where n.line_id =
              l.id)""")
    List<NewestRow> newest();

    record LiveRow(String component, String environment, String version) {}

    @Select("""
            select c.name as component, e.name as environment, v.number as version
            from place p join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            join deployment d on d.id = p.live_deployment_id join version v on v.id = d.version_id
            where not e.temporary order by e.position, e.id""")
    List<LiveRow> live();

    record LastRow(String upstream, String downstream, String sentence, @Nullable Long run, @Nullable RunStatus status,
            @Nullable String version,
            @Nullable String reason, Instant at) {}

    /** What each component last made of what happened to another. */
    @Select("""
            select u.name as upstream, c.name as downstream, e.sentence, r.number as run, r.status, r.version_number
              as version, d.reason, e.at
            from (select component_id, source_id, max(event_id) as event_id from considered group by component_id,
              source_id) last
            join considered d on d.event_id = last.event_id and d.component_id = last.component_id and
              last.component_id <> last.source_id
            join trigger_event e on e.id = last.event_id join component c on c.id = last.component_id join component
              u on u.id = last.source_id
            left join run r on r.id = d.run_id order by r.number is null, d.position""")
    List<LastRow> last();

    record ChangeRow(long id, String component, String sentence, Instant at) {}

    /** The newest events that began something: what came from outside and started a run. */
    @Select("""
            select e.id, c.name as component, e.sentence, e.at from trigger_event e join component c on c.id =
              e.component_id
            where e.kind not in ('run', 'live') and exists (select 1 from considered d where d.event_id = e.id and
              d.run_id is not null)
            order by e.id desc limit #{limit}""")
    List<ChangeRow> changes(int limit);
}
