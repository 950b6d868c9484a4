package dev.paseo.service.set;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.SetCourse;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SetMapper {

    /** A row to be inserted; gets its id. */
    final class NewSet {
        long id;
        final String name;
        final long by;
        final Instant at;

        NewSet(String name, long by, Instant at) {
            this.name = name;
            this.by = by;
            this.at = at;
        }
    }

    /** A row to be inserted; gets its id. */
    final class NewPromotion {
        long id;
        final long set;
        final long environment;
        final long by;
        final String comment;
        final Instant at;

        NewPromotion(long set, long environment, long by, String comment, Instant at) {
            this.set = set;
            this.environment = environment;
            this.by = by;
            this.comment = comment;
            this.at = at;
        }
    }

    record SetRow(long id, String name, @Nullable String by, Instant at) {}

    @Select("select s.id, s.name, a.name as `by`, s.created_at as at from version_set s left join account a on a.id "
            + "= s.created_by order by s.id desc limit 200")
    List<SetRow> all();

    @Select("select s.id, s.name, a.name as `by`, s.created_at as at from version_set s left join account a on a.id "
            + "= s.created_by where s.name = #{name}")
    Optional<SetRow> named(String name);

    @Select("select s.id, s.name, a.name as `by`, s.created_at as at from version_set s left join account a on a.id "
            + "= s.created_by where s.id = #{id}")
    SetRow byId(long id);

    @Insert("insert into version_set (name, created_at, created_by) values (#{name}, #{at}, #{by})")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewSet set);

    @Insert("insert into version_set_member (set_id, version_id, position) values (#{set}, #{version}, #{position})")
    int addMember(long set, long version, int position);

    @Select("select version_id from version_set_member where set_id = #{set} order by position")
    List<Long> members(long set);

    record PromotionRow(long id, long setId, long environmentId, String environment, SetCourse.Status status, String by,
            long accountId, String comment, Instant requestedAt, @Nullable Instant endedAt) {}

    String COLUMNS = """
            select p.id, p.set_id, p.environment_id, e.name as environment, p.status, a.name as `by`, a.id as
              account_id, p.comment, p.requested_at, p.ended_at
            from set_promotion p join environment e on e.id = p.environment_id join account a on a.id = p.requested_by
            """;

    @Select(COLUMNS + "where p.id = #{id}")
    PromotionRow promotion(long id);

    @Select(COLUMNS + "where p.set_id = #{set} order by p.id desc")
    List<PromotionRow> promotions(long set);

    @Insert("""
            insert into set_promotion (set_id, environment_id, status, requested_by, comment, requested_at)
            values (#{set}, #{environment}, 'waiting', #{by}, #{comment}, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int promote(NewPromotion promotion);

    @Select("select id from version_set where id = #{id} for update")
    long lockSet(long id);

    @Select("select id from set_promotion where id = #{id} for update")
    long lock(long id);

    @Update("update set_promotion set status = #{status}, ended_at = #{ended} where id = #{id}")
    int moved(long id, SetCourse.Status status, @Nullable Instant ended);

    /** What each member was when the set's gate opened, by component, as JSON. */
    @Update("update set_promotion set subjects = #{subjects} where id = #{id} and subjects is null")
    int approved(long id, String subjects);

    @Select("select subjects from set_promotion where id = #{id} and subjects is not null")
    Optional<String> subjects(long id);

    record MemberRow(long versionId, long deployment, DeploymentStatus status, @Nullable String reason) {}

    /** The deployments of a promotion, by version. */
    @Select("select version_id, id as deployment, status, reason from deployment where promotion_id = #{promotion} "
            + "order by id")
    List<MemberRow> deployments(long promotion);

    @Update("update deployment set promotion_id = #{promotion}, set_id = #{set} where id = #{deployment}")
    int belongs(long deployment, long promotion, long set);
}
