package dev.paseo.service.witness;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ToldHeadMapper {

    record HandedRow(long size, Instant at) {}

    record LineRow(long size, String line) {}

    @Select("select size, at from told_head order by size desc limit 1")
    Optional<HandedRow> newest();

    /** For the one replica that is first. */
    @Insert("insert ignore into told_head (size, at, line) values (#{size}, #{now}, #{line})")
    int tell(long size, Instant now, String line);

    @Select("select size, line from told_head where written_at is null order by size limit 1000")
    List<LineRow> unwritten();

    @Update("update told_head set written_at = #{now} where size = #{size} and written_at is null")
    int written(long size, Instant now);

    @Select("select size, written_at at from told_head where written_at is not null order by size desc limit 1")
    Optional<HandedRow> newestWritten();
}
