package dev.paseo.service.history;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What is drawn of places over a time. */
@Mapper
interface LaneMapper {

    /** @param cursor in whose order lanes come: by component, then as environments follow each other */
    record LaneRow(long place, String component, String environment, String cursor) {}

    @Select("""
            <script>
            select p.id as place, c.name as component, e.name as environment,
              concat(c.name, ' ', lpad(e.position, 9, '0'), ' ', e.name) as `cursor` from place p
              join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            where exists (select 1 from live_stretch s where s.place_id = p.id and s.from_at &lt; #{a.until}
                and (s.to_at is null or s.to_at &gt; #{a.since}))
              and concat(c.name, ' ', lpad(e.position, 9, '0'), ' ', e.name) &gt; #{after}
            """ + HistoryMapper.OF_PLACE + HistoryMapper.HOST_OF_PLACE + """
            order by `cursor` limit #{a.limit}
            </script>""")
    List<LaneRow> lanes(@Param("a") HistoryMapper.Asked asked, @Param("after") String after);

    record StretchRow(long place, String version, long deployment, Instant fromAt, @Nullable Instant toAt,
            boolean emergency) {}

    @Select("""
            <script>
            select s.place_id as place, v.number as version, s.deployment_id as deployment, s.from_at, s.to_at,
              d.emergency_reason is not null as emergency
            from live_stretch s join version v on v.id = s.version_id join deployment d on d.id = s.deployment_id
            where s.from_at &lt; #{until} and (s.to_at is null or s.to_at &gt; #{since}) and s.place_id in
              <foreach item="p" collection="places" open="(" separator="," close=")">#{p}</foreach>
            order by s.from_at desc limit #{limit}
            </script>""")
    List<StretchRow> within(@Param("places") List<Long> places, @Param("since") Instant since,
            @Param("until") Instant until, @Param("limit") int limit);

    record HeldRow(@Nullable Long place, @Nullable String environment, Instant fromAt, @Nullable Instant toAt,
            String by, String reason) {}

    @Select("""
            <script>
            select t.place_id as place, null as environment, t.at as from_at, t.lifted_at as to_at, u.name as `by`,
              t.reason from hold t join account u on u.id = t.set_by
            where t.at &lt; #{until} and (t.lifted_at is null or t.lifted_at &gt; #{since}) and t.place_id in
              <foreach item="p" collection="places" open="(" separator="," close=")">#{p}</foreach>
            union all
            select null, e.name, t.at, least(coalesce(t.lifted_at, t.until_at), coalesce(t.until_at, t.lifted_at)),
              u.name, t.reason from closure t join account u on u.id = t.set_by
              join environment e on e.id = t.environment_id
            where t.at &lt; #{until} and (t.lifted_at is null or t.lifted_at &gt; #{since})
              and (t.until_at is null or t.until_at &gt; #{since}) and e.id in (select environment_id from place
              where id in <foreach item="p" collection="places" open="(" separator="," close=")">#{p}</foreach>)
            order by from_at desc limit #{limit}
            </script>""")
    List<HeldRow> restrained(@Param("places") List<Long> places, @Param("since") Instant since,
            @Param("until") Instant until, @Param("limit") int limit);

    /** Deployments into these places that ended without going live; of a host: those that put something onto it. */
    @Select("""
            <script>
            select d.id, d.ended_at as at, c.name as component, e.name as environment, v.number as version,
              d.id as deployment, d.status, u.name as `by`, d.reason, d.emergency_reason is not null as emergency,
              false as again
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
              join environment e on e.id = p.environment_id join version v on v.id = d.version_id
              left join account u on u.id = d.requested_by
            where d.never_live_end &gt;= #{a.since} and d.never_live_end &lt; #{a.until} and d.place_id in
              <foreach item="p" collection="places" open="(" separator="," close=")">#{p}</foreach>
            """ + HistoryMapper.OF_HOST + """
            order by d.never_live_end desc, d.id desc limit #{a.limit}
            </script>""")
    List<HistoryMapper.HappenedRow> ended(@Param("places") List<Long> places, @Param("a") HistoryMapper.Asked asked);

    /**
     * What agents told of hosts of these components in these environments, as it stands in the trail.
     *
     * @param host of this one alone; null: of all
     */
    record TrailAsked(List<String> whats, List<String> components, List<String> environments, @Nullable String host,
            String since, String until, int limit) {}

    @Select("""
            <script>
            select what, id, at_second as second, body from audit_entry
            where at_second &gt;= #{since} and at_second &lt; #{until}
            <if test="host != null">and who = #{host}</if>
              and what in
              <foreach item="each" collection="whats" open="(" separator="," close=")">#{each}</foreach>
              and component in
              <foreach item="each" collection="components" open="(" separator="," close=")">#{each}</foreach>
              and environment in
              <foreach item="each" collection="environments" open="(" separator="," close=")">#{each}</foreach>
            order by at_second desc, id desc limit #{limit}
            </script>""")
    List<HistoryMapper.TroubleRow> troubles(TrailAsked asked);
}
