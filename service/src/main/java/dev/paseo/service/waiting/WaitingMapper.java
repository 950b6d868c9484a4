package dev.paseo.service.waiting;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface WaitingMapper {

    record ReviewRow(long deployment, String component, String environment, String version,
            @Nullable String requestedBy, String reason, boolean emergency, Instant at, Instant due) {}

    /**
     * Emergencies, and what went live under loosened rules, that nobody has looked at yet, but not this account's own.
     */
    @Select("""
            select d.id as deployment, c.name as component, e.name as environment, v.number as version, a.name as
              requested_by, coalesce(d.emergency_reason, r.reason, '') as reason, d.emergency_reason is not null as
                emergency,
              d.requested_at as at, r.due_at as due
            from review r join deployment d on d.id = r.deployment_id join place p on p.id = d.place_id join
              component c on c.id = p.component_id
            join environment e on e.id = p.environment_id join version v on v.id = d.version_id left join account a
              on a.id = d.requested_by
            where r.done_at is null and (d.requested_by is null or d.requested_by <> #{account}) and (r.loosened_by is
              null or r.loosened_by <> #{account}) order by r.due_at limit 200""")
    List<ReviewRow> reviews(long account);

    record StayRow(String component, String version, String environment, String reason, Instant since) {}

    /** Versions that do not go on by themselves until something is mended. */
    @Select("""
            select c.name as component, v.number as version, s.environment, s.reason, s.since_at as since from
              walk_stay s join version v on v.id = s.version_id
            join component c on c.id = v.component_id where c.retired_at is null order by s.since_at limit 200""")
    List<StayRow> stays();

    record HeadRow(long componentId, String component, long fileId) {}

    /** The file in force of every component's main branch. */
    @Select("""
            select c.id as component_id, c.name as component, h.pipeline_file_id as file_id from component c join
              head h on h.component_id = c.id and h.branch = c.main_branch
            where h.pipeline_file_id is not null and c.retired_at is null order by c.name""")
    List<HeadRow> heads();
}
