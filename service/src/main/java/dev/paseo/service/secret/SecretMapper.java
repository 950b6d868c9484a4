package dev.paseo.service.secret;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SecretMapper {

    /** A value with all that it is bound to; {@code number} counts the values of its secret, from 1. */
    record RevisionRow(long id, byte[] ciphertext, byte[] dataKey, String name, long componentId, long environmentId,
            long hostId, int number) {

        String bound() {
            return bound(name, componentId, environmentId, hostId, number);
        }

        static String bound(String name, long component, long environment, long host, int number) {
            return "paseo secret 1\n" + name + "\n" + component + "\n" + environment + "\n" + host + "\n" + number;
        }
    }

    String SELECT = "select r.id, r.ciphertext, r.data_key, s.name, s.component_id, s.environment_id, s.host_id, "
            + "(select count(*) from secret_revision x where x.secret_id = r.secret_id and x.id <= r.id) as number "
            + "from secret s join secret_revision r on r.secret_id = s.id ";

    /** A row to be inserted; gets its id. */
    final class NewRevision {
        long id;
        final long secret;
        final byte[] ciphertext;
        final byte[] dataKey;
        final @Nullable Long by;
        final Instant at;

        NewRevision(long secret, byte[] ciphertext, byte[] dataKey, @Nullable Long by, Instant at) {
            this.secret = secret;
            this.ciphertext = ciphertext;
            this.dataKey = dataKey;
            this.by = by;
            this.at = at;
        }
    }

    record ReachRow(@Nullable String component, @Nullable String environment, @Nullable String host) {}

    @Insert("insert ignore into secret (name, component_id, environment_id, host_id) values (#{name}, #{component}, "
            + "#{environment}, #{host})")
    int add(String name, long component, long environment, long host);

    /** Where values of a name are set, or may be. */
    @Select("""
            select c.name as component, e.name as environment, h.name as host from secret s
            left join component c on c.id = s.component_id left join environment e on e.id = s.environment_id left
              join host h on h.id = s.host_id
            where s.name = #{name}""")
    List<ReachRow> reaches(String name);

    @Select("select id from secret where name = #{name} and component_id = #{component} and environment_id = "
            + "#{environment} and host_id = #{host} for update")
    long lock(String name, long component, long environment, long host);

    @Insert("""
            insert into secret_revision (secret_id, ciphertext, data_key, bound, set_by, at)
            values (#{secret}, #{ciphertext}, #{dataKey}, true, #{by}, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int addRevision(NewRevision revision);

    @Select("select count(*) from secret_revision where secret_id = #{secret}")
    int count(long secret);

    /** Values that were sealed before they were bound to anything. */
    @Select(SELECT + "where not r.bound order by r.id limit 500 for update")
    List<RevisionRow> unbound();

    @Update("update secret_revision set ciphertext = #{ciphertext}, data_key = #{dataKey}, bound = true where id = "
            + "#{id}")
    int bind(long id, byte[] ciphertext, byte[] dataKey);

    @Delete("delete r from secret_revision r join secret s on s.id = r.secret_id where s.name = #{name} and "
            + "s.component_id = #{component} and s.environment_id = 0")
    int forget(String name, long component);

    /**
     * The newest value, the narrowest scope first: component and environment, component, environment, everywhere; not
     * those of one host. For a preview only what was given to it counts: the recipe of its branch may name anything.
     */
    @Select(SELECT + """
            where s.name = #{name} and s.component_id in (0, #{component}) and s.environment_id in (0,
              #{environment}) and s.host_id = 0
              and (s.environment_id = #{environment} or not exists (select 1 from preview p where p.environment_id =
                #{environment}))
            order by s.component_id = 0, s.environment_id = 0, r.id desc limit 1""")
    Optional<RevisionRow> newest(String name, long component, long environment);

    /** The newest value that is set for this environment itself. */
    @Select(SELECT + """
            where s.name = #{name} and s.component_id in (0, #{component}) and s.environment_id = #{environment} and
              s.host_id = 0
            order by s.component_id = 0, r.id desc limit 1""")
    Optional<RevisionRow> newestOf(String name, long component, long environment);

    String IN_FORCE = """
            select name, null as host, id from (
              select s.name, r.id, row_number() over (partition by s.name
                order by s.component_id = 0, s.environment_id = 0, r.id desc) as nth
              from secret s join secret_revision r on r.secret_id = s.id
              where s.name in <foreach item="n" collection="names" open="(" separator="," close=")">#{n}</foreach>
                and s.component_id in (0, #{component}) and s.environment_id in (0, #{environment}) and s.host_id = 0
                and (s.environment_id = #{environment} or not exists (
                  select 1 from preview p where p.environment_id = #{environment}))) t
            where nth = 1
            """;

    String OF_HOSTS = """
            select s.name, h.name as host, max(r.id) as id from secret s join secret_revision r on r.secret_id = s.id
              join host h on h.id = s.host_id
            where s.name in <foreach item="n" collection="names" open="(" separator="," close=")">#{n}</foreach>
              and s.component_id = #{component} and s.environment_id = #{environment} and s.host_id != 0
            group by s.name, h.name
            """;

    /** @param host of whose own it is; absent: of all others */
    record InForceRow(String name, @Nullable String host, long id) {}

    /** Of each name the revision that {@link #newest} takes; those without a value are left out. */
    @Select("<script>" + IN_FORCE + "</script>")
    List<InForceRow> inForce(@Param("names") List<String> names, @Param("component") long component,
            @Param("environment") long environment);

    /** The same with the newest revisions for each host that has a value of its own there. */
    @Select("<script>" + IN_FORCE + " union all " + OF_HOSTS + "</script>")
    List<InForceRow> inForceWithHosts(@Param("names") List<String> names, @Param("component") long component,
            @Param("environment") long environment);

    record SetRow(String name, @Nullable String component, @Nullable String environment, @Nullable String host,
            int revisions, @Nullable String by, Instant at) {}

    /** What is set where: never a value, and not what the service keeps for itself, whose names are no variables'. */
    @Select("""
            select s.name, c.name as component, e.name as environment, h.name as host,
              (select count(*) from secret_revision x where x.secret_id = s.id) as revisions, a.name as `by`, r.at
            from secret s join secret_revision r on r.id = (select max(x.id) from secret_revision x where x.secret_id
              = s.id)
            left join component c on c.id = s.component_id left join environment e on e.id = s.environment_id left
              join host h on h.id = s.host_id
            left join account a on a.id = r.set_by where s.name not like 'PASEO\\_%'
            order by s.name, c.name, e.name, h.name""")
    List<SetRow> all();

    @Select(SELECT + "where r.id > #{after} order by r.id limit 500 for update")
    List<RevisionRow> after(long after);

    @Update("update secret_revision set data_key = #{dataKey} where id = #{id}")
    int wrap(long id, byte[] dataKey);

    @Select(SELECT + "where r.id = #{id}")
    Optional<RevisionRow> revision(long id);

    record ToldRow(int number, @Nullable String by, Instant at) {}

    /** Which of its secret's values a revision is, who set it and when. */
    @Select("""
            select (select count(*) from secret_revision x where x.secret_id = r.secret_id and x.id <= r.id) as
              number, a.name as `by`, r.at
            from secret_revision r left join account a on a.id = r.set_by where r.id = #{id}""")
    Optional<ToldRow> told(long id);

    @Insert("insert ignore into secret_access (component_id, name) values (#{component}, #{name})")
    int open(long component, String name);

    @Delete("delete from secret_access where component_id = #{component} and name = #{name}")
    int close(long component, String name);

    @Select("select id from component")
    List<Long> components();

    @Select("select id from component where id = #{component} for update")
    long lockComponent(long component);

    @Select("select name from secret_access where component_id = #{component} order by name")
    List<String> given(long component);

    /** @param valued whether the component's stages are given a value of it */
    record OpenedRow(long componentId, String name, boolean valued) {}

    /** What every component's files may name. */
    @Select("""
            select a.component_id, a.name, exists (
              select 1 from secret s join secret_revision r on r.secret_id = s.id
              where s.name = a.name and s.component_id in (0, a.component_id) and s.environment_id = 0
                and s.host_id = 0) as valued
            from secret_access a""")
    List<OpenedRow> allOpened();

    @Select("select count(*) from secret_access where component_id = #{component} and name = #{name}")
    int opened(long component, String name);
}
