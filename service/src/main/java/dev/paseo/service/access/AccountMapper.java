package dev.paseo.service.access;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AccountMapper {

    record AccountRow(long id, String name, String passwordHash, @Nullable Instant disabledAt) {}

    /** Who disabled it, when and why, and when somebody signed in to it last. */
    record StandingRow(@Nullable Instant disabledAt, @Nullable String disabledBy, @Nullable String disabledReason,
            @Nullable Instant signedInAt, @Nullable String externalSubject, Instant createdAt) {}

    record GrantRow(String role, @Nullable String component, @Nullable String environment) {}

    @Insert("insert into account (name, password_hash, created_at) values (#{name}, #{hash}, #{at})")
    int add(String name, String hash, Instant at);

    /** Whoever changes an account holds it, so that what the trail states of it is in the order of the changes. */
    @Select("select id from account where name = #{name} for update")
    Optional<Long> lock(String name);

    @Select("select id from account_group where name = #{name} for update")
    Optional<Long> lockGroup(String name);

    @Select("select count(*) from account")
    long count();

    @Select("select id, name, password_hash, disabled_at from account where name = #{name}")
    Optional<AccountRow> named(String name);

    @Select("select name from account order by name")
    List<String> allNames();

    @Select("select name from account where disabled_at is null order by name")
    List<String> names();

    @Select("select disabled_at, disabled_by, disabled_reason, signed_in_at, external_subject, created_at from "
            + "account where id = #{account}")
    StandingRow standing(long account);

    @Update("update account set disabled_at = #{at}, disabled_by = #{by}, disabled_reason = #{reason} where id = "
            + "#{account}")
    int setDisabled(long account, @Nullable Instant at, @Nullable String by, @Nullable String reason);

    @Update("update account set password_hash = #{hash} where id = #{account}")
    int setPassword(long account, String hash);

    @Update("update account set signed_in_at = #{at} where id = #{account}")
    int signedIn(long account, Instant at);

    @Select("select address from account_address where account_id = #{account} order by verified_at, address")
    List<String> addresses(long account);

    @Delete("delete from account_address where account_id = #{account} and address = #{address}")
    int dropAddress(long account, String address);

    @Insert("insert into account (name, password_hash, created_at, external_subject) values (#{name}, '', #{at}, "
            + "#{subject})")
    int addExternal(String name, String subject, Instant at);

    @Select("select id, name, password_hash, disabled_at from account where external_subject = #{subject}")
    Optional<AccountRow> ofSubject(String subject);

    /** How many accounts that may sign in have this role everywhere, by themselves or by a group. */
    @Select("""
            select count(distinct a.id) from role_grant r left join group_member m on m.group_id = r.group_id
              join account a on a.id = coalesce(r.account_id, m.account_id)
            where r.role = #{role} and r.component_id is null and r.environment_id is null and a.disabled_at is null""")
    int withRole(String role);

    /**
     * Whoever may take the role from somebody holds all that give it, so that two do not take it from each other at
     * once.
     */
    @Select("select id from role_grant where role = #{role} order by id for update")
    List<Long> lockRole(String role);

    @Insert("insert into account_address (address, account_id, verified_at) values (#{address}, #{account}, #{at})")
    int addAddress(String address, long account, Instant at);

    @Select("select address from account_address where account_id = #{account} order by verified_at, address limit 1")
    Optional<String> addressOf(long account);

    @Select("select a.name from account_address d join account a on a.id = d.account_id where d.address = #{address}")
    Optional<String> nameOfAddress(String address);

    record AddressRow(String address, String name) {}

    /** Whose these addresses are; without those of nobody. */
    @Select("""
            <script>select d.address, a.name from account_address d join account a on a.id = d.account_id where
              d.address in <foreach item="a" collection="addresses" open="(" separator="," close=")">#{a}</foreach>
            </script>""")
    List<AddressRow> ofAddresses(@Param("addresses") Collection<String> addresses);

    @Insert("insert ignore into account_group (name) values (#{name})")
    int addGroup(String name);

    @Insert("""
            insert ignore into group_member (group_id, account_id)
            select g.id, #{account} from account_group g where g.name = #{group}""")
    int join(String group, long account);

    @Update("update account set external_subject = #{subject} where id = #{account}")
    int tie(long account, String subject);

    @Insert("""
            insert ignore into group_member (group_id, account_id, by_provider)
            select g.id, #{account}, true from account_group g where g.name = #{group}""")
    int joinByProvider(String group, long account);

    @Select("select g.name from group_member m join account_group g on g.id = m.group_id where m.account_id = "
            + "#{account} and m.by_provider")
    List<String> groupsByProvider(long account);

    @Delete("""
            delete m from group_member m join account_group g on g.id = m.group_id
            where g.name = #{group} and m.account_id = #{account}""")
    int leave(String group, long account);

    @Select("select name from account_group order by name")
    List<String> groups();

    @Select("select g.name from group_member m join account_group g on g.id = m.group_id where m.account_id = "
            + "#{account}")
    List<String> groupsOf(long account);

    /** @param member absent where nobody who may sign in is in the group */
    record MemberRow(String group, @Nullable String member) {}

    /** Of those of the names that are groups: who is in them and may sign in. */
    @Select("""
            <script>select g.name as `group`, a.name as member from account_group g
              left join (group_member m join account a on a.id = m.account_id and a.disabled_at is null)
                on m.group_id = g.id
            where g.name in <foreach item="g" collection="names" open="(" separator="," close=")">#{g}</foreach>
            </script>""")
    List<MemberRow> members(@Param("names") Collection<String> names);

    /** Of an account: a group that it is in, or a role that it or such a group has. */
    record MayRow(@Nullable String group, @Nullable String role, @Nullable String component,
            @Nullable String environment) {}

    /** The groups of an account, and what it may: asked together, since everything that is done asks for both. */
    @Select("""
            select g.name as `group`, null as role, null as component, null as environment from group_member m
              join account_group g on g.id = m.group_id where m.account_id = #{account}
            union all select null, r.role, c.name, e.name from (
                select role, component_id, environment_id from role_grant where account_id = #{account}
                union all select g.role, g.component_id, g.environment_id from group_member m
                  join role_grant g on g.group_id = m.group_id where m.account_id = #{account}) r
              left join component c on c.id = r.component_id left join environment e on e.id = r.environment_id
              where (r.component_id is null or c.id is not null) and (r.environment_id is null or e.id is not null)""")
    List<MayRow> may(long account);

    /** The roles given to an account itself. */
    @Select("""
            select r.role, c.name as component, e.name as environment from role_grant r
            left join component c on c.id = r.component_id left join environment e on e.id = r.environment_id
            where r.account_id = #{account} order by r.id""")
    List<GrantRow> ownGrants(long account);

    @Select("""
            select r.role, c.name as component, e.name as environment from role_grant r join account_group g on g.id
              = r.group_id
            left join component c on c.id = r.component_id left join environment e on e.id = r.environment_id
            where g.name = #{group} order by r.id""")
    List<GrantRow> groupGrants(String group);

    @Select("select (select count(*) from component where name = #{component}) + (select count(*) from environment "
            + "where name = #{environment})")
    int there(@Nullable String component, @Nullable String environment);

    @Insert("""
            insert into role_grant (account_id, group_id, role, component_id, environment_id) values
            (#{account}, (select id from account_group where name = #{group}), #{role}, (select id from component
              where name = #{component}),
             (select id from environment where name = #{environment}))""")
    int grant(@Nullable Long account, @Nullable String group, String role, @Nullable String component,
            @Nullable String environment);

    @Delete("delete from role_grant where account_id = #{account}")
    int dropGrants(long account);

    @Delete("delete r from role_grant r join account_group g on g.id = r.group_id where g.name = #{group}")
    int dropGroupGrants(String group);

    @Insert("insert into sign_in_session (token_hash, account_id, created_at, expires_at) values (#{hash}, "
            + "#{account}, #{at}, #{until})")
    int addSession(String hash, long account, Instant at, Instant until);

    @Delete("delete from sign_in_session where token_hash = #{hash}")
    int endSession(String hash);

    @Delete("delete from sign_in_session where account_id = #{account}")
    int endSessions(long account);

    @Delete("delete from password_reset where account_id = #{account}")
    int dropCodes(long account);

    @Insert("insert into password_reset (code_hash, account_id, made_by, created_at, expires_at) values (#{hash}, "
            + "#{account}, #{by}, #{at}, #{until})")
    int addCode(String hash, long account, String by, Instant at, Instant until);

    @Select("""
            select a.id, a.name, a.password_hash, a.disabled_at from password_reset r join account a on a.id =
              r.account_id
            where r.code_hash = #{hash} and r.expires_at > #{now} and a.disabled_at is null""")
    Optional<AccountRow> ofCode(String hash, Instant now);

    @Delete("delete from sign_in_session where expires_at < #{now}")
    int forgetSessions(Instant now);

    @Select("""
            select a.id, a.name, a.password_hash, a.disabled_at from sign_in_session s join account a on a.id =
              s.account_id
            where s.token_hash = #{hash} and s.expires_at > #{now} and a.disabled_at is null""")
    Optional<AccountRow> ofSession(String hash, Instant now);

    /** Gates are judged again, since whom they ask has changed. */
    @Update("update place set wake_at = #{now} where id in (select d.place_id from deployment d where d.status = "
            + "'waiting')")
    int wakePlaces(Instant now);

    @Update("update passage set wake_at = #{now} where status = 'open' and settled_at is not null")
    int wakePassages(Instant now);
}
