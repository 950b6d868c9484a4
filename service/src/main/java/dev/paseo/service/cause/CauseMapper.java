package dev.paseo.service.cause;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface CauseMapper {

    /** A row to be inserted; gets its id. */
    final class NewCause {
        long id;
        final @Nullable Long parentId;
        final String kind;
        final String body;
        final Instant at;

        NewCause(@Nullable Long parentId, String kind, String body, Instant at) {
            this.parentId = parentId;
            this.kind = kind;
            this.body = body;
            this.at = at;
        }
    }

    record CauseRow(long id, String kind, String body, Instant at) {}

    @Insert("insert into cause (parent_id, kind, body, at) values (#{parentId}, #{kind}, #{body}, #{at})")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewCause cause);

    /** From this cause back to the first. */
    @Select("""
            with recursive chain as (
              select c.id, c.parent_id, c.kind, c.body, c.at, 0 as depth from cause c where c.id = #{id}
              union all
              select c.id, c.parent_id, c.kind, c.body, c.at, depth + 1 from cause c join chain on c.id =
                chain.parent_id
              where depth < 100)
            select id, kind, body, at from chain order by depth""")
    List<CauseRow> chain(long id);

    record LinkedRow(long id, @Nullable Long parentId, String kind, String body) {}

    @Select("""
            <script>
            select id, parent_id, kind, body from cause where id in <foreach collection="ids" item="id" open="("
              separator="," close=")">#{id}</foreach>
            </script>""")
    List<LinkedRow> all(List<Long> ids);
}
