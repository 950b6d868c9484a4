package dev.paseo.service.origin;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What statements are made of, and the statements. */
@Mapper
interface StatementMapper {

    /** Where two make it at once, the first one's stays. */
    @Insert("insert ignore into statement (version_id, deployment_id, envelope, at) values (#{version}, "
            + "#{deployment}, #{envelope}, #{at})")
    int keep(@Nullable Long version, @Nullable Long deployment, String envelope, Instant at);

    @Select("select envelope from statement where version_id = #{version} or deployment_id = #{deployment}")
    Optional<String> envelope(@Nullable Long version, @Nullable Long deployment);

    record FileRow(String name, String digest) {}

    @Select("select name, digest from version_artifact where version_id = #{version} order by name")
    List<FileRow> files(long version);

    record BuiltRow(@Nullable String repository, @Nullable String path, @Nullable String pipeline,
            @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    /** How it was built; of one that arrived, nothing of it. */
    @Select("""
            select c.repository, f.path, f.text as pipeline, r.started_at, r.ended_at from version v
              join component c on c.id = v.component_id left join run r on r.id = v.run_id
              left join pipeline_file f on f.id = r.pipeline_file_id where v.id = #{version}""")
    BuiltRow built(long version);

    record StageRow(long work, String name, String variant, int attempt, String status, @Nullable String reused,
            @Nullable String agent, @Nullable String walls, @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    @Select("""
            select coalesce(w.id, 0) as work, s.name, s.variant, s.attempt, s.status, s.reused, a.name as agent,
              a.walls, s.started_at, s.ended_at
            from stage s left join work w on w.stage_id = s.id left join agent a on a.id = w.agent_id
            where s.run_id = #{run} order by s.position, s.attempt, w.id""")
    List<StageRow> stages(long run);

    record StepRow(long work, String name, String status, @Nullable Integer exitCode) {}

    @Select("""
            select p.work_id as work, p.name, p.status, p.exit_code from work w join step p on p.work_id = w.id
            where w.run_id = #{run} order by p.work_id, p.position, p.tried""")
    List<StepRow> steps(long run);

    /** A file that was there before: {@code what} names it. */
    record InputRow(String what, String digest) {}

    /** What stages took of other versions, and the pieces that the file was put together from. */
    @Select("""
            select concat(c.name, ' ', v.number, ' ', t.artifact) as what, a.digest from run_take t
              join version v on v.id = t.version_id join component c on c.id = v.component_id
              join version_artifact a on a.version_id = v.id and a.name = t.artifact where t.run_id = #{run}
            union select concat(c.name, ' ', v.number, ' ', u.piece), u.digest from run r
              join piece_use u on u.file_id = r.pipeline_file_id join version v on v.id = u.version_id
              join component c on c.id = u.component_id where r.id = #{run} order by what""")
    List<InputRow> inputs(long run);

    record ReportRow(@Nullable String stage, String kind, String body) {}

    /** What was reported until it was sealed. */
    @Select("""
            select s.name as stage, e.kind, e.body from evidence e left join stage s on s.id = e.stage_id
            where (e.run_id = #{run} or e.version_id = #{version} and e.deployment_id is null) and e.at <= #{until}
            order by e.id""")
    List<ReportRow> reports(long version, @Nullable Long run, Instant until);

    record LiveRow(long id, long versionId, String component, String environment, String kind, @Nullable String subject,
            @Nullable String requestedBy, Instant requestedAt, @Nullable Instant liveAt, @Nullable String emergency,
            long causeId) {}

    @Select("""
            select d.id, d.version_id, c.name as component, e.name as environment, d.kind, d.subject,
              a.name as requested_by, d.requested_at, d.live_at, d.emergency_reason as emergency, d.cause_id
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
              join environment e on e.id = p.environment_id left join account a on a.id = d.requested_by
            where d.id = #{deployment}""")
    LiveRow deployment(long deployment);

    record DecidedRow(long deployment, String by, @Nullable String inPlaceOf, boolean yes, String comment,
            String subject, Instant at) {}

    /**
     * What was decided at the gates of these deployments, or at the gates onward from the environment before. Each of
     * the two is looked up by an index of its own: asked for by one "or", all decisions ever made would be read.
     */
    @Select("""
            <script>
            select r.deployment, a.name as `by`, f.name as in_place_of, r.yes, r.comment, r.subject, r.at
            from (select deployment_id as deployment, id, account_id, for_account_id, yes, comment, subject, at
                from ruling where taken_back_at is null and deployment_id in
                <foreach item="d" collection="deployments" open="(" separator="," close=")">#{d}</foreach>
              union all select d.id, n.id, n.account_id, n.for_account_id, n.yes, n.comment, n.subject, n.at
                from deployment d join place p on p.id = d.place_id join environment e on e.id = p.environment_id
                join environment o on o.name = e.follows
                join passage q on q.version_id = d.version_id and q.environment_id = o.id
                join ruling n on n.passage_id = q.id and n.taken_back_at is null where d.id in
                <foreach item="d" collection="deployments" open="(" separator="," close=")">#{d}</foreach>) r
              join account a on a.id = r.account_id left join account f on f.id = r.for_account_id
            order by r.id
            </script>""")
    List<DecidedRow> decided(@Param("deployments") List<Long> deployments);

    @Select("""
            select distinct h.name from live_interval i join host h on h.id = i.host_id
            where i.deployment_id = #{deployment} order by h.name""")
    List<String> hosts(long deployment);
}
