package dev.paseo.service.gate;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface StretchMapper {

    record StretchRow(@Nullable Instant sinceAt, long longestMicros) {}

    @Select("select since_at, longest_micros from stretch where place_id = #{place} and version_id = #{version}")
    Optional<StretchRow> of(long place, long version);

    record StretchInRow(String environment, @Nullable Instant sinceAt, long longestMicros) {}

    /** How long a version has been live in its places in these environments; without those where it never was. */
    @Select("""
            <script>select e.name as environment, s.since_at, s.longest_micros from stretch s
              join place p on p.id = s.place_id join environment e on e.id = p.environment_id
            where s.version_id = #{version} and p.retired_at is null and e.retired_at is null and e.name in
              <foreach item="e" collection="environments" open="(" separator="," close=")">#{e}</foreach>
            </script>""")
    List<StretchInRow> in(@Param("environments") List<String> environments, @Param("version") long version);

    @Update("""
            update stretch set longest_micros = greatest(longest_micros, timestampdiff(microsecond, since_at,
              #{now})), since_at = null
            where place_id = #{place} and since_at is not null""")
    int end(long place, Instant now);

    @Insert("""
            insert into stretch (place_id, version_id, since_at) values (#{place}, #{version}, #{now})
            on duplicate key update since_at = coalesce(since_at, values(since_at))""")
    int begin(long place, long version, Instant now);

    /** Hosts that count and are unhealthy now. */
    @Select("""
            select count(*) from host_report r join place p on p.id = r.place_id join place_host ph on ph.place_id =
              p.id and ph.host_id = r.host_id
            join host h on h.id = r.host_id
            where r.place_id = #{place} and r.deployment_id = p.live_deployment_id and r.unhealthy_since is not null
              and h.maintenance is null
              and (p.live_side is null or p.live_side = ph.side)""")
    int unhealthy(long place);

    @Select("select d.version_id from place p join deployment d on d.id = p.live_deployment_id where p.id = #{place}")
    List<Long> live(long place);

    /** Gates that a stretch may open are judged again. */
    @Update("update place set wake_at = #{now} where id in (select d.place_id from deployment d where d.version_id "
            + "= #{version} and d.status = 'waiting')")
    int wake(long version, Instant now);

    @Update("update passage set wake_at = #{now} where version_id = #{version} and status = 'open'")
    int wakePassages(long version, Instant now);
}
