package dev.paseo.service.passage;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface WalkStayMapper {

    record StayRow(long versionId, String environment, String cameFrom, String reason, Instant sinceAt,
            Instant retryAt) {}

    String COLUMNS = "select s.version_id, s.environment, s.came_from, s.reason, s.since_at, s.retry_at from "
            + "walk_stay s ";

    @Select(COLUMNS + "where s.version_id = #{version} and s.environment = #{environment}")
    Optional<StayRow> of(long version, String environment);

    @Select(COLUMNS + "where s.version_id = #{version}")
    List<StayRow> ofVersion(long version);

    @Select(COLUMNS + "where s.retry_at <= #{now} order by s.retry_at limit 20")
    List<StayRow> due(Instant now);

    @Insert("""
            insert into walk_stay (version_id, environment, came_from, reason, since_at, retry_at)
            values (#{version}, #{environment}, #{from}, #{reason}, #{now}, #{retry})
            on duplicate key update reason = values(reason), retry_at = values(retry_at)""")
    int stay(long version, String environment, String from, String reason, Instant now, Instant retry);

    /** True for the one replica that tries it now. */
    @Update("update walk_stay set retry_at = #{next} where version_id = #{version} and environment = #{environment} "
            + "and retry_at = #{was}")
    int claim(long version, String environment, Instant was, Instant next);

    @Delete("delete from walk_stay where version_id = #{version} and environment = #{environment}")
    int gone(long version, String environment);

    /** Older versions of the line no longer want to go there. */
    @Delete("""
            delete s from walk_stay s join version o on o.id = s.version_id join version v on v.id = #{version}
            where s.environment = #{environment} and o.line_id = v.line_id and o.line_order < v.line_order""")
    int overtaken(long version, String environment);
}
