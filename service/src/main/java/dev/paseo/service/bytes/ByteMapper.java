package dev.paseo.service.bytes;

import java.time.Instant;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;

@Mapper
interface ByteMapper {

    @Insert("insert ignore into byte_object (digest, size, arrived_at) values (#{digest}, #{size}, #{at})")
    int arrived(String digest, long size, Instant at);

    @Insert("insert ignore into byte_reference (digest, owner_kind, owner_id) values (#{digest}, #{kind}, #{owner})")
    int refer(String digest, String kind, long owner);
}
