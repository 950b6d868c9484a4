package dev.paseo.service.agent;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface LogMapper {

    record BlockRow(long firstLine, long lineCount, String digest, int step) {}

    @Insert("insert ignore into log_block (work_id, first_line, line_count, digest, step) values (#{work}, #{first}, #{count}, #{digest}, #{step})")
    int add(long work, long first, long count, String digest, int step);

    @Select("""
            select coalesce((select first_line + line_count from log_block where work_id = #{work} order by first_line desc limit 1), 1)""")
    long nextLine(long work);

    @Select("""
            select first_line, line_count, digest, step from log_block
            where work_id = #{work} and first_line >= coalesce(
              (select first_line from log_block where work_id = #{work} and first_line <= #{from} order by first_line desc limit 1), 1)
            order by first_line limit 64""")
    List<BlockRow> blocks(long work, long from);

    /** All blocks of a log, in their order. */
    @Select("select first_line, line_count, digest, step from log_block where work_id = #{work} order by first_line")
    List<BlockRow> all(long work);
}
