package dev.paseo.service.host;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface HostReportMapper {

    record ReportRow(long placeId, long hostId, String host, long deploymentId, Instant checkedAt, int failures,
            @Nullable String failing,
            @Nullable Instant unhealthySince, @Nullable String drift, @Nullable Instant driftedSince) {}

    String SELECT = """
            select r.place_id, r.host_id, h.name as host, r.deployment_id, r.checked_at, r.failures, r.failing,
              r.unhealthy_since, r.drift, r.drifted_since
            from host_report r join host h on h.id = r.host_id
            """;

    @Select(SELECT + "where r.place_id = #{place}")
    List<ReportRow> ofPlace(long place);

    @Select(SELECT + "where r.place_id = #{place} and r.host_id = #{host}")
    Optional<ReportRow> of(long place, long host);

    @Insert("""
            insert into host_report (place_id, host_id, deployment_id, checked_at, failures, failing,
              unhealthy_since, drift, drifted_since)
            values (#{placeId}, #{hostId}, #{deploymentId}, #{checkedAt}, #{failures}, #{failing}, #{unhealthySince},
              #{drift}, #{driftedSince})
            on duplicate key update deployment_id = values(deployment_id), checked_at = values(checked_at), failures
              = values(failures),
              failing = values(failing), unhealthy_since = values(unhealthy_since), drift = values(drift),
              drifted_since = values(drifted_since)""")
    int keep(ReportRow row);

    record WatchedRow(long placeId, long hostId, long deploymentId) {}

    /**
     * What is live on this host and on those that its agent serves, and is not being changed; where nobody knows what
     * is there, all that it could be.
     */
    @Select("""
            select p.id as place_id, h.id as host_id, i.deployment_id from host h join place_host ph on ph.host_id =
              h.id join place p on p.id = ph.place_id
            join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.to_at is null
            where (h.id = #{host} or h.served_by = #{agent}) and h.maintenance is null
              and not exists (select 1 from work w where w.host_id = h.id and w.deployment_id = i.deployment_id and
                w.status in ('offered', 'leased')
                and w.kind in ('INSTALL', 'UNDO', 'REMOVE', 'CLEAR'))
            union
            select u.place_id, u.host_id, d.id from host_doubt u join host h on h.id = u.host_id join place p on p.id
              = u.place_id join deployment lost on lost.id = u.deployment_id
            join deployment d on d.id in (lost.id, lost.replaces_id, (select i.deployment_id from live_interval i
              where i.host_id = u.host_id and i.component_id = p.component_id and i.to_at is not null order by
                i.to_at desc, i.id desc limit 1))
            where (h.id = #{host} or h.served_by = #{agent}) and h.maintenance is null
              and not exists (select 1 from work w where w.host_id = h.id and w.status in ('offered', 'leased') and
              w.kind in ('INSTALL', 'UNDO', 'REMOVE', 'CLEAR'))""")
    List<WatchedRow> watched(long agent, @Nullable Long host);

    @Update("update host set disk_free = #{free}, disk_total = #{total} where id = #{host}")
    int disk(long host, long free, long total);

    @Select("select id from host where name = #{name}")
    Optional<Long> host(String name);

    @Update("update host set maintenance = #{reason}, maintenance_since = #{now} where id = #{host}")
    int maintenance(long host, @Nullable String reason, @Nullable Instant now);

    @Select("select place_id from place_host where host_id = #{host}")
    List<Long> places(long host);

    record HostRow(String name, @Nullable String agent, @Nullable String servedBy, @Nullable Instant lastContact,
            @Nullable String maintenance,
            @Nullable Instant maintenanceSince, @Nullable Long diskFree, @Nullable Long diskTotal) {}

    @Select("""
            select h.name, a.name as agent, s.name as served_by, coalesce(a.last_contact, s.last_contact) as
              last_contact, h.maintenance, h.maintenance_since,
              h.disk_free, h.disk_total
            from host h left join agent a on a.host_id = h.id left join agent s on s.id = h.served_by where
              h.retired_at is null order by h.name""")
    List<HostRow> hosts();

    record PlaceHostRow(long placeId, String component, String environment, String host) {}

    /**
     * Hosts of live places that have nothing of it, or what another deployment gave them, and are there: perhaps new or
     * late. None of a place under change.
     */
    @Select("""
            select p.id as place_id, c.name as component, e.name as environment, h.name as host from place p join
              component c on c.id = p.component_id
            join environment e on e.id = p.environment_id join deployment d on d.id = p.live_deployment_id
            join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
            join (select host_id as id from agent where last_contact > #{since} and host_id is not null
              union select s.id from agent a join host s on s.served_by = a.id where a.last_contact > #{since}) here
              on here.id = h.id
            left join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.to_at is null
            where h.maintenance is null and p.retired_at is null and c.retired_at is null and (p.live_side is null or
              p.live_side = ph.side) and (i.id is null or i.deployment_id <> d.id)
              and not exists (select 1 from deployment o where o.place_id = p.id and o.status in ('deploying',
                'checking', 'undoing'))""")
    List<PlaceHostRow> strangers(Instant since);
}
