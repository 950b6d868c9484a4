package dev.paseo.service.dryrun;

import dev.paseo.core.deployment.Kind;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface DryRunMapper {

    /**
     * What stood at a gate.
     *
     * @param id      of the deployment, or of the passage
     * @param before  the version that was live there before
     * @param at      when it went through, or ended
     * @param follows a member of a set for which another stood at the gate
     */
    record PastRow(long id, String component, long versionId, Kind kind, @Nullable Long beforeId, String requester,
            Instant requestedAt, Instant at, boolean went, @Nullable String subject, boolean emergency,
            boolean follows) {}

    /** What went through the gate before an environment, or ended at it; the newest first. */
    @Select("""
            select d.id, c.name as component, d.version_id, d.kind, b.version_id as before_id,
              coalesce(a.name, '') as requester, d.requested_at, coalesce(d.started_at, d.ended_at) as at,
              d.started_at is not null as went, d.subject, d.emergency_reason is not null as emergency,
              d.promotion_id is not null and exists (select 1 from deployment f
                where f.promotion_id = d.promotion_id and f.id < d.id) as follows
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
            left join deployment b on b.id = d.replaces_id left join account a on a.id = d.requested_by
            where p.environment_id = #{environment} and d.kind <> 'preview'
              and (d.started_at >= #{since} or d.started_at is null and d.live_at is null and d.ended_at >= #{since})
            order by d.id desc limit #{limit}""")
    List<PastRow> entered(long environment, Instant since, int limit);

    /** What went through an environment's gate onward; the newest first. */
    @Select("""
            select p.id, c.name as component, p.version_id, 'promotion' as kind, b.version_id as before_id,
              '' as requester, coalesce(p.settled_at, p.opened_at) as requested_at, p.ended_at as at, true as went,
              null as subject, false as emergency, false as follows
            from passage p join version v on v.id = p.version_id join component c on c.id = v.component_id
            join deployment d on d.id = p.deployment_id left join deployment b on b.id = d.replaces_id
            where p.environment_id = #{environment} and p.ended_at >= #{since} and d.started_at is not null
            order by p.id desc limit #{limit}""")
    List<PastRow> wentOn(long environment, Instant since, int limit);

    record LivedRow(Instant fromAt, @Nullable Instant toAt) {}

    /** When a version was live in a place. */
    @Select("select from_at, to_at from live_stretch where place_id = #{place} and version_id = #{version}")
    List<LivedRow> lived(long place, long version);

    /** The environments whose gate onward a version had passed by then. */
    @Select("""
            select e.name from passage p join environment e on e.id = p.environment_id
            where p.version_id = #{version} and p.ended_at <= #{at}""")
    List<String> passed(long version, Instant at);
}
