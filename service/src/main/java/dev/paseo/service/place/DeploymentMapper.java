package dev.paseo.service.place;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.deployment.Kind;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface DeploymentMapper {

    /** A row to be inserted; gets its id. Its state follows within the transaction. */
    final class NewDeployment {
        long id;
        final long place;
        final long version;
        final Kind kind;
        final @Nullable Long person;
        final long cause;
        final long settings;
        final Instant at;
        final @Nullable String emergency;

        NewDeployment(Deployments.Asked asked, Instant at) {
            this.place = asked.place();
            this.version = asked.version();
            this.kind = asked.kind();
            this.person = asked.person().orElse(null);
            this.cause = asked.cause();
            this.settings = asked.settings();
            this.at = at;
            this.emergency = asked.emergency().orElse(null);
        }
    }

    /** How a deployment is from now on; {@code replaces} stays as it was where it was set. */
    record Move(long id, long revision, DeploymentStatus from, DeploymentStatus status, String state,
            @Nullable String reason, @Nullable Long replaces, @Nullable Instant startedAt,
            @Nullable Instant liveAt, @Nullable Instant endedAt) {}

    String COLUMNS = """
            select d.id, d.place_id, c.name as component, e.name as environment, d.version_id, v.number as version,
              d.kind, d.status, d.state, d.revision, d.replaces_id, d.subject, d.settings_revision, d.secret_revisions,
              a.name as requested_by, d.cause_id, d.reason, d.requested_at, d.started_at, d.live_at, d.ended_at,
              d.emergency_reason, d.promotion_id
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
            join environment e on e.id = p.environment_id join version v on v.id = d.version_id
            left join account a on a.id = d.requested_by
            """;

    @Select("select id from place where id = #{id} for update")
    long lock(long id);

    @Insert("""
            insert into deployment (place_id, version_id, kind, status, state, format, revision, settings_revision,
              secret_revisions,
              requested_by, cause_id, requested_at, emergency_reason)
            values (#{place}, #{version}, #{kind}, 'waiting', '{}', 2, 0, #{settings}, '{}', #{person}, #{cause},
              #{at}, #{emergency})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewDeployment deployment);

    @Select(COLUMNS + "where d.id = #{id}")
    Optional<Deployment> byId(long id);

    @Select("select id, place_id, version_id, status, replaces_id from deployment where id = #{id}")
    Deployments.Brief brief(long id);

    /** Those that have not ended, and the live one. */
    @Select(COLUMNS + """
            where d.place_id = #{place} and d.status in ('waiting', 'queued', 'deploying', 'checking', 'undoing')
               or d.id = (select l.live_deployment_id from place l where l.id = #{place}) order by d.id""")
    List<Deployment> open(long place);

    /** What a list of deployments is to have; empty: all. */
    record FilterRow(@Nullable String component, @Nullable String environment, @Nullable DeploymentStatus status,
            @Nullable String by, @Nullable Instant since, @Nullable Instant until, long before, @Nullable Long after,
            int limit) {}

    /** The oldest first after one, else the newest. */
    @Select("<script>" + COLUMNS + """
            where d.id &lt; #{before}
            <if test="after != null">and d.id &gt; #{after}</if>
            <if test="status != null">and d.status = #{status}</if>
            <if test="component != null">and c.name = #{component}</if>
            <if test="environment != null">and e.name = #{environment}</if>
            <if test="by != null">and a.name = #{by}</if>
            <if test="since != null">and d.requested_at &gt;= #{since}</if>
            <if test="until != null">and d.requested_at &lt; #{until}</if>
            order by d.id <if test="after == null">desc</if> limit #{limit}
            </script>""")
    List<Deployment> list(FilterRow filter);

    @Select(COLUMNS + "where d.version_id = #{version} order by d.id")
    List<Deployment> ofVersion(long version);

    @Select(COLUMNS + "where d.place_id = #{place} order by d.id desc limit #{limit}")
    List<Deployment> newest(long place, int limit);

    @Update("""
            update deployment set status = #{status}, state = #{state}, format = 2, reason = #{reason}, revision =
              revision + 1,
              replaces_id = coalesce(replaces_id, #{replaces}), started_at = #{startedAt}, live_at = #{liveAt},
                ended_at = #{endedAt}
            where id = #{id} and revision = #{revision} and status = #{from}""")
    int move(Move move);

    @Update("update deployment set subject = #{subject}, settings_revision = #{settings}, secret_revisions = "
            + "#{secrets} where id = #{id}")
    int begins(long id, String subject, long settings, String secrets);

    @Update("""
            update place set live_deployment_id = #{deployment}, live_side = coalesce(#{side}, live_side), revision =
              revision + 1
            where id = #{place} and live_deployment_id <=> #{from}""")
    int live(long place, @Nullable Long from, @Nullable Long deployment, @Nullable String side);

    @Select("select e.temporary from place p join environment e on e.id = p.environment_id where p.id = #{place}")
    boolean temporary(long place);

    /** It is live again: what had replaced it was taken back. */
    @Update("update deployment set status = 'live', ended_at = null, revision = revision + 1 where id = #{id} and "
            + "status = 'replaced'")
    int again(long id);

    @Update("update live_stretch set to_at = #{now} where place_id = #{place} and to_at is null")
    int endStretch(long place, Instant now);

    @Insert("""
            insert into live_stretch (place_id, environment_id, deployment_id, version_id, from_at)
            select p.id, p.environment_id, d.id, d.version_id, #{now} from deployment d
              join place p on p.id = d.place_id
            where d.id = #{deployment}""")
    int beginStretch(long deployment, Instant now);

    record PastRow(long id, long versionId, String version, Kind kind, DeploymentStatus status,
            @Nullable Long replacesId, boolean blocked, long line, long lineOrder) {}

    /** What was live there, the newest first. */
    @Select("""
            select d.id, d.version_id, v.number as version, d.kind, d.status, d.replaces_id, v.blocked_at is not null
              as blocked, v.line_id as line, v.line_order as line_order
            from deployment d join version v on v.id = d.version_id
            where d.place_id = #{place} and d.live_at is not null order by d.live_at desc, d.id desc limit 500""")
    List<PastRow> past(long place);

    @Update("update place set wake_at = #{at} where id = #{place}")
    int wakeAt(long place, @Nullable Instant at);

    @Select("select id from place where wake_at <= #{now} order by wake_at limit 50")
    List<Long> due(Instant now);

    @Update("update live_interval set to_at = #{now} where host_id = #{host} and component_id = #{component} and "
            + "to_at is null")
    int closeInterval(long host, long component, Instant now);

    @Insert("""
            insert into live_interval (host_id, component_id, version_id, deployment_id, from_at)
            select #{host}, #{component}, version_id, id, #{now} from deployment where id = #{deployment}""")
    int openInterval(long host, long component, long deployment, Instant now);

    @Insert("insert into host_doubt (place_id, host_id, deployment_id, since_at) values (#{place}, #{host}, "
            + "#{deployment}, #{now})")
    int doubt(long place, long host, long deployment, Instant now);

    @Delete("delete from host_doubt where place_id = #{place} and host_id = #{host}")
    int endDoubt(long place, long host);

    record HostNowRow(long id, String host, @Nullable Long has, @Nullable Instant since, @Nullable Long lost,
            @Nullable Instant lostSince) {}

    /** What each host of a place has: the deployment that gave it, or the one that ended half way. */
    @Select("""
            select h.id, h.name as host, d.id as has, i.from_at as since, u.deployment_id as lost, u.since_at as
              lost_since
            from place p join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
            left join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.to_at is null
            left join deployment d on d.id = i.deployment_id and d.place_id = p.id
            left join host_doubt u on u.place_id = p.id and u.host_id = h.id
            where p.id = #{place}""")
    List<HostNowRow> hostsNow(long place);

    /** What a deployment replaced when it began. */
    record ReplacedRow(long by, long deployment, String version, long line, long lineOrder) {}

    @Select("""
            <script>select n.id as `by`, d.id as deployment, v.number as version, v.line_id as line, v.line_order as
              line_order
            from deployment n join deployment d on d.id = n.replaces_id join version v on v.id = d.version_id
            where n.id in <foreach collection='ids' item='id' open='(' separator=','
              close=')'>#{id}</foreach></script>""")
    List<ReplacedRow> replaced(@Param("ids") List<Long> ids);

    @Select("select exists (select 1 from host_doubt where place_id = #{place} and host_id = #{host})")
    boolean inDoubt(long place, long host);

    record DoubtRow(String host, long deploymentId, Instant since) {}

    /** The hosts of a place of which nobody knows what they have. */
    @Select("select h.name as host, d.deployment_id, d.since_at as since from host_doubt d join host h on h.id = "
            + "d.host_id where d.place_id = #{place}")
    List<DoubtRow> doubts(long place);

    @Select("""
            select d.id from deployment d join version v on v.id = d.version_id
            where d.place_id = #{place} and d.status in ('waiting', 'queued') and v.blocked_at is not null""")
    List<Long> aheadAndBlocked(long place);

    @Select("select number from version where id = #{version}")
    String numberOf(long version);

    @Insert("insert into review (deployment_id, due_at) values (#{deployment}, #{due})")
    int review(long deployment, Instant due);

    /** @param reason what was loosened; null for an emergency */
    record ToReviewRow(Instant dueAt, @Nullable String reason, @Nullable String loosenedBy, @Nullable Instant doneAt) {}

    @Select("select r.due_at, r.reason, a.name as loosened_by, r.done_at from review r left join account a on a.id "
            + "= r.loosened_by where r.deployment_id = #{deployment}")
    Optional<ToReviewRow> toReview(long deployment);

    @Update("update review set done_at = #{now}, done_by = #{by}, comment = #{comment} where deployment_id = "
            + "#{deployment} and done_at is null")
    int reviewed(long deployment, long by, String comment, Instant now);

    /** What was answered when a run was started; JSON. */
    @Select("select answers from run where component_id = #{component} and number = #{number}")
    Optional<String> answers(long component, long number);

    record HostContentRow(String host, String version, long settingsRevision, String secretRevisions) {}

    /** What was deployed to each host of a place that has something. */
    @Select("""
            select h.name as host, v.number as version, d.settings_revision, d.secret_revisions
            from place p join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
            join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.to_at is null
            join deployment d on d.id = i.deployment_id join version v on v.id = i.version_id
            where p.id = #{place} and d.place_id = p.id""")
    List<HostContentRow> contents(long place);

    record HostLiveRow(String host, @Nullable String version, @Nullable Instant since) {}

    @Select("""
            select h.name as host, v.number as version, i.from_at as since
            from place p join place_host ph on ph.place_id = p.id join host h on h.id = ph.host_id
            left join live_interval i on i.host_id = h.id and i.component_id = p.component_id and i.to_at is null
            left join version v on v.id = i.version_id
            where p.id = #{place} order by ph.position""")
    List<HostLiveRow> hostsLive(long place);
}
