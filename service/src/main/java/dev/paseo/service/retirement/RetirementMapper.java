package dev.paseo.service.retirement;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface RetirementMapper {

    String OPEN = "('waiting', 'queued', 'deploying', 'checking', 'undoing')";

    @Select("""
            select concat(c.name, '#', r.number, ' is ', r.status) from run r join component c on c.id = r.component_id
            where r.component_id = #{component} and r.status in ('waiting', 'running', 'cancelling') order by r.id
              limit 10""")
    List<String> runs(long component);

    @Select("select concat('deployment ', d.id, ' of ', c.name, ' into ', e.name, ' is ', d.status) from deployment "
            + "d join place p on p.id = d.place_id "
            + "join component c on c.id = p.component_id join environment e on e.id = p.environment_id where "
            + "p.component_id = #{component} and d.status in "
            + OPEN + " order by d.id limit 10")
    List<String> deploymentsOf(long component);

    @Select("select concat('deployment ', d.id, ' is ', d.status) from deployment d where d.place_id = #{place} and "
            + "d.status in "
            + OPEN + " order by d.id limit 10")
    List<String> deploymentsInto(long place);

    record LiveRow(long placeId, String component, String environment, long versionId, String version) {}

    /** What is live of a component, or at a place. */
    @Select("""
            select p.id as place_id, c.name as component, e.name as environment, v.id as version_id, v.number as version
            from place p join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            join deployment d on d.id = p.live_deployment_id join version v on v.id = d.version_id
            where not e.temporary and (p.component_id = #{component} or p.id = #{place}) order by e.position, e.id""")
    List<LiveRow> live(@Nullable Long component, @Nullable Long place);

    /** The components whose triggers name this one. */
    @Select("select distinct c.name from start_trigger t join component c on c.id = t.component_id where t.source = "
            + "#{source} order by c.name")
    List<String> startedBy(String source);

    @Select("""
            select concat(c.name, ' has it in ', e.name) from place_host ph join place p on p.id = ph.place_id join
              component c on c.id = p.component_id
            join environment e on e.id = p.environment_id join host h on h.id = ph.host_id
            where h.name = #{host} and p.retired_at is null and c.retired_at is null and e.retired_at is null and not
              e.temporary order by c.name""")
    List<String> placesOf(String host);

    @Select("""
            select a.name from agent a join host h on h.id = a.host_id where h.name = #{host} and a.retired_at is
              null""")
    List<String> agentsOf(String host);

    record AgentRow(long id, @Nullable String host, int working) {}

    @Select("""
            select a.id, h.name as host, (select count(*) from work w where w.agent_id = a.id and w.status =
              'leased') as working
            from agent a left join host h on h.id = a.host_id where a.name = #{name}""")
    Optional<AgentRow> agent(String name);

    @Select("""
            select distinct concat('it reaches ', h.name, ', which ', c.name, ' has in ', e.name) from host h join
              place_host ph on ph.host_id = h.id join place p on p.id = ph.place_id
            join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            where h.served_by = #{agent} and p.retired_at is null and c.retired_at is null and e.retired_at is null""")
    List<String> reached(long agent);

    @Select("select c.name from place p join component c on c.id = p.component_id where p.environment_id = "
            + "#{environment} and p.retired_at is null and c.retired_at is null order by c.name")
    List<String> placesIn(long environment);

    @Select("select environment_id from preview_template t join environment e on e.id = t.environment_id where "
            + "e.name = #{name}")
    Optional<Long> template(String name);

    @Select("select branch from preview where template_id = #{template} and removed_at is null order by branch "
            + "limit 10")
    List<String> previews(long template);

    @Select("select id from host where name = #{name}")
    Optional<Long> host(String name);

    @Update("update component set retired_at = #{at}, triggers_file_id = null where id = #{id}")
    int componentRetired(long id, @Nullable Instant at);

    @Update("update place set retired_at = #{at} where id = #{id}")
    int placeRetired(long id, @Nullable Instant at);

    @Update("update environment set retired_at = #{at} where id = #{id}")
    int environmentRetired(long id, @Nullable Instant at);

    @Update("update host set retired_at = #{at} where id = #{id}")
    int hostRetired(long id, @Nullable Instant at);

    @Update("update agent set retired_at = #{at}, token_hash = null, enrolment_hash = null where id = #{id}")
    int agentRetired(long id, @Nullable Instant at);

    record RetiredRow(String what, String name, @Nullable String component, @Nullable String environment, Instant at) {}

    /** All that is retired, the newest first. */
    @Select("""
            select 'component' as what, name, name as component, null as environment, retired_at as at from component
              where retired_at is not null
            union all select 'place', c.name, c.name, e.name, p.retired_at from place p join component c on c.id =
              p.component_id join environment e on e.id = p.environment_id
              where p.retired_at is not null and not e.temporary
            union all select 'host', name, null, null, retired_at from host where retired_at is not null
            union all select 'agent', name, null, null, retired_at from agent where retired_at is not null
            union all select if(t.environment_id is null, 'environment', 'preview-template'), e.name, null, null,
              e.retired_at from environment e left join preview_template t on t.environment_id = e.id
              where e.retired_at is not null and (t.environment_id is not null or not e.temporary)
            order by at desc, what, name limit 1000""")
    List<RetiredRow> retired();

    /** Its triggers start nothing any more; they come back with its file. */
    @Delete("delete from start_trigger where component_id = #{component}")
    int dropTriggers(long component);
}
