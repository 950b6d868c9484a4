package dev.paseo.service.asking;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AskMapper {

    record AskRow(long id, String by, String act, String component, String environment, @Nullable String version,
            String words, Instant at, @Nullable String outcome, @Nullable String answer, @Nullable String answeredBy,
            @Nullable Long deployment, @Nullable Instant endedAt) {}

    String ROWS = """
            select k.id, a.name as `by`, k.act, c.name as component, e.name as environment, v.number as version,
              k.words, k.at, k.outcome, k.answer, w.name as answered_by, k.deployment_id as deployment, k.ended_at
            from ask k join account a on a.id = k.account_id join place p on p.id = k.place_id
            join component c on c.id = p.component_id join environment e on e.id = p.environment_id
            left join version v on v.id = k.version_id left join account w on w.id = k.answered_by
            """;

    @Select(ROWS + "where k.ended_at is null and a.disabled_at is null order by k.id")
    List<AskRow> open();

    @Select(ROWS + "where k.account_id = #{account} order by k.id desc limit 50")
    List<AskRow> of(long account);

    @Select(ROWS + "where k.id = #{id}")
    Optional<AskRow> byId(long id);

    @Select("select count(*) from ask where account_id = #{account} and ended_at is null")
    int countOpen(long account);

    @Select("select id from account where id = #{account} for update")
    long lock(long account);

    /** What one asks already, open; the number of it. */
    @Select("""
            select id from ask where account_id = #{account} and act = #{act} and place_id = #{place}
              and version_id <=> #{version} and ended_at is null""")
    Optional<Long> same(long account, String act, long place, @Nullable Long version);

    @Insert("""
            insert into ask (account_id, act, place_id, version_id, words, at)
            values (#{account}, #{act}, #{place}, #{version}, #{words}, #{now})""")
    int add(long account, String act, long place, @Nullable Long version, String words, Instant now);

    @Update("""
            update ask set outcome = #{outcome}, answer = #{answer}, answered_by = #{by}, deployment_id = #{deployment},
              ended_at = #{now} where id = #{id} and ended_at is null""")
    int end(long id, String outcome, @Nullable String answer, @Nullable Long by, @Nullable Long deployment,
            Instant now);

    /**
     * What ended it.
     *
     * @param by   null: nobody, the version went on by itself, or there is nothing left to do
     * @param needless why there is nothing left to do; null: it is done
     */
    record EndRow(long id, @Nullable Long by, @Nullable Long deployment, @Nullable String needless) {}

    /** What was asked and has been done since, and what can no longer be done. */
    @Select("""
            select k.id, d.requested_by as `by`, d.id as deployment, null as needless from ask k join deployment d
              on d.id = (select min(n.id) from deployment n where n.place_id = k.place_id and n.requested_at >= k.at
                and (k.act = 'promote' and n.version_id = k.version_id and n.kind <> 'rollback'
                  or k.act = 'roll-back' and n.kind = 'rollback'))
            where k.ended_at is null
            union all select k.id, h.set_by, null, null from ask k join hold h on h.place_id = k.place_id
              and h.lifted_at is null where k.ended_at is null and k.act = 'hold'
            union all select k.id, (select h.lifted_by from hold h where h.place_id = k.place_id and h.lifted_at >= k.at
                order by h.id desc limit 1), null, null
            from ask k where k.ended_at is null and k.act = 'lift-hold'
              and not exists (select 1 from hold h where h.place_id = k.place_id and h.lifted_at is null)
            union all select k.id, null, null, 'the version was blocked' from ask k join version v
              on v.id = k.version_id where k.ended_at is null and v.blocked_at is not null
            union all select k.id, null, null, 'nothing is deployed there any more' from ask k join place p
              on p.id = k.place_id where k.ended_at is null and p.retired_at is not null""")
    List<EndRow> ended();

    /** Whether a place is held. */
    @Select("select count(*) > 0 from hold where place_id = #{place} and lifted_at is null")
    boolean held(long place);

    /** The deployment by which a version is live in a place, or on its way there. */
    @Select("""
            select d.id from deployment d where d.place_id = #{place} and d.version_id = #{version}
              and d.status in ('waiting', 'queued', 'deploying', 'checking', 'live') order by d.id desc limit 1""")
    Optional<Long> already(long place, long version);
}
