package dev.paseo.service.gate;

import dev.paseo.core.gate.Tick;
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
interface GateDecisionMapper {

    record GateDecisionRow(String by, @Nullable String inPlaceOf, boolean yes, String comment, String subject,
            @Nullable String parts, Instant at) {}

    @Insert("""
            insert into ruling (deployment_id, passage_id, account_id, for_account_id, yes, comment, subject, parts, at)
            values (#{deployment}, #{passage}, #{account}, (select id from account where name = #{inPlaceOf}), #{yes},
              #{comment}, #{subject}, #{parts}, #{at})""")
    int add(@Nullable Long deployment, @Nullable Long passage, long account, @Nullable String inPlaceOf, boolean yes,
            String comment, String subject, String parts, Instant at);

    @Select("""
            select a.name as `by`, f.name as in_place_of, r.yes, r.comment, r.subject, r.parts, r.at from ruling r
              join account a on a.id = r.account_id
            left join account f on f.id = r.for_account_id
            where r.taken_back_at is null and (r.deployment_id = #{deployment} or r.passage_id = #{passage}) order by
              r.id""")
    List<GateDecisionRow> of(@Nullable Long deployment, @Nullable Long passage);

    @Update("""
            update ruling set taken_back_at = #{now} where account_id = #{account} and yes and taken_back_at is null
              and (deployment_id = #{deployment} or passage_id = #{passage})""")
    int takeBack(@Nullable Long deployment, @Nullable Long passage, long account, Instant now);

    /** Of each gate that was ruled on: all decisions about it, each as a text of all that counts. */
    record GateDecisionsRow(String subject, String text) {}

    @Select("""
            <script>
            select if(deployment_id is null, concat('passage ', passage_id), concat('deployment ', deployment_id)) as
              subject,
              group_concat(concat_ws(' ', id, account_id, coalesce(for_account_id, 0), yes, subject, taken_back_at is
                not null) order by id separator '\n') as text
            from ruling <where><if test="deployment != null">deployment_id = #{deployment}</if><if test="passage !=
              null">and passage_id = #{passage}</if></where>
            group by deployment_id, passage_id
            </script>""")
    List<GateDecisionsRow> states(@Param("deployment") @Nullable Long deployment,
            @Param("passage") @Nullable Long passage);

    record TickRow(long id, String item, String by, String outcome, String note, @Nullable String picture,
            Instant at) {}

    @Insert("""
            insert into tick (deployment_id, passage_id, item, account_id, outcome, note, picture, at)
            values (#{deployment}, #{passage}, #{tick.item}, #{account}, #{tick.outcome}, #{tick.note}, #{picture},
              #{tick.at})""")
    int addTick(@Nullable Long deployment, @Nullable Long passage, long account, Tick tick, @Nullable String picture);

    @Select("""
            select t.id, t.item, a.name as `by`, t.outcome, t.note, t.picture, t.at from tick t join account a on
              a.id = t.account_id
            where t.deployment_id = #{deployment} or t.passage_id = #{passage} order by t.id""")
    List<TickRow> ticks(@Nullable Long deployment, @Nullable Long passage);

    record StandInRow(String deputy, String principal) {}

    /** Who decides in whose place now, here or everywhere. */
    @Select("""
            select d.name as deputy, a.name as principal from stand_in s join account d on d.id = s.deputy_id join
              account a on a.id = s.account_id
            where s.lifted_at is null and s.from_at <= #{now} and (s.until_at is null or s.until_at > #{now}) and
              d.disabled_at is null
              and (s.deployment_id is null or s.deployment_id = #{deployment})""")
    List<StandInRow> standIns(@Nullable Long deployment, Instant now);

    @Insert("""
            insert into stand_in (account_id, deputy_id, deployment_id, from_at, set_by)
            values (#{account}, #{deputy}, #{deployment}, #{from}, #{by})""")
    int addStandIn(long account, long deputy, long deployment, Instant from, long by);

    record AnswerRow(String name, @Nullable Boolean yes, String words, Instant askedAt, @Nullable Instant answeredAt) {}

    @Select("select name, yes, words, asked_at, answered_at from outside_answer where deployment_id = #{deployment}")
    List<AnswerRow> answers(@Nullable Long deployment);

    String AUTHORS = """
            select addresses from authorship
            where component_id = #{component} and from_commit = #{live} and to_commit = #{proposed}""";

    @Select(AUTHORS)
    Optional<String> authors(long component, String live, String proposed);

    @Insert("""
            insert ignore into authorship (component_id, from_commit, to_commit, addresses)
            values (#{component}, #{from}, #{to}, #{addresses})""")
    int keepAuthors(long component, String from, String to, String addresses);

    /**
     * Who pushed, or that nobody told who pushed what, to the branch of this commit since what is live was pushed
     * there; all who ever did, where it was not.
     */
    String PUSHERS = """
            select distinct case when e.told then e.actor else concat('the pusher of ', e.commit_id, ' to ',
              e.branch) end as pusher from trigger_event e
            join (select max(id) as last, branch from trigger_event where component_id = #{component} and kind =
              'push' and commit_id = #{proposed} group by branch) p on e.branch = p.branch and e.id <= p.last
            where e.component_id = #{component} and e.kind = 'push'
              and e.id > coalesce((select min(l.id) from trigger_event l where l.component_id = #{component} and
              l.kind = 'push' and l.commit_id = #{live} and l.branch = e.branch), 0)""";

    /** @param pushed by this one; else the addresses of all authors, as a list */
    record WroteRow(boolean pushed, String text) {}

    /** The authors, where they are known, and the pushers, asked together. */
    @Select("select false as pushed, addresses as text from (" + AUTHORS + ") a union all select true, pusher from ("
            + PUSHERS + ") p")
    List<WroteRow> wrote(long component, String live, String proposed);

    @Select("select address from version_author where version_id = #{version}")
    List<String> stated(long version);
}
