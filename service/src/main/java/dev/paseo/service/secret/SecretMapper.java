package dev.paseo.service.secret;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface SecretMapper {

    record RevisionRow(long id, byte[] ciphertext, byte[] dataKey) {}

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

    @Insert("insert ignore into secret (name, component_id, environment_id) values (#{name}, #{component}, #{environment})")
    int add(String name, long component, long environment);

    @Select("select id from secret where name = #{name} and component_id = #{component} and environment_id = #{environment} for update")
    long lock(String name, long component, long environment);

    @Insert("""
            insert into secret_revision (secret_id, ciphertext, data_key, set_by, at)
            values (#{secret}, #{ciphertext}, #{dataKey}, #{by}, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int addRevision(NewRevision revision);

    /** The newest value, the narrowest scope first: component and environment, component, environment, everywhere. */
    @Select("""
            select r.id, r.ciphertext, r.data_key from secret s join secret_revision r on r.secret_id = s.id
            where s.name = #{name} and s.component_id in (0, #{component}) and s.environment_id in (0, #{environment})
            order by s.component_id = 0, s.environment_id = 0, r.id desc limit 1""")
    Optional<RevisionRow> newest(String name, long component, long environment);

    /** The newest value that is set for this environment itself. */
    @Select("""
            select r.id, r.ciphertext, r.data_key from secret s join secret_revision r on r.secret_id = s.id
            where s.name = #{name} and s.component_id in (0, #{component}) and s.environment_id = #{environment}
            order by s.component_id = 0, r.id desc limit 1""")
    Optional<RevisionRow> newestOf(String name, long component, long environment);

    @Select("select id, ciphertext, data_key from secret_revision where id = #{id}")
    Optional<RevisionRow> revision(long id);

    @Insert("insert ignore into secret_access (component_id, name) values (#{component}, #{name})")
    int open(long component, String name);

    @Select("select count(*) from secret_access where component_id = #{component} and name = #{name}")
    int opened(long component, String name);
}
