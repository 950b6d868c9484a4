package dev.paseo.service.origin;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What has a digest, and what became of it. */
@Mapper
interface OriginMapper {

    /** So many are looked at; who may be told of few components is told of the first of those. */
    int LOOKED_AT = 200;

    record FoundRow(long version, String component, String number, String name, String fileName, long size,
            String branch, @Nullable String commitId, @Nullable String summary, @Nullable Long run, Instant sealedAt,
            @Nullable Instant blockedAt, @Nullable String origin, @Nullable String envelope) {}

    /**
     * Versions that have it as an artifact or as their bundle: those that are live, then the newest; each with its
     * statement, once made.
     */
    @Select("""
            select f.*, s.envelope from (
              select v.id as version, c.name as component, v.number, x.name, x.file_name, x.size, l.branch, v.commit_id,
                r.commit_summary as summary, r.number as run, v.sealed_at, v.blocked_at, v.origin,
                exists (select 1 from live_stretch o where o.version_id = v.id and o.to_at is null) as live
              from (select version_id, name, file_name, size from version_artifact where digest = #{digest}
                    union all select v.id, 'bundle', 'bundle.tar.gz', b.size from version v
                      join byte_object b on b.digest = v.bundle where v.bundle = #{digest}) x
                join version v on v.id = x.version_id join component c on c.id = v.component_id
                join line l on l.id = v.line_id left join run r on r.id = v.run_id
              order by live desc, v.id desc limit\s""" + LOOKED_AT + """
            ) f left join statement s on s.version_id = f.version order by f.live desc, f.version desc""")
    List<FoundRow> versions(String digest);

    record MadeRow(String component, long run, String name, String fileName, Instant at) {}

    /** Runs that made it, whatever became of them; the newest first. */
    @Select("""
            select c.name as component, r.number as run, o.name, o.file_name, coalesce(r.ended_at, r.created_at) as at
            from run_output o join run r on r.id = o.run_id join component c on c.id = r.component_id
            where o.digest = #{digest} order by r.id desc limit\s""" + LOOKED_AT)
    List<MadeRow> made(String digest);

    record StayRow(long version, long deployment, String environment, Instant fromAt, @Nullable Instant toAt,
            @Nullable String emergency) {}

    /** Where these versions are live and were, the newest first. */
    @Select("""
            <script>
            select s.version_id as version, s.deployment_id as deployment, e.name as environment, s.from_at, s.to_at,
              d.emergency_reason as emergency
            from live_stretch s join deployment d on d.id = s.deployment_id
              join environment e on e.id = s.environment_id
            where s.version_id in
              <foreach item="v" collection="versions" open="(" separator="," close=")">#{v}</foreach>
            order by s.to_at is not null, s.from_at desc, s.id desc limit 200
            </script>""")
    List<StayRow> stays(@Param("versions") List<Long> versions);

    record OnHostRow(long deployment, String host, Instant fromAt, @Nullable Instant toAt) {}

    @Select("""
            <script>
            select i.deployment_id as deployment, h.name as host, i.from_at, i.to_at from live_interval i
              join host h on h.id = i.host_id
            where i.deployment_id in
              <foreach item="d" collection="deployments" open="(" separator="," close=")">#{d}</foreach>
            order by h.name, i.from_at
            </script>""")
    List<OnHostRow> hosts(@Param("deployments") List<Long> deployments);
}
