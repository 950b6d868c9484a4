package dev.paseo.service.environment;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface EnvironmentMapper {

    record EnvironmentRow(long id, String name, int position, String zone, String rules, long rulesRevision,
            int hosts) {}

    record PlaceRow(long id, long environmentId, String environment, String zone, long rulesRevision,
            long componentId, String component, @Nullable String url,
            long settingsRevision, @Nullable Long liveDeploymentId, @Nullable String liveSide,
            @Nullable String actingHost, @Nullable Instant retiredAt) {}

    record HostRow(long id, String name, @Nullable String url, @Nullable String side, @Nullable String maintenance,
            @Nullable Long servedBy) {}

    String PLACE = """
            select p.id, p.environment_id, e.name as environment, e.zone, e.rules_revision, p.component_id, c.name as
              component, p.url, p.settings_revision,
              p.live_deployment_id, p.live_side, p.acting_host, coalesce(p.retired_at, c.retired_at, e.retired_at) as
                retired_at
            from place p join environment e on e.id = p.environment_id join component c on c.id = p.component_id
            """;

    @Select("select id, name, position, zone, rules, rules_revision, hosts from environment where not temporary and "
            + "retired_at is null order by position, id")
    List<EnvironmentRow> all();

    @Select("select name from environment where not temporary and retired_at is null order by position, id")
    List<String> names();

    @Select("select id, name, position, zone, rules, rules_revision, hosts from environment where name = #{name}")
    Optional<EnvironmentRow> named(String name);

    @Select("select id, name, position, zone, rules, rules_revision, hosts from environment where id = #{id}")
    EnvironmentRow byId(long id);

    @Select("select id from environment order by id for update")
    List<Long> lockAll();

    @Select("select id from place order by id for update")
    List<Long> lockPlaces();

    @Select("select id from environment where name = #{name} for update")
    Optional<Long> lock(String name);

    @Insert("insert into environment (name, position, zone, rules, rules_revision) values (#{name}, #{position}, "
            + "#{zone}, '{}', 0)")
    int add(String name, int position, String zone);

    @Update("update environment set position = #{position}, zone = #{zone}, rules = #{rules}, rules_revision = "
            + "#{revision}, retired_at = null where id = #{id}")
    int change(long id, int position, String zone, String rules, long revision);

    @Insert("insert into environment_rules (environment_id, revision, rules, set_by, at) values (#{environment}, "
            + "#{revision}, #{rules}, #{by}, #{at})")
    int addRules(long environment, long revision, String rules, long by, Instant at);

    @Select(PLACE
            + "where e.name = #{environment} and p.component_id = coalesce((select id from component where name = "
            + "#{component}), (select component_id from former_name where name = #{component}))")
    Optional<PlaceRow> place(String component, String environment);

    record PlaceSettingsRow(long place, String component, String settings) {}

    /** The places of an environment that are not retired, with the settings in force, by the component's name. */
    @Select("""
            select p.id as place, c.name as component, s.body as settings from place p
              join environment e on e.id = p.environment_id join component c on c.id = p.component_id
              join place_settings s on s.place_id = p.id and s.revision = p.settings_revision
            where p.environment_id = #{environment} and p.retired_at is null and c.retired_at is null
              and e.retired_at is null order by c.name""")
    List<PlaceSettingsRow> settingsIn(long environment);

    /** A host of a place; {@code agent} reaches it, where it has none of its own. */
    record ServedRow(long place, String host, @Nullable String agent) {}

    @Select("""
            select ph.place_id as place, h.name as host, a.name as agent from place p
              join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
              left join agent a on a.id = h.served_by
            where p.environment_id = #{environment} order by ph.place_id, ph.position""")
    List<ServedRow> hostsIn(long environment);

    @Select(PLACE + "where p.id = #{id}")
    PlaceRow placeById(long id);

    @Select(PLACE + "where p.environment_id = #{environment} and p.component_id = #{component}")
    PlaceRow placeOf(long environment, long component);

    @Select("select c.name from place p join component c on c.id = p.component_id where p.environment_id = "
            + "#{environment} and p.retired_at is null and c.retired_at is null order by c.name")
    List<String> placesIn(long environment);

    @Select("select id from place where id = #{id} for update")
    long lockPlace(long id);

    @Insert("insert ignore into place (environment_id, component_id, settings_revision) values (#{environment}, "
            + "#{component}, 0)")
    int addPlace(long environment, long component);

    @Update("update place set url = #{url}, acting_host = #{acting}, settings_revision = #{revision}, wake_at = "
            + "#{now}, retired_at = null where id = #{id}")
    int changePlace(long id, @Nullable String url, @Nullable String acting, long revision, Instant now);

    @Update("update place set wake_at = #{now} where environment_id = #{environment}")
    int wake(long environment, Instant now);

    @Update("update passage set wake_at = #{now} where environment_id = #{environment} and status = 'open'")
    int wakePassages(long environment, Instant now);

    @Update("update place set wake_at = #{now}")
    int wakeAll(Instant now);

    @Insert("insert into place_settings (place_id, revision, body, set_by, at) values (#{place}, #{revision}, "
            + "#{body}, #{by}, #{at})")
    int addSettings(long place, long revision, String body, long by, Instant at);

    @Select("select body from place_settings where place_id = #{place} and revision = #{revision}")
    Optional<String> settings(long place, long revision);

    record SettingsRow(long place, String text) {}

    /** The settings in force of places that stay, with their hosts; of one, or of all. */
    @Select("""
            select p.id as place, concat(p.settings_revision, '\n', s.body, coalesce((select
              group_concat(concat('\n', h.name, ' ', coalesce(ph.url, ''), ' ', coalesce(ph.side, '')) order by
                ph.position separator '')
              from place_host ph join host h on h.id = ph.host_id where ph.place_id = p.id), '')) as text
            from place p join environment e on e.id = p.environment_id join place_settings s on s.place_id = p.id and
              s.revision = p.settings_revision
            where not e.temporary and (#{place} is null or p.id = #{place})""")
    List<SettingsRow> settingsInForce(@Nullable Long place);

    record RevisionRow(long revision, String by, Instant at) {}

    @Select("""
            select s.revision, a.name as `by`, s.at from place_settings s join account a on a.id = s.set_by
            where s.place_id = #{place} order by s.revision desc limit 100""")
    List<RevisionRow> revisions(long place);

    @Insert("insert into host (name) values (#{name}) on duplicate key update retired_at = null")
    int addHost(String name);

    /** The agent that reaches a host without one of its own; a host that has its own keeps it. */
    @Update("""
            update host set served_by = (select a.id from agent a where a.name = #{agent})
            where name = #{host} and not exists (select 1 from agent o where o.host_id = host.id)""")
    int serve(String host, String agent);

    @Insert("""
            insert into preview_template (environment_id, body, set_by, at) values (#{environment}, #{body}, #{by},
              #{at})
            on duplicate key update body = values(body), set_by = values(set_by), at = values(at)""")
    int keepTemplate(long environment, String body, long by, Instant at);

    /** Environments that come and go, and their templates, are not in the list of all. */
    @Insert("""
            insert into environment (name, position, zone, rules, rules_revision, temporary)
            values (#{name}, 1000, #{zone}, #{rules}, 1, true) on duplicate key update retired_at = null""")
    int addTemporary(String name, String zone, String rules);

    @Select("select name from host where id = #{id}")
    String hostName(long id);

    @Select("select name from agent where retired_at is null")
    List<String> agents();

    @Delete("delete from place_host where place_id = #{place}")
    int clearHosts(long place);

    @Insert("""
            insert into place_host (place_id, host_id, position, url, side)
            select #{place}, h.id, #{position}, #{url}, #{side} from host h where h.name = #{name}""")
    int placeHost(long place, String name, int position, @Nullable String url, @Nullable String side);

    @Update("""
            update environment set hosts = (select count(distinct ph.host_id) from place p join place_host ph on
              ph.place_id = p.id where p.environment_id = #{id})
            where id = #{id}""")
    int countHosts(long id);

    String HOST = """
            select h.id, h.name, ph.url, ph.side, h.maintenance, h.served_by from place_host ph join host h on h.id =
              ph.host_id
            """;

    @Select(HOST + "where ph.place_id = #{place} order by ph.position")
    List<HostRow> hosts(long place);

    @Select(HOST + "where ph.place_id = #{place} and h.id = #{host}")
    Optional<HostRow> host(long place, long host);

    @Select(HOST + "where ph.place_id = #{place} and h.name = #{name}")
    Optional<HostRow> hostNamed(long place, String name);

    @Select("""
            select e.name from passage p join environment e on e.id = p.environment_id
            where p.version_id = #{version} and p.status = 'ended'""")
    List<String> passed(long version);

    @Select("select t.body from preview_template t join environment e on e.id = t.environment_id where e.retired_at "
            + "is null order by t.environment_id")
    List<String> templates();

    String SERVED = """
            select h.name from host h join (
                select host_id as id from agent where retired_at is null and token_hash is not null
              union select s.id from agent a join host s on s.served_by = a.id
                where a.retired_at is null and a.token_hash is not null) t on t.id = h.id
            """;

    /** The hosts that an agent is enrolled for, or reaches. */
    @Select(SERVED)
    List<String> servedHosts();

    /** Those of them that are no preview's own. */
    @Select(SERVED + """
            where not exists (select 1 from preview v join place p on p.environment_id = v.environment_id
              join place_host s on s.place_id = p.id where s.host_id = h.id)""")
    List<String> standingHosts();

    @Select("select name from agent where id = #{id}")
    String agentName(long id);

    /** How many deployments wait at its gate. */
    @Select("select count(*) from deployment d join place p on p.id = d.place_id where p.environment_id = "
            + "#{environment} and d.status = 'waiting'")
    int waiting(long environment);

    @Select("select id, name, position, zone, rules, rules_revision, hosts from environment where not temporary and "
            + "rules_revision > 0")
    List<EnvironmentRow> rulesInForce();

    record RulesRow(long revision, String rules, String by, Instant at) {}

    @Select("""
            select r.revision, r.rules, a.name as `by`, r.at from environment_rules r join account a on a.id = r.set_by
            where r.environment_id = #{environment} order by r.revision desc limit 50""")
    List<RulesRow> rulesHistory(long environment);

    @Select("""
            select rules from environment_rules where environment_id = #{environment} and at <= #{moment}
            order by revision desc limit 1""")
    Optional<String> rulesAsOf(long environment, Instant moment);
}
