package dev.paseo.service.history;

import dev.paseo.core.deployment.DeploymentStatus;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What happened, by source, each the newest first. */
@Mapper
interface HistoryMapper {

    /** What is asked; null: nothing. */
    record Asked(@Nullable Long component, @Nullable Long environment, @Nullable Long host, @Nullable Long account,
            @Nullable Instant since, @Nullable Instant until, int limit) {}

    /** What stands behind a mark. */
    record Behind(Instant at, long id) {}

    /** @param status only of deployments that did not go live */
    record HappenedRow(long id, Instant at, @Nullable String component, String environment, @Nullable String version,
            @Nullable Long deployment, @Nullable DeploymentStatus status, @Nullable String by, @Nullable String reason,
            boolean emergency, boolean again) {}

    String OF_PLACE = """
            <if test="a.component != null">and p.component_id = #{a.component}</if>
            <if test="a.environment != null">and p.environment_id = #{a.environment}</if>
            """;
    /** Of rows that have their environment beside their place. */
    String OF_COMPONENT_AND_ENVIRONMENT = """
            <if test="a.component != null">and p.component_id = #{a.component}</if>
            <if test="a.environment != null">and t.environment_id = #{a.environment}</if>
            """;
    String OF_HOST = """
            <if test="a.host != null">and exists (select 1 from live_interval i
              where i.deployment_id = d.id and i.host_id = #{a.host})</if>
            """;
    /** Those of a person are looked up first: there may be few among very many. */
    String OF_PERSON = """
            <if test="a.account != null">join (select id from deployment where requested_by = #{a.account} union
              select deployment_id from ruling where account_id = #{a.account} and deployment_id is not null) m
              on m.id =
            """;
    String HOST_OF_PLACE = """
            <if test="a.host != null">and exists (select 1 from place_host h
              where h.place_id = p.id and h.host_id = #{a.host})</if>
            """;

    @Select("select id from component where name = #{name} union select component_id from former_name where name = "
            + "#{name} limit 1")
    Optional<Long> component(String name);

    /** Retired ones too. */
    @Select("select id from environment where name = #{name}")
    Optional<Long> environment(String name);

    @Select("select id from host where name = #{name}")
    Optional<Long> host(String name);

    @Select("select id from account where name = #{name}")
    Optional<Long> account(String name);

    /** What went live, and what is live again. */
    @Select("""
            <script>
            select s.id, s.from_at as at, c.name as component, e.name as environment, v.number as version,
              s.deployment_id as deployment, null as status, u.name as `by`,
              coalesce(d.emergency_reason, d.reason) as reason, d.emergency_reason is not null as emergency,
              exists (select 1 from live_stretch x where x.deployment_id = s.deployment_id and x.id &lt; s.id) as again
            from (select t.* from live_stretch t
              <if test="a.component != null">join place p on p.id = t.place_id</if>
              <if test="a.host != null">join deployment d on d.id = t.deployment_id</if>
            """ + OF_PERSON + """
              t.deployment_id</if>
              where t.from_at &lt;= #{b.at} and (t.from_at &lt; #{b.at} or t.id &lt; #{b.id})
              <if test="a.since != null">and t.from_at &gt;= #{a.since}</if>
              <if test="a.until != null">and t.from_at &lt; #{a.until}</if>
            """ + OF_COMPONENT_AND_ENVIRONMENT + OF_HOST + """
              order by t.from_at desc, t.id desc limit #{a.limit}) s
              join deployment d on d.id = s.deployment_id join place p on p.id = s.place_id
              join component c on c.id = p.component_id join environment e on e.id = p.environment_id
              join version v on v.id = s.version_id left join account u on u.id = d.requested_by
            order by s.from_at desc, s.id desc
            </script>""")
    List<HappenedRow> stretches(@Param("a") Asked asked, @Param("b") Behind behind);

    /** Deployments that ended without going live. */
    @Select("""
            <script>
            select d.id, d.ended_at as at, c.name as component, e.name as environment, v.number as version,
              d.id as deployment, d.status, u.name as `by`, d.reason, d.emergency_reason is not null as emergency,
              false as again
            from (select d.* from deployment d
              <if test="a.component != null or a.environment != null">join place p on p.id = d.place_id</if>
            """ + OF_PERSON + """
              d.id</if>
              where d.never_live_end &lt;= #{b.at} and (d.never_live_end &lt; #{b.at} or d.id &lt; #{b.id})
              <if test="a.since != null">and d.never_live_end &gt;= #{a.since}</if>
              <if test="a.until != null">and d.never_live_end &lt; #{a.until}</if>
            """ + OF_PLACE + OF_HOST + """
              order by d.never_live_end desc, d.id desc limit #{a.limit}) d join place p on p.id = d.place_id
              join component c on c.id = p.component_id join environment e on e.id = p.environment_id
              join version v on v.id = d.version_id left join account u on u.id = d.requested_by
            order by d.ended_at desc, d.id desc
            </script>""")
    List<HappenedRow> ended(@Param("a") Asked asked, @Param("b") Behind behind);

    /** Of a table of restraints: when they began, or when they were lifted. */
    String RESTRAINTS = """
            <if test="a.since != null">and t.${column} &gt;= #{a.since}</if>
            <if test="a.until != null">and t.${column} &lt; #{a.until}</if>
            <if test="a.account != null">and t.${person} = #{a.account}</if>
            """;

    /** @param column {@code at} or {@code lifted_at} */
    @Select("""
            <script>
            <bind name="person" value="column == 'at' ? 'set_by' : 'lifted_by'"/>
            select t.id, t.${column} as at, c.name as component, e.name as environment, null as version,
              null as deployment, null as status, u.name as `by`, t.reason, false as emergency, false as again
            from (select t.* from hold t
              <if test="a.component != null or a.host != null">join place p on p.id = t.place_id</if>
              where t.${column} &lt;= #{b.at} and (t.${column} &lt; #{b.at} or t.id &lt; #{b.id})
            """ + RESTRAINTS + OF_COMPONENT_AND_ENVIRONMENT + HOST_OF_PLACE + """
              order by t.${column} desc, t.id desc limit #{a.limit}) t join place p on p.id = t.place_id
              join component c on c.id = p.component_id join environment e on e.id = p.environment_id
              left join account u on u.id = t.${person}
            order by t.${column} desc, t.id desc
            </script>""")
    List<HappenedRow> holds(@Param("column") String column, @Param("a") Asked asked, @Param("b") Behind behind);

    /** @param column {@code at} or {@code lifted_at} */
    @Select("""
            <script>
            <bind name="person" value="column == 'at' ? 'set_by' : 'lifted_by'"/>
            select t.id, t.${column} as at, null as component, e.name as environment, null as version,
              null as deployment, null as status, u.name as `by`, t.reason, false as emergency, false as again
            from closure t join environment e on e.id = t.environment_id left join account u on u.id = t.${person}
            where t.${column} &lt;= #{b.at} and (t.${column} &lt; #{b.at} or t.id &lt; #{b.id})
            """ + RESTRAINTS + """
            <if test="a.environment != null">and t.environment_id = #{a.environment}</if>
            <if test="a.component != null or a.host != null">and exists (select 1 from place p
              where p.environment_id = e.id
            """ + OF_PLACE + HOST_OF_PLACE + """
            )</if>
            order by t.${column} desc, t.id desc limit #{a.limit}
            </script>""")
    List<HappenedRow> closures(@Param("column") String column, @Param("a") Asked asked, @Param("b") Behind behind);

    /** @param second of the entry, without a zone, which is UTC */
    record TroubleRow(String what, long id, String second, String body) {}

    /** What is asked of the trail: names, and seconds without a zone; null: nothing. */
    record TroubleAsked(String what, @Nullable String component, @Nullable String environment, @Nullable String host,
            @Nullable String since, @Nullable String until, int limit) {}

    /** What agents told of their hosts, as it stands in the trail. */
    @Select("""
            <script>
            select what, id, at_second as second, body from audit_entry
            where what = #{a.what} and at_second &lt;= #{second} and (at_second &lt; #{second} or id &lt; #{id})
            <if test="a.component != null">and component = #{a.component}</if>
            <if test="a.environment != null">and environment = #{a.environment}</if>
            <if test="a.host != null">and who = #{a.host}</if>
            <if test="a.since != null">and at_second &gt;= #{a.since}</if>
            <if test="a.until != null">and at_second &lt; #{a.until}</if>
            order by at_second desc, id desc limit #{a.limit}
            </script>""")
    List<TroubleRow> troubles(@Param("a") TroubleAsked asked, @Param("second") String second, @Param("id") long id);

    record ThenRow(String component, int position, String environment, String version, long deployment) {}

    /** What was live at a moment. */
    @Select("""
            select c.name as component, e.position, e.name as environment, v.number as version,
              s.deployment_id as deployment
            from place p join component c on c.id = p.component_id join environment e on e.id = p.environment_id
              join live_stretch s on s.id = (select x.id from live_stretch x where x.place_id = p.id
                and x.from_at <= #{moment} order by x.from_at desc, x.id desc limit 1)
              join version v on v.id = s.version_id
            where s.to_at is null or s.to_at > #{moment}""")
    List<ThenRow> live(Instant moment);

    record HostRow(String host, String component, @Nullable String environment, String version, long deployment,
            Instant fromAt) {}

    /** What hosts had at a moment. */
    @Select("""
            select h.name as host, c.name as component, e.name as environment, v.number as version,
              i.deployment_id as deployment, i.from_at
            from live_interval i join host h on h.id = i.host_id join component c on c.id = i.component_id
              join version v on v.id = i.version_id join deployment d on d.id = i.deployment_id
              join place p on p.id = d.place_id join environment e on e.id = p.environment_id
            where i.from_at <= #{moment} and (i.to_at is null or i.to_at > #{moment})
              and (#{host} = '' or h.name = #{host}) and concat(h.name, ' ', c.name) > #{after}
            order by h.name, c.name, i.id limit #{limit}""")
    List<HostRow> hosts(Instant moment, String host, String after, int limit);
}
