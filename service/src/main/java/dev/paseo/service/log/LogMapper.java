package dev.paseo.service.log;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface LogMapper {

    record BlockRow(long firstLine, long lineCount, String digest, int step) {}

    @Insert("insert ignore into log_block (work_id, first_line, line_count, digest, step) values (#{work}, "
            + "#{first}, #{count}, #{digest}, #{step})")
    int add(long work, long first, long count, String digest, int step);

    @Select("""
            select coalesce((select first_line + line_count from log_block where work_id = #{work} order by first_line
              desc limit 1), 1)""")
    long nextLine(long work);

    @Select("""
            select first_line, line_count, digest, step from log_block
            where work_id = #{work} and first_line >= coalesce(
              (select first_line from log_block where work_id = #{work} and first_line <= #{from} order by first_line
                desc limit 1), 1)
            order by first_line limit 64""")
    List<BlockRow> blocks(long work, long from);

    /** All blocks of a log, in their order. */
    @Select("select first_line, line_count, digest, step from log_block where work_id = #{work} order by first_line")
    List<BlockRow> all(long work);

    record SpanRow(int step, long first, long last) {}

    /**
     * Which lines are of which step; the agent's own words, of step 0, stand before the first step or after the last.
     */
    @Select("""
            select step, min(first_line) as first, max(first_line + line_count - 1) as last from log_block where
              work_id = #{work}
            group by step, step = 0 and first_line > coalesce((select min(b.first_line) from log_block b where
              b.work_id = #{work} and b.step > 0), 0)
            order by first""")
    List<SpanRow> spans(long work);
}
