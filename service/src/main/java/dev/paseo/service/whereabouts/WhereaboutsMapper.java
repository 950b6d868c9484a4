package dev.paseo.service.whereabouts;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface WhereaboutsMapper {

    /** The components of a page, in the order of their names. */
    @Select("select name from component where (#{only} = '' or name = #{only}) and name > #{after} order by name "
            + "limit #{limit}")
    List<String> page(String only, String after, int limit);

    /**
     * @param behind how many versions lie between this one and the one that is live in the environment before, where
     * that is newer in the same line
     */
    record CellRow(long componentId, String component, String environment, long placeId, @Nullable String url,
            @Nullable Long deployment, @Nullable String version,
            @Nullable String commit, int behind, @Nullable Instant since, int hosts, boolean retired,
            @Nullable Long passage, @Nullable String keeps, boolean testFailed) {}

    @Select("""
            select w.*, if(w.line_order < w.before_order and w.line_id = w.before_line,
              (select count(*) from version x where x.line_id = w.line_id and x.line_order > w.line_order and
                x.line_order <= w.before_order), 0) as behind
            from (select p.component_id, c.name as component, e.name as environment, p.id as place_id, p.url, d.id as
              deployment, v.number as version,
                v.commit_id as `commit`, d.live_at as since, (select count(*) from place_host ph where ph.place_id =
                  p.id) as hosts, v.line_id, v.line_order,
                coalesce(p.retired_at, c.retired_at, e.retired_at) is not null as retired,
                s.id as passage, s.reason as keeps, s.test_failed_at is not null as test_failed,
                lag(v.line_id) over walk as before_line, lag(v.line_order) over walk as before_order, e.position,
                  e.id as environment_id
              from component c join place p on p.component_id = c.id join environment e on e.id = p.environment_id
                and not e.temporary
              left join deployment d on d.id = p.live_deployment_id left join version v on v.id = d.version_id
              left join passage s on s.version_id = d.version_id and s.environment_id = p.environment_id and s.status
                = 'open' and s.reason is not null
                and (s.settled_at is not null or s.test_failed_at is not null)
              where c.name between #{first} and #{last} and (p.live_deployment_id is not null or
                coalesce(p.retired_at, c.retired_at, e.retired_at) is null)
              window walk as (partition by p.component_id order by e.position, e.id)) w
            order by w.component, w.position, w.environment_id""")
    List<CellRow> cells(String first, String last);

    record LabelRow(long componentId, String name, String value) {}

    @Select("""
            select l.component_id, l.name, l.value from component_label l join component c on c.id = l.component_id
            where c.name between #{first} and #{last} order by l.component_id, l.name""")
    List<LabelRow> labels(String first, String last);

    record OpenRow(long id, long placeId, String version, DeploymentStatus status, @Nullable String requestedBy,
            Instant requestedAt) {}

    @Select("""
            select d.id, d.place_id, v.number as version, d.status, a.name as requested_by, d.requested_at
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
            join version v on v.id = d.version_id left join account a on a.id = d.requested_by
            where d.status in ('waiting', 'queued', 'deploying', 'checking', 'undoing') and c.name between #{first}
              and #{last} order by d.id""")
    List<OpenRow> open(String first, String last);

    /** Places whose newest deployment was left in the middle. */
    @Select("""
            select d.id, d.place_id, v.number as version, d.status, a.name as requested_by, d.requested_at
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
            join version v on v.id = d.version_id left join account a on a.id = d.requested_by
            where d.status in ('stopped', 'undone', 'failed') and c.name between #{first} and #{last}
              and d.id = (select x.id from deployment x where x.place_id = p.id and x.started_at is not null order by
              x.started_at desc, x.id desc limit 1)""")
    List<OpenRow> troubled(String first, String last);

    record RunRow(long componentId, long number, RunStatus status, String version, boolean sealed, Instant at) {}

    @Select("""
            select r.component_id, r.number, r.status, r.version_number as version,
              exists (select 1 from version v where v.component_id = r.component_id and v.number = r.version_number)
                as sealed,
              coalesce(r.ended_at, r.started_at, r.created_at) as at
            from component c join run r on r.id = (select x.id from run x where x.component_id = c.id and x.trusted
              order by x.id desc limit 1)
            where c.name between #{first} and #{last}""")
    List<RunRow> newestRuns(String first, String last);

    /** @param differing hosts that count and do not have what is live */
    record MarkRow(long placeId, @Nullable String held, int differing, int drifted, int unhealthy, int away,
            boolean blocked, @Nullable String requestedBy,
            @Nullable Instant sealedAt) {}

    @Select("""
            select p.id as place_id, (select h.reason from hold h where h.place_id = p.id and h.lifted_at is null
              limit 1) as held,
              coalesce(sum(d.id is not null and x.maintenance is null and (p.live_side is null or ph.side =
                p.live_side) and not (i.version_id <=> d.version_id)), 0) as differing,
              coalesce(sum(r.drift is not null and (p.live_side is null or ph.side = p.live_side)), 0) as drifted,
              coalesce(sum(r.unhealthy_since is not null and (p.live_side is null or ph.side = p.live_side)), 0) as
                unhealthy,
              coalesce(sum(x.maintenance is not null), 0) as away, coalesce(max(v.blocked_at is not null), 0) as
                blocked, max(a.name) as requested_by,
              max(v.sealed_at) as sealed_at
            from component c join place p on p.component_id = c.id join environment e on e.id = p.environment_id
            left join deployment d on d.id = p.live_deployment_id left join version v on v.id = d.version_id left
              join account a on a.id = d.requested_by
            left join place_host ph on ph.place_id = p.id left join host x on x.id = ph.host_id
            left join live_interval i on i.host_id = ph.host_id and i.component_id = p.component_id and i.to_at is null
            left join host_report r on r.place_id = p.id and r.host_id = ph.host_id and r.deployment_id =
              i.deployment_id
            where c.name between #{first} and #{last} and not e.temporary group by p.id""")
    List<MarkRow> marks(String first, String last);

    record StayRow(long componentId, String version, String environment, String reason, Instant since) {}

    /** Versions that do not go on by themselves. */
    @Select("""
            select v.component_id, v.number as version, s.environment, s.reason, s.since_at as since from walk_stay s
              join version v on v.id = s.version_id
            join component c on c.id = v.component_id where c.name between #{first} and #{last} order by s.since_at
              desc limit 500""")
    List<StayRow> stays(String first, String last);

    record ClosedRow(long environmentId, String reason, @Nullable Instant until) {}

    @Select("""
            select environment_id, reason, until_at as `until` from closure
            where lifted_at is null and (until_at is null or until_at > #{now}) group by environment_id""")
    List<ClosedRow> closed(Instant now);

    record PastRow(String component, String environment, long placeId, String version, long deployment, Instant since,
            @Nullable Instant until) {}

    /** What was live at a moment: for each place the last stretch that had begun by then, unless it had ended. */
    @Select("""
            select c.name as component, e.name as environment, p.id as place_id, v.number as version, s.deployment_id
              as deployment, s.from_at as since,
              s.to_at as `until`
            from place p join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            join live_stretch s on s.id = (select x.id from live_stretch x where x.place_id = p.id and x.from_at <=
              #{moment} order by x.from_at desc, x.id desc limit 1)
            join version v on v.id = s.version_id
            where (s.to_at is null or s.to_at > #{moment}) and c.name between #{first} and #{last} and
              (#{environment} = '' or e.name = #{environment})
            order by c.name, e.position, e.id""")
    List<PastRow> at(Instant moment, String environment, String first, String last);

    record PastHostRow(long placeId, String host, @Nullable String version) {}

    /** What the hosts of one environment had at a moment. */
    @Select("""
            select p.id as place_id, h.name as host, v.number as version from place p join environment e on e.id =
              p.environment_id
            join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
            left join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.from_at <=
              #{moment} and (i.to_at is null or i.to_at > #{moment})
            left join version v on v.id = i.version_id
            where e.name = #{environment} order by p.id, ph.position""")
    List<PastHostRow> hostsAt(Instant moment, String environment);
}
