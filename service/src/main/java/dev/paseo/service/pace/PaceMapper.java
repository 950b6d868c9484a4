package dev.paseo.service.pace;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Lead times, and what they are made of. */
@Mapper
interface PaceMapper {

    record MadeRow(long deployment, long component, long environment, long place, String componentName,
            String environmentName, String kind, @Nullable Long replaces, @Nullable Long run,
            @Nullable Instant committed, @Nullable Instant runAsked, @Nullable Instant runBegan, Instant sealed,
            Instant requested, @Nullable Instant decided, @Nullable Instant started, Instant live) {}

    /**
     * What was decided on the way in, as {@code u}: at its own gate, or at the one onward from the environment before.
     * Each is looked up by an index of its own.
     */
    String DECISIONS = """
            (select account_id, for_account_id, yes, at from ruling
                where deployment_id = #{deployment} and taken_back_at is null
              union all select n.account_id, n.for_account_id, n.yes, n.at from deployment w
                join place t on t.id = w.place_id join environment h on h.id = t.environment_id
                join environment o on o.name = h.follows
                join passage q on q.version_id = w.version_id and q.environment_id = o.id
                join ruling n on n.passage_id = q.id and n.taken_back_at is null where w.id = #{deployment}) u
            """;

    /** Of a deployment that went live, where nothing comes and goes by itself. */
    @Select("""
            select d.id as deployment, p.component_id as component, p.environment_id as environment, p.id as place,
              c.name as component_name, e.name as environment_name, d.kind, d.replaces_id as replaces, r.id as run,
              r.committed_at as committed, r.created_at as run_asked, r.started_at as run_began,
              v.sealed_at as sealed, d.requested_at as requested, (
                select max(u.at) from """ + DECISIONS + """
                where u.at <= d.live_at) as decided,
              d.started_at as started, d.live_at as live
            from deployment d join place p on p.id = d.place_id join environment e on e.id = p.environment_id
              join component c on c.id = p.component_id join version v on v.id = d.version_id
              left join run r on r.id = v.run_id
            where d.id = #{deployment} and d.live_at is not null and not e.temporary""")
    Optional<MadeRow> made(long deployment);

    record WorkRow(Instant takenAt, Instant endedAt) {}

    @Select("select taken_at, ended_at from work where run_id = #{run} and taken_at is not null and ended_at is not "
            + "null")
    List<WorkRow> work(long run);

    record SpanRow(Instant fromAt, Instant toAt) {}

    /** When the environment was closed by somebody, between two moments. */
    @Select("""
            select at as from_at, least(coalesce(lifted_at, #{to}), coalesce(until_at, #{to})) as to_at from closure
            where environment_id = #{environment} and at < #{to} and coalesce(lifted_at, #{to}) > #{from}""")
    List<SpanRow> closures(long environment, Instant from, Instant to);

    @Select("""
            select at as from_at, coalesce(lifted_at, #{to}) as to_at from hold
            where place_id = #{place} and at < #{to} and coalesce(lifted_at, #{to}) > #{from}""")
    List<SpanRow> holds(long place, Instant from, Instant to);

    /** When other deployments into the place were under way. */
    @Select("""
            select started_at as from_at, coalesce(least(coalesce(live_at, ended_at), coalesce(ended_at, live_at)),
                #{to}) as to_at from deployment
            where place_id = #{place} and id <> #{deployment} and started_at < #{to}
              and coalesce(live_at, ended_at, #{to}) > #{from}""")
    List<SpanRow> others(long place, long deployment, Instant from, Instant to);

    /** Who said yes on the way in, with one of the groups that they are in now, or none. */
    record YesRow(String by, @Nullable String inGroup, Instant at) {}

    @Select("""
            select a.name as `by`, g.name as in_group, u.at from """ + DECISIONS + """
              join account a on a.id = coalesce(u.for_account_id, u.account_id)
              left join group_member m on m.account_id = a.id left join account_group g on g.id = m.group_id
              join deployment d on d.id = #{deployment}
            where u.yes and u.at <= d.live_at""")
    List<YesRow> said(long deployment);

    @Select("select name from account_group")
    List<String> groups();

    @Delete("delete from lead_time_people where deployment_id = #{deployment}")
    int forget(long deployment);

    @Insert("""
            insert into lead_time_people (deployment_id, component_id, environment_id, live_at, asked, seconds)
            values (#{made.deployment}, #{made.component}, #{made.environment}, #{made.live}, #{asked}, #{seconds})""")
    int waited(MadeRow made, String asked, long seconds);

    record WaitedRow(long environment, String asked, int count, long seconds) {}

    /** Whom promotions waited for, and how long all of them together. */
    @Select("""
            <script>
            select w.environment_id as environment, w.asked, count(*) as count, sum(w.seconds) as seconds
            from lead_time_people w where
            """ + ASKED + """
            group by w.environment_id, w.asked
            </script>""")
    List<WaitedRow> waitedFor(Asked asked);

    /** @param packed what {@link PackedLeadTime} reads */
    record LeadTimeRow(long deployment, String component, String version, String environment, Instant liveAt,
            byte[] packed) {}

    @Insert("""
            insert into lead_time (deployment_id, component_id, environment_id, live_at, committed, turn, agents,
              building, before_it, people, closed, held, queue, waiting_time, deploying, bad_for)
            values (#{made.deployment}, #{made.component}, #{made.environment}, #{made.live}, #{parts[0]}, #{parts[1]},
              #{parts[2]}, #{parts[3]}, #{parts[4]}, #{parts[5]}, #{parts[6]}, #{parts[7]}, #{parts[8]}, #{parts[9]},
              #{parts[10]}, #{badFor})
            on duplicate key update live_at = values(live_at), committed = values(committed), turn = values(turn),
              agents = values(agents), building = values(building), before_it = values(before_it),
              people = values(people), closed = values(closed), held = values(held), queue = values(queue),
              waiting_time = values(waiting_time), deploying = values(deploying), bad_for = values(bad_for)""")
    int keep(MadeRow made, long[] parts, @Nullable Long badFor);

    /** How long a deployment was live until it was undone, or until what replaced it was a rollback. */
    @Select("""
            select timestampdiff(second, d.live_at, if(d.status = 'undone', d.ended_at, (select min(b.live_at)
              from deployment b where b.replaces_id = d.id and b.kind = 'rollback')))
            from deployment d where d.id = #{deployment} and (d.status = 'undone' or exists (select 1
              from deployment b where b.replaces_id = d.id and b.kind = 'rollback' and b.live_at is not null))""")
    Optional<Long> badFor(long deployment);

    @Update("update lead_time set bad_for = #{seconds} where deployment_id = #{deployment}")
    int bad(long deployment, long seconds);

    /** What is asked; null: nothing. */
    record Asked(@Nullable Long component, @Nullable Long environment, @Nullable String label, Instant since,
            Instant until, int limit) {}

    String ASKED = """
            w.live_at &gt;= #{since} and w.live_at &lt; #{until}
            <if test="component != null">and w.component_id = #{component}</if>
            <if test="environment != null">and w.environment_id = #{environment}</if>
            <if test="label != null">and w.component_id in (select l.component_id from component_label l
              where l.value = #{label})</if>
            """;

    /** What is added up of each, {@link PackedLeadTime packed}: of a year there are very many, read as they come. */
    @Options(fetchSize = 2_000)
    @Select("""
            <script>
            select w.packed from lead_time w where
            """ + ASKED + """
            </script>""")
    List<byte[]> samples(Asked asked);

    /** Those that took longest. */
    @Select("""
            <script>
            select w.deployment_id as deployment, c.name as component, v.number as version, e.name as environment,
              w.live_at, w.packed
            from (select w.deployment_id from lead_time w where
            """ + ASKED + """
             order by w.seconds desc, w.deployment_id limit #{limit}) s
            join lead_time w on w.deployment_id = s.deployment_id
            join component c on c.id = w.component_id join environment e on e.id = w.environment_id
              join deployment d on d.id = w.deployment_id join version v on v.id = d.version_id
            order by w.seconds desc, w.deployment_id
            </script>""")
    List<LeadTimeRow> slowest(Asked asked);

    record CountRow(long environment, int count) {}

    /** Deployments that were begun and did not go live, by environment. */
    @Select("""
            <script>
            select p.environment_id as environment, count(*) as count from deployment w
              join place p on p.id = w.place_id
              join environment e on e.id = p.environment_id
            where w.live_at is null and w.started_at is not null and w.ended_at &gt;= #{since}
              and w.ended_at &lt; #{until} and not e.temporary
            <if test="component != null">and p.component_id = #{component}</if>
            <if test="environment != null">and p.environment_id = #{environment}</if>
            <if test="label != null">and p.component_id in (select l.component_id from component_label l
              where l.value = #{label})</if>
            group by p.environment_id
            </script>""")
    List<CountRow> failed(Asked asked);

    record EnvironmentRow(long id, String name) {}

    @Select("select id, name from environment where not temporary order by position, id")
    List<EnvironmentRow> environments();
}
