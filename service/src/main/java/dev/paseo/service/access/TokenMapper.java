package dev.paseo.service.access;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface TokenMapper {

    /**
     * Who a token stands for.
     *
     * @param may       what it may, as words separated by commas; null: what its owner may
     * @param component and for which component
     */
    record BearerRow(long token, long id, String name, @Nullable String may, @Nullable Long componentId,
            @Nullable String component, @Nullable Instant usedAt) {}

    @Select("""
            select t.id as token, a.id, a.name, t.may, t.component_id, c.name as component, t.used_at from
              personal_token t join account a on a.id = t.account_id
            left join component c on c.id = t.component_id
            where t.token_hash = #{hash} and t.expires_at > #{now} and t.revoked_at is null and a.disabled_at is
              null""")
    Optional<BearerRow> bearer(String hash, Instant now);

    /** How a token stands that may no longer be good. */
    record StandingRow(String account, Instant expiresAt, @Nullable Instant revokedAt, @Nullable String revokedBy,
            @Nullable Instant disabledAt) {}

    @Select("""
            select a.name as account, t.expires_at, t.revoked_at, t.revoked_by, a.disabled_at
            from personal_token t join account a on a.id = t.account_id where t.token_hash = #{hash}""")
    Optional<StandingRow> standing(String hash);

    @Insert("""
            insert into personal_token (token_hash, account_id, label, may, component_id, created_at, expires_at)
            values (#{hash}, #{account}, #{label}, #{may}, (select id from component where name = #{component}),
              #{at}, #{until})""")
    int add(String hash, long account, String label, @Nullable String may, @Nullable String component, Instant at,
            Instant until);

    @Update("update personal_token set used_at = #{at} where id = #{token}")
    int used(long token, Instant at);

    @Update("update personal_token set revoked_at = #{at}, revoked_by = #{by} where token_hash = #{hash} and "
            + "revoked_at is null")
    int revokeByHash(String hash, String by, Instant at);

    @Update("update personal_token set revoked_at = #{at}, revoked_by = #{by} where id = #{token} and account_id = "
            + "#{account} and revoked_at is null")
    int revoke(long token, long account, String by, Instant at);

    @Update("update personal_token set revoked_at = #{at}, revoked_by = #{by} where account_id = #{account} and "
            + "revoked_at is null")
    int revokeAll(long account, String by, Instant at);

    /** All of an account's tokens that were not revoked, each as a text of all that it is worth. */
    @Select("""
            select concat_ws(' ', id, token_hash, coalesce(may, 'all'), coalesce(component_id, 0), expires_at) from
              personal_token
            where account_id = #{account} and revoked_at is null order by id""")
    List<String> valid(long account);

    /** A token as its owner sees it: never the token itself. */
    record TokenRow(long id, String label, @Nullable String may, @Nullable String component, Instant createdAt,
            Instant expiresAt, @Nullable Instant usedAt) {}

    @Select("""
            select t.id, t.label, t.may, c.name as component, t.created_at, t.expires_at, t.used_at from
              personal_token t
            left join component c on c.id = t.component_id
            where t.account_id = #{account} and t.revoked_at is null and t.expires_at > #{now} order by t.id""")
    List<TokenRow> of(long account, Instant now);
}
