package dev.paseo.service.access;

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
interface AccountMapper {

    record AccountRow(long id, String name, String passwordHash, @Nullable Instant disabledAt) {}

    record GrantRow(String role, @Nullable String component, @Nullable String environment) {}

    @Insert("insert into account (name, password_hash, created_at) values (#{name}, #{hash}, #{at})")
    int add(String name, String hash, Instant at);

    @Select("select count(*) from account")
    long count();

    @Select("select id, name, password_hash, disabled_at from account where name = #{name}")
    Optional<AccountRow> named(String name);

    @Select("select name from account order by name")
    List<String> names();

    @Insert("insert into account_address (address, account_id, verified_at) values (#{address}, #{account}, #{at})")
    int addAddress(String address, long account, Instant at);

    @Select("select address from account_address where account_id = #{account} order by verified_at, address limit 1")
    Optional<String> addressOf(long account);

    @Select("select a.name from account_address d join account a on a.id = d.account_id where d.address = #{address}")
    Optional<String> nameOfAddress(String address);

    @Insert("insert ignore into account_group (name) values (#{name})")
    int addGroup(String name);

    @Insert("""
            insert ignore into group_member (group_id, account_id)
            select g.id, #{account} from account_group g where g.name = #{group}""")
    int join(String group, long account);

    @Delete("""
            delete m from group_member m join account_group g on g.id = m.group_id
            where g.name = #{group} and m.account_id = #{account}""")
    int leave(String group, long account);

    @Select("select name from account_group order by name")
    List<String> groups();

    @Select("select g.name from group_member m join account_group g on g.id = m.group_id where m.account_id = #{account}")
    List<String> groupsOf(long account);

    @Select("""
            select a.name from group_member m join account_group g on g.id = m.group_id join account a on a.id = m.account_id
            where g.name = #{group} and a.disabled_at is null""")
    List<String> members(String group);

    @Select("""
            select r.role, c.name as component, e.name as environment from role_grant r
            left join component c on c.id = r.component_id left join environment e on e.id = r.environment_id
            where r.account_id = #{account}
               or r.group_id in (select group_id from group_member where account_id = #{account})""")
    List<GrantRow> grants(long account);

    @Insert("insert into role_grant (account_id, role) values (#{account}, #{role})")
    int grant(long account, String role);

    @Insert("insert into sign_in_session (token_hash, account_id, created_at, expires_at) values (#{hash}, #{account}, #{at}, #{until})")
    int addSession(String hash, long account, Instant at, Instant until);

    @Delete("delete from sign_in_session where token_hash = #{hash}")
    int endSession(String hash);

    @Delete("delete from sign_in_session where expires_at < #{now}")
    int forgetSessions(Instant now);

    @Select("""
            select a.id, a.name, a.password_hash, a.disabled_at from sign_in_session s join account a on a.id = s.account_id
            where s.token_hash = #{hash} and s.expires_at > #{now} and a.disabled_at is null""")
    Optional<AccountRow> ofSession(String hash, Instant now);

    @Insert("""
            insert into personal_token (token_hash, account_id, label, created_at, expires_at)
            values (#{hash}, #{account}, #{label}, #{at}, #{until})""")
    int addToken(String hash, long account, String label, Instant at, Instant until);

    @Update("update personal_token set revoked_at = #{at} where token_hash = #{hash} and revoked_at is null")
    int revoke(String hash, Instant at);

    /**
     * Who a token stands for.
     *
     * @param action    the one thing that it may do, where it is limited
     * @param component and for which component
     */
    record TokenRow(long id, String name, @Nullable String action, @Nullable String component) {}

    @Select("""
            select a.id, a.name, t.action, c.name as component from personal_token t join account a on a.id = t.account_id
            left join component c on c.id = t.component_id
            where t.token_hash = #{hash} and t.expires_at > #{now} and t.revoked_at is null and a.disabled_at is null""")
    Optional<TokenRow> ofToken(String hash, Instant now);

    @Insert("""
            insert into personal_token (token_hash, account_id, label, action, component_id, created_at, expires_at)
            values (#{hash}, #{account}, #{label}, #{action}, (select id from component where name = #{component}), #{at}, #{until})""")
    int addLimitedToken(String hash, long account, String label, String action, String component, Instant at, Instant until);

    /** Gates are judged again, since whom they ask has changed. */
    @Update("update place set wake_at = #{now} where id in (select d.place_id from deployment d where d.status = 'waiting')")
    int wakePlaces(Instant now);

    @Update("update passage set wake_at = #{now} where status = 'open' and settled_at is not null")
    int wakePassages(Instant now);
}
