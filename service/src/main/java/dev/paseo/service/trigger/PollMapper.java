package dev.paseo.service.trigger;

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
interface PollMapper {

    record PollRow(String repository, Instant nextAt, int failures, @Nullable String lastError,
            @Nullable String listing, @Nullable Instant lookedAt) {}

    String COLUMNS = "select repository, next_at, failures, last_error, listing, looked_at from repository_poll ";

    @Select("""
            select distinct c.repository from component c left join repository_poll p on p.repository = c.repository
            where c.repository is not null and c.retired_at is null and p.repository is null""")
    List<String> unknown();

    @Insert("insert ignore into repository_poll (repository, next_at) values (#{repository}, #{next})")
    int add(String repository, Instant next);

    @Select(COLUMNS + "where next_at <= #{now} order by next_at limit 50")
    List<PollRow> due(Instant now);

    /** For the one replica that still finds it due; another may have it if this one does not come back. */
    @Update("update repository_poll set next_at = #{until} where repository = #{repository} and next_at = #{was}")
    int claim(String repository, Instant was, Instant until);

    @Update("""
            update repository_poll set next_at = #{next}, failures = 0, last_error = null, listing = #{listing},
              looked_at = #{now}
            where repository = #{repository}""")
    int looked(String repository, Instant next, String listing, Instant now);

    @Update("update repository_poll set next_at = #{next}, failures = failures + 1, last_error = #{error} where "
            + "repository = #{repository}")
    int failed(String repository, Instant next, String error);

    @Delete("delete from repository_poll where repository = #{repository}")
    int forget(String repository);

    @Select(COLUMNS + "where repository = #{repository}")
    Optional<PollRow> of(String repository);
}
