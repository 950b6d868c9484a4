package dev.paseo.service.notice;

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
interface NoticeMapper {

    record NoticeRow(long id, long accountId, String event, String component, String title, String body, String path,
            Instant at, @Nullable Instant readAt, int tries) {}

    String COLUMNS = "select id, account_id, event, component, title, body, path, at, read_at, tries from notice ";

    @Insert("""
            insert ignore into notice (account_id, event, component, title, body, path, dedupe, at, mail_due_at,
              read_at)
            values (#{account}, #{said.event}, #{said.component}, #{said.title}, #{said.body}, #{said.path},
              #{said.dedupe}, #{at}, #{due}, #{read})""")
    int add(long account, Notices.Said said, Instant at, @Nullable Instant due, @Nullable Instant read);

    @Select("select id from account where name = #{name} and disabled_at is null")
    Optional<Long> account(String name);

    record ChoiceRow(String event, String channel, String component, String delivery) {}

    /** {@code component} is empty in what holds for all of them. */
    @Select("select event, channel, component, delivery from notice_choice where account_id = #{account} order by "
            + "component")
    List<ChoiceRow> choices(long account);

    @Insert("""
            insert into notice_choice (account_id, event, channel, component, delivery) values (#{account}, #{event},
              #{channel}, #{component}, #{delivery})
            on duplicate key update delivery = values(delivery)""")
    int choose(long account, String event, String channel, String component, String delivery);

    @Delete("delete from notice_choice where account_id = #{account} and component = #{component}")
    int asElsewhere(long account, String component);

    /** Not where it asked for something that is decided by now, or that its reader has decided. */
    String STANDS = """
            account_id = #{account} and not (event in ('waits', 'expires', 'nobody') and (
              path like '/deployments/%' and exists (select 1 from deployment d
                where d.id = cast(substring(path, 14) as unsigned)
                  and (d.status <> 'waiting' or exists (select 1 from ruling r where r.deployment_id = d.id
                    and r.account_id = notice.account_id and r.taken_back_at is null)))
              or path like '/passages/%' and exists (select 1 from passage p
                where p.id = cast(substring(path, 11) as unsigned) and p.ended_at is not null)
              or path like '/waiting#ask-%' and exists (select 1 from ask k
                where k.id = cast(substring(path, 14) as unsigned) and k.ended_at is not null)))""";

    @Select(COLUMNS + "where " + STANDS + " order by id desc limit #{limit}")
    List<NoticeRow> newest(long account, int limit);

    @Select("select count(*) from notice where read_at is null and " + STANDS)
    int unread(long account);

    @Update("update notice set read_at = #{now} where account_id = #{account} and read_at is null and id <= #{upTo}")
    int read(long account, long upTo, Instant now);

    @Select("select account_id from notice where mailed_at is null and mail_due_at <= #{now} group by account_id "
            + "order by min(mail_due_at) limit 50")
    List<Long> due(Instant now);

    /** What is due for one, taken by whoever comes first. */
    @Select(COLUMNS
            + "where account_id = #{account} and mailed_at is null and mail_due_at <= #{now} order by id limit 50 "
            + "for update skip locked")
    List<NoticeRow> dueOf(long account, Instant now);

    @Update("update notice set tries = tries + 1, mail_due_at = #{again} where id = #{id}")
    int claim(long id, Instant again);

    @Update("update notice set mailed_at = #{now} where id = #{id}")
    int mailed(long id, Instant now);

    @Update("update notice set mail_due_at = null where id = #{id}")
    int givenUp(long id);

    @Select("select address from account_address where account_id = #{account} order by verified_at limit 1")
    Optional<String> address(long account);

    @Select("""
            select distinct a.name from role_grant r left join group_member m on m.group_id = r.group_id
              join account a on a.id = coalesce(r.account_id, m.account_id)
            where r.role = 'ADMINISTRATOR' and a.disabled_at is null""")
    List<String> administrators();

    /** Administrators, and the release engineers of a component. */
    @Select("""
            select distinct a.name from role_grant r left join group_member m on m.group_id = r.group_id
              join account a on a.id = coalesce(r.account_id, m.account_id)
            where a.disabled_at is null and (r.role = 'ADMINISTRATOR' or r.role = 'RELEASE_ENGINEER'
              and (r.component_id is null or r.component_id = (select id from component where name = #{component})))""")
    List<String> keepers(String component);

    @Select("select name from account where id = #{account}")
    String name(long account);

    @Insert("insert into mail_link (token_hash, account_id, path, expires_at) values (#{hash}, #{account}, #{path}, "
            + "#{expires})")
    int addLink(String hash, long account, String path, Instant expires);

    record LinkRow(long accountId, String account, String path, Instant expiresAt, @Nullable Instant usedAt) {}

    @Select("""
            select l.account_id, a.name as account, l.path, l.expires_at, l.used_at from mail_link l join account a
              on a.id = l.account_id
            where l.token_hash = #{hash}""")
    Optional<LinkRow> link(String hash);

    @Update("update mail_link set used_at = #{now} where token_hash = #{hash} and used_at is null and expires_at > "
            + "#{now}")
    int use(String hash, Instant now);

    /** Those who follow a component, an environment or a deployment; null: nobody asks for that. */
    @Select("""
            select distinct a.name from following f join account a on a.id = f.account_id
            where a.disabled_at is null and (f.what = 'component' and f.thing_id = #{component}
              or f.what = 'environment' and f.thing_id = #{environment}
              or f.what = 'deployment' and f.thing_id = #{deployment})""")
    List<String> followers(long component, @Nullable Long environment, @Nullable Long deployment);

    /** The accounts of those who pushed a commit. */
    @Select("""
            select distinct a.name from trigger_event t join account_address d on d.address = t.actor join account a
              on a.id = d.account_id
            where t.component_id = #{component} and t.commit_id = #{commit} and t.kind = 'push'""")
    List<String> pushers(long component, String commit);
}
