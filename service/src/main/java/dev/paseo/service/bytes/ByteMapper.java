package dev.paseo.service.bytes;

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
interface ByteMapper {

    @Insert("insert ignore into byte_object (digest, size, arrived_at) values (#{digest}, #{size}, #{at})")
    int arrived(String digest, long size, Instant at);

    @Insert("insert ignore into byte_reference (digest, owner_kind, owner_id) values (#{digest}, #{kind}, #{owner})")
    int refer(String digest, String kind, long owner);

    @Insert("insert ignore into damaged_bytes (digest, found, found_at) values (#{wanted}, #{found}, #{now})")
    int damaged(String wanted, String found, Instant now);

    @Delete("delete from damaged_bytes where digest = #{digest}")
    int mended(String digest);

    @Select("select count(*) from damaged_bytes")
    int damagedCount();

    /** The versions that these bytes are an artifact of, or that bring them for their recipe. */
    @Select("""
            select distinct concat(c.name, ' ', v.number) from version v join component c on c.id = v.component_id
            where v.id in (select a.version_id from version_artifact a where a.digest = #{digest}) or v.bundle =
              #{digest} order by 1""")
    List<String> versionsWith(String digest);

    record DueRow(String digest, @Nullable Instant scrubbedAt) {}

    @Select("select digest, scrubbed_at from byte_object where scrubbed_at is null or scrubbed_at < #{before} order "
            + "by scrubbed_at limit 1")
    Optional<DueRow> due(Instant before);

    @Update("update byte_object set scrubbed_at = #{now} where digest = #{digest} and scrubbed_at <=> #{before}")
    int scrubbed(String digest, @Nullable Instant before, Instant now);

    @Select("select count(*) from byte_reference where digest = #{digest} and owner_kind = #{kind}")
    int referred(String digest, String kind);
}
