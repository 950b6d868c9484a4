package dev.paseo.service.access;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What a list of accounts or groups shows, each kind asked once for all of them. */
@Mapper
interface AccountViewMapper {

    /** An account, with how many tokens of it count now. */
    record ListedAccountRow(long id, String name, Instant createdAt, @Nullable Instant signedInAt,
            @Nullable String externalSubject, @Nullable Instant disabledAt, @Nullable String disabledBy,
            @Nullable String disabledReason, int tokens) {}

    /** @param name the only one; nothing: all, by name */
    @Select("""
            select a.id, a.name, a.created_at, a.signed_in_at, a.external_subject, a.disabled_at, a.disabled_by,
              a.disabled_reason,
              (select count(*) from personal_token t where t.account_id = a.id and t.revoked_at is null
                and t.expires_at > #{now}) as tokens
            from account a where #{name} is null or a.name = #{name} order by a.name""")
    List<ListedAccountRow> accounts(@Nullable String name, Instant now);

    /** Who is in a group. */
    record MembershipRow(String group, long account, String name, boolean disabled) {}

    /** @param account the only one; nothing: all, by group and name */
    @Select("""
            select g.name as `group`, a.id as account, a.name, a.disabled_at is not null as disabled
            from group_member m join account_group g on g.id = m.group_id join account a on a.id = m.account_id
            where #{account} is null or a.name = #{account} order by g.name, a.name""")
    List<MembershipRow> members(@Nullable String account);

    /** A role that an account has by itself, or that a group gives. */
    record GivenRow(@Nullable Long account, @Nullable String group, String role, @Nullable String component,
            @Nullable String environment) {}

    /** In the order in which they were given. */
    @Select("""
            select r.account_id as account, g.name as `group`, r.role, c.name as component, e.name as environment
            from role_grant r left join account_group g on g.id = r.group_id left join account a on a.id = r.account_id
              left join component c on c.id = r.component_id left join environment e on e.id = r.environment_id
            where #{account} is null or r.account_id is null or a.name = #{account} order by r.id""")
    List<GivenRow> roles(@Nullable String account);

    /** A verified address of an account. */
    record AddressRow(long account, String address) {}

    /** The one that was verified first comes first. */
    @Select("""
            select d.account_id as account, d.address from account_address d join account a on a.id = d.account_id
            where #{account} is null or a.name = #{account} order by d.verified_at, d.address""")
    List<AddressRow> addresses(@Nullable String account);

    @Select("select name from account_group order by name")
    List<String> groups();
}
