package dev.paseo.service.trigger;

import dev.paseo.core.run.RunStatus;
import dev.paseo.core.text.Shortened;
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
interface EventMapper {

    /** A row to be inserted; gets its id. */
    final class NewEvent {
        long id;
        final long component;
        final String kind;
        final @Nullable String key;
        final @Nullable String branch;
        final @Nullable String commit;
        final String sentence;
        final String actor;
        final @Nullable String reason;
        final boolean told;
        final Instant at;

        NewEvent(Happened happened, @Nullable String reason, Instant at) {
            this.component = happened.about().id();
            this.kind = happened.kind();
            this.key = happened.key().orElse(null);
            this.branch = happened.branch().map(name -> Shortened.to(name, 200)).orElse(null);
            this.commit = happened.commit().orElse(null);
            this.sentence = Shortened.to(happened.sentence(), 700);
            this.actor = Shortened.to(happened.by(), 200);
            this.reason = reason == null ? null : Shortened.to(reason, 2000);
            this.told = happened.told();
            this.at = at;
        }
    }

    record EventRow(long id, String component, String kind, @Nullable String branch, @Nullable String commitId,
            String sentence, String actor,
            @Nullable Long causeId, @Nullable String reason, Instant at) {}

    record ConsideredRow(long eventId, String component, int position, String words, @Nullable Long runNumber,
            @Nullable String reason) {}

    @Insert("""
            insert ignore into trigger_event (component_id, kind, event_key, branch, commit_id, sentence, actor,
              reason, told, at)
            values (#{component}, #{kind}, #{key}, #{branch}, #{commit}, #{sentence}, #{actor}, #{reason}, #{told},
              #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewEvent event);

    /** Somebody tells who pushed it, after it was noticed; as long as nobody has. */
    @Update("""
            update trigger_event set actor = #{by}, told = true
            where component_id = #{component} and kind = 'push' and branch = #{branch} and commit_id = #{commit} and
              not told and at >= #{since}""")
    int tell(long component, String branch, String commit, String by, Instant since);

    /** The branches to which somebody pushed a commit, nobody told who. */
    @Select("select distinct branch from trigger_event where component_id = #{component} and kind = 'push' and "
            + "commit_id = #{commit} and not told")
    List<String> untold(long component, String commit);

    @Update("update trigger_event set cause_id = #{cause} where id = #{id}")
    int because(long id, long cause);

    @Update("update trigger_event set sentence = concat(left(sentence, 600), #{more}) where id = #{id}")
    int say(long id, String more);

    @Insert("""
            insert into considered (event_id, component_id, source_id, position, words, run_id, reason)
            values (#{event}, #{component}, #{source}, #{position}, #{words}, #{run}, #{reason})""")
    int consider(long event, long component, long source, int position, String words, @Nullable Long run,
            @Nullable String reason);

    String EVENTS = """
            select e.id, c.name as component, e.kind, e.branch, e.commit_id, e.sentence, e.actor, e.cause_id,
              e.reason, e.at
            from trigger_event e join component c on c.id = e.component_id
            """;

    /** What happened to a component, or elsewhere with its triggers considered; the newest first. */
    @Select(EVENTS + """
            where e.id < #{before} and e.id in (
              select id from (select id from trigger_event where component_id = #{component} and id < #{before} order
                by id desc limit #{limit}) own
              union select event_id from (select distinct event_id from considered where component_id = #{component}
                and event_id < #{before}
                order by event_id desc limit #{limit}) elsewhere)
            order by e.id desc limit #{limit}""")
    List<EventRow> newest(long component, long before, int limit);

    @Select(EVENTS
            + "where e.component_id = #{component} and e.commit_id like concat(#{commit}, '%') order by e.id desc "
            + "limit #{limit}")
    List<EventRow> ofCommit(long component, String commit, int limit);

    /**
     * What is asked of events; null: nothing.
     *
     * @param started whether a run was started by it
     */
    record EventsAsked(@Nullable Long component, @Nullable String label, @Nullable String kind,
            @Nullable String branch, @Nullable String by, @Nullable Boolean started, @Nullable Instant since,
            @Nullable Instant until, long before, @Nullable Long after, int limit) {}

    /** Those of all components: the oldest first after one, else the newest. */
    @Select("<script>" + EVENTS + """
            where e.id &lt; #{before}
            <if test="after != null">and e.id &gt; #{after}</if>
            <if test="component != null">and e.component_id = #{component}</if>
            <if test="label != null">and exists (select 1 from component_label l
              where l.component_id = e.component_id and l.value = #{label})</if>
            <if test="kind != null">and e.kind = #{kind}</if>
            <if test="branch != null">and e.branch = #{branch}</if>
            <if test="by != null">and e.actor = #{by}</if>
            <if test="started != null">and #{started} = exists (select 1 from considered d
              where d.event_id = e.id and d.run_id is not null)</if>
            <if test="since != null">and e.at &gt;= #{since}</if>
            <if test="until != null">and e.at &lt; #{until}</if>
            order by e.id <if test="after == null">desc</if> limit #{limit}
            </script>""")
    List<EventRow> asked(EventsAsked asked);

    @Select(EVENTS + "where e.id = #{id}")
    Optional<EventRow> byId(long id);

    @Select("""
            <script>
            select d.event_id, c.name as component, d.position, d.words, r.number as run_number, d.reason
            from considered d join component c on c.id = d.component_id left join run r on r.id = d.run_id
            where d.event_id in <foreach collection="events" item="event" open="(" separator=","
              close=")">#{event}</foreach>
            order by d.event_id, c.name, d.position
            </script>""")
    List<ConsideredRow> considered(List<Long> events);

    // What upstream components offer, and what was used of it

    record EndedRow(long id, long componentId, long number, String branch, String commitId, RunStatus status,
            long revision, long causeId,
            @Nullable Long versionId, @Nullable String versionNumber) {}

    @Select("""
            select r.id, r.component_id, r.number, r.branch, r.commit_id, r.status, r.revision, r.cause_id, v.id as
              version_id, v.number as version_number
            from run r left join version v on v.run_id = r.id or v.id = r.arrived_version_id where r.id = #{id}""")
    EndedRow ended(long id);

    @Select("select commit_id from run where component_id = #{component} and branch = #{branch} order by number "
            + "desc limit 1")
    Optional<String> lastStarted(long component, String branch);

    record SealedRow(long id, String number, String branch) {}

    @Select("""
            select v.id, v.number, l.branch from version v join line l on l.id = v.line_id
            where v.component_id = #{component} and v.blocked_at is null order by v.id desc limit #{limit}""")
    List<SealedRow> sealed(long component, int limit);

    @Select("select number from version where component_id = #{component} and commit_id = #{commit} and blocked_at "
            + "is null order by id desc limit 1")
    Optional<String> sealedFrom(long component, String commit);

    @Insert("""
            insert ignore into version_name (component_id, name, version_id)
            select component_id, #{name}, id from version where component_id = #{component} and number = #{number}""")
    int name(long component, String name, String number);

    record UsedRow(long componentId, long versionId) {}

    /** The newest version of each other component that the runs of a line have used. */
    @Select("""
            select component_id, max(version_id) as version_id from (
              select u.component_id, u.version_id from run_upstream u join run r on r.id = u.run_id where r.line_id =
                #{line}
              union all select v.component_id, v.id as version_id from run_take t join run r on r.id = t.run_id join
                version v on v.id = t.version_id
              where r.line_id = #{line}) used group by component_id""")
    List<UsedRow> used(long line);

    record LineageRow(long root, String component, String number) {}

    /** What a version was built from, at any remove. */
    @Select("""
            <script>
            with recursive built as (
              select v.id as root, v.id as version_id, v.run_id, 0 as depth from version v
              where v.id in <foreach collection="versions" item="id" open="(" separator="," close=")">#{id}</foreach>
              union
              select b.root, v.id, v.run_id, b.depth + 1 from built b
              join (select run_id, version_id from run_take union select run_id, version_id from run_upstream) used
                on used.run_id = b.run_id
              join version v on v.id = used.version_id where b.depth &lt; 20)
            select distinct b.root, c.name as component, v.number from built b join version v on v.id = b.version_id
              join component c on c.id = v.component_id
            where b.depth > 0
            </script>""")
    List<LineageRow> lineage(List<Long> versions);
}
