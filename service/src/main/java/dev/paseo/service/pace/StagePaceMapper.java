package dev.paseo.service.pace;

import dev.paseo.core.run.StageStatus;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Attempts at stages, and deployments, one after the other, with what they were done with. */
@Mapper
interface StagePaceMapper {

    /** What is asked; null: nothing. */
    record Wanted(@Nullable Long component, @Nullable String label, Instant since, Instant until, int most) {}

    record AttemptRow(String component, String stage, long run, String variant, int attempt, StageStatus status,
            long millis, Instant endedAt) {}

    /** The newest that ended in a time; very many, read as they come. */
    @Options(fetchSize = 2_000)
    @Select("""
            <script>
            select c.name as component, s.name as stage, s.run_id as run, s.variant, s.attempt, s.status,
              timestampdiff(microsecond, s.started_at, s.ended_at) div 1000 as millis, s.ended_at
            <choose>
            <when test="component == null and label == null">
            from (select run_id, name, variant, attempt, status, started_at, ended_at from stage
                where ended_at &gt;= #{since} and ended_at &lt; #{until} and started_at is not null
                  and status in ('passed', 'warned', 'failed') order by ended_at desc limit #{most}) s
              straight_join run r on r.id = s.run_id straight_join component c on c.id = r.component_id
            order by s.ended_at desc
            </when>
            <otherwise>
            from run r join stage s on s.run_id = r.id join component c on c.id = r.component_id
            where s.ended_at &gt;= #{since} and s.ended_at &lt; #{until} and s.started_at is not null
              and s.status in ('passed', 'warned', 'failed')
            <if test="component != null">and r.component_id = #{component}</if>
            <if test="label != null">and r.component_id in (select l.component_id from component_label l
              where l.value = #{label})</if>
            order by s.ended_at desc limit #{most}
            </otherwise>
            </choose>
            </script>""")
    List<AttemptRow> attempts(Wanted wanted);

    /** An attempt, or a deployment, with the id of what it was done with and the digest of its pipeline file's text. */
    record PointRow(long id, Instant startedAt, long millis, boolean failed, long number, String variant, int attempt,
            String branch, @Nullable Boolean reused, @Nullable Long run, @Nullable Long fileId,
            @Nullable String fileText, @Nullable String fileCommit, String version, @Nullable Long settings,
            @Nullable String secrets) {}

    /** The newest of a stage, the newest first. */
    @Select("""
            select s.id, s.started_at, timestampdiff(microsecond, s.started_at, s.ended_at) div 1000 as millis,
              s.status = 'failed' as failed, r.number, s.variant, s.attempt, r.branch, s.reused is not null as reused,
              r.id as run, f.id as file_id, sha2(f.text, 256) as file_text, f.commit_id as file_commit,
              r.version_number as version, null as settings, null as secrets
            from run r join stage s on s.run_id = r.id join pipeline_file f on f.id = r.pipeline_file_id
            where r.component_id = #{component} and s.name = #{stage} and s.started_at is not null
              and s.status in ('passed', 'warned', 'failed')
            order by r.number desc, s.id desc limit #{most}""")
    List<PointRow> ofStage(long component, String stage, int most);

    /** The newest of a place that were begun and are over, or live, the newest first. */
    @Select("""
            select d.id, d.started_at, timestampdiff(microsecond, d.started_at, coalesce(d.live_at, d.ended_at))
                div 1000 as millis, d.live_at is null as failed, d.id as number, '' as variant, 1 as attempt,
              d.kind as branch, null as reused, v.run_id as run, f.id as file_id, sha2(f.text, 256) as file_text,
              f.commit_id as file_commit, v.number as version, d.settings_revision as settings,
              d.secret_revisions as secrets
            from deployment d join version v on v.id = d.version_id left join run r on r.id = v.run_id
              left join pipeline_file f on f.id = r.pipeline_file_id
            where d.place_id = #{place} and d.started_at is not null
              and (d.live_at is not null or d.status in ('failed', 'undone'))
            order by d.id desc limit #{most}""")
    List<PointRow> ofPlace(long place, int most);

    /** A name with its value, of a point. */
    record FactRow(long of, String name, String value) {}

    /** By which agents stages were done. */
    @Select("""
            <script>
            select w.stage_id as of, 'agent' as name, a.name as value from work w join agent a on a.id = w.agent_id
            where w.run_id in <foreach collection="runs" item="id" open="(" separator="," close=")">#{id}</foreach>
              and w.stage_id is not null and w.ended_at is not null order by w.id
            </script>""")
    List<FactRow> agentsOfStages(List<Long> runs);

    /** By which agents, and on how many hosts, deployments were carried out. */
    @Select("""
            <script>
            select w.deployment_id as of, h.name as name, coalesce(a.name, '') as value from work w
              join host h on h.id = w.host_id left join agent a on a.id = w.agent_id
            where w.deployment_id in <foreach collection="deployments" item="id" open="(" separator=","
              close=")">#{id}</foreach> group by w.deployment_id, h.name, a.name order by h.name, a.name
            </script>""")
    List<FactRow> hostsOf(List<Long> deployments);

    /** What runs were built from: versions of other components. */
    @Select("""
            <script>
            select u.run_id as of, c.name as name, v.number as value from run_upstream u
              join version v on v.id = u.version_id join component c on c.id = u.component_id
            where u.run_id in <foreach collection="runs" item="id" open="(" separator="," close=")">#{id}</foreach>
            union select t.run_id, c.name, v.number from run_take t join version v on v.id = t.version_id
              join component c on c.id = v.component_id
            where t.run_id in <foreach collection="runs" item="id" open="(" separator="," close=")">#{id}</foreach>
            order by 1, 2, 3
            </script>""")
    List<FactRow> upstream(List<Long> runs);

    /** The pieces that pipeline files were put together from. */
    @Select("""
            <script>
            select p.file_id as of, concat(c.name, '/', p.piece) as name, v.number as value from piece_use p
              join component c on c.id = p.component_id join version v on v.id = p.version_id
            where p.file_id in <foreach collection="files" item="id" open="(" separator="," close=")">#{id}</foreach>
            order by 1, 2
            </script>""")
    List<FactRow> pieces(List<Long> files);
}
