package dev.paseo.service.calendar;

import dev.paseo.core.deployment.Kind;
import dev.paseo.core.deployment.DeploymentStatus;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface CalendarMapper {

    record DeploymentRow(long id, String component, String version, Kind kind, DeploymentStatus status,
            Instant startedAt,
            @Nullable Instant endedAt) {}

    @Select("""
            select d.id, c.name as component, v.number as version, d.kind, d.status, d.started_at,
              coalesce(d.live_at, d.ended_at) as ended_at
            from place p join deployment d on d.place_id = p.id join component c on c.id = p.component_id join
              version v on v.id = d.version_id
            where p.environment_id = #{environment} and d.started_at >= #{from} and d.started_at < #{until} order by
              d.started_at desc limit 500""")
    List<DeploymentRow> deployments(long environment, Instant from, Instant until);

    record ClosureRow(long id, String reason, String by, Instant at, @Nullable Instant until,
            @Nullable Instant liftedAt) {}

    @Select("""
            select c.id, c.reason, a.name as `by`, c.at, c.until_at as `until`, c.lifted_at from closure c join
              account a on a.id = c.set_by
            where c.environment_id = #{environment} and c.at < #{until} and (c.lifted_at is null or c.lifted_at >
              #{from}) and (c.until_at is null or c.until_at > #{from})
            order by c.at""")
    List<ClosureRow> closures(long environment, Instant from, Instant until);
}
