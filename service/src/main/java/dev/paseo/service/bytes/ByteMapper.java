package dev.paseo.service.bytes;

import java.time.Instant;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface ByteMapper {

    @Insert("insert ignore into byte_object (digest, size, arrived_at) values (#{digest}, #{size}, #{at})")
    int arrived(String digest, long size, Instant at);

    @Insert("insert ignore into byte_reference (digest, owner_kind, owner_id) values (#{digest}, #{kind}, #{owner})")
    int refer(String digest, String kind, long owner);

    @Select("select count(*) from byte_reference where digest = #{digest} and owner_kind = #{kind}")
    int referred(String digest, String kind);
}
