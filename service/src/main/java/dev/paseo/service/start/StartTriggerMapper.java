package dev.paseo.service.start;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface StartTriggerMapper {

    record Row(long component, int position, String kind, String source, String environment, @Nullable String cron,
            @Nullable String zone,
            @Nullable Instant nextAt) {}

    record Edge(String source, String component, String kind, String environment) {}

    record Stale(long component, long file) {}

    record Due(long component, int position, String cron, String zone, Instant nextAt) {}

    @Delete("delete from start_trigger where component_id = #{component}")
    int drop(long component);

    @Insert("""
            insert into start_trigger (component_id, position, kind, source, environment, cron, zone, next_at)
            values (#{component}, #{position}, #{kind}, #{source}, #{environment}, #{cron}, #{zone}, #{nextAt})""")
    int add(Row row);

    @Update("update component set triggers_file_id = #{file} where id = #{component}")
    int refreshed(long component, long file);

    /** Components whose main branch has another file than the one whose triggers are in force. */
    @Select("""
            select c.id as component, h.pipeline_file_id as file from component c
            join head h on h.component_id = c.id and h.branch = c.main_branch
            where h.pipeline_file_id is not null and c.retired_at is null and (c.triggers_file_id is null or
              c.triggers_file_id <> h.pipeline_file_id)""")
    List<Stale> stale();

    @Select("select distinct component_id from start_trigger where source = #{source} and kind = #{kind}")
    List<Long> downstream(String source, String kind);

    @Select("""
            select distinct t.source, c.name as component, t.kind, t.environment from start_trigger t join component
              c on c.id = t.component_id
            where t.source <> ''""")
    List<Edge> edges();

    @Select("""
            select component_id as component, position, cron, zone, next_at from start_trigger
            where next_at <= #{now} order by next_at limit 50""")
    List<Due> due(Instant now);

    /** Moves a clock on; for the one caller that still finds it where it was. */
    @Update("update start_trigger set next_at = #{next} where component_id = #{component} and position = "
            + "#{position} and next_at = #{was}")
    int fire(long component, int position, Instant was, @Nullable Instant next);
}
