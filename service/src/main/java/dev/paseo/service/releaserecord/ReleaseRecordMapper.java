package dev.paseo.service.releaserecord;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface ReleaseRecordMapper {

    record PromotionRow(long id, String name, String environment, String by, String comment, Instant requestedAt) {}

    @Select("""
            select p.id, s.name, e.name as environment, a.name as `by`, p.comment, p.requested_at
            from set_promotion p join version_set s on s.id = p.set_id join environment e on e.id = p.environment_id
            join account a on a.id = p.requested_by where p.id = #{id}""")
    Optional<PromotionRow> promotion(long id);

    @Select("select id from deployment where promotion_id = #{promotion} order by id")
    List<Long> ofPromotion(long promotion);

    /** What went live, or ended without having done so, the oldest first. */
    @Select("""
            select d.id from deployment d join place p on p.id = d.place_id
            where p.environment_id = #{environment}
              and (d.live_at >= #{since} and d.live_at < #{until}
                or d.live_at is null and d.ended_at >= #{since} and d.ended_at < #{until})
            order by coalesce(d.live_at, d.ended_at), d.id limit #{limit}""")
    List<Long> ofPeriod(long environment, Instant since, Instant until, int limit);

    record OriginRow(long version, @Nullable String repository, @Nullable String summary) {}

    /** Where the commit of a version is from, and the first line of its message. */
    @Select("""
            select v.id as version, c.repository, r.commit_summary as summary
            from version v join component c on c.id = v.component_id
            left join run r on r.id = v.run_id where v.id = #{version}""")
    OriginRow origin(long version);

    /** @param version what was live there at that moment */
    record ThereRow(String component, long version) {}

    @Select("""
            select c.name as component, s.version_id as version from live_stretch s join place p on p.id = s.place_id
            join component c on c.id = p.component_id
            where p.environment_id = #{environment} and s.from_at <= #{moment}
              and (s.to_at is null or s.to_at > #{moment})
            order by c.name""")
    List<ThereRow> live(long environment, Instant moment);
}
