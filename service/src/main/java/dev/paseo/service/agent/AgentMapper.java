package dev.paseo.service.agent;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AgentMapper {

    record AgentRow(long id, String name, @Nullable Long hostId, @Nullable String host, String offers, boolean drained,
            @Nullable Instant lastContact,
            boolean untrusted, @Nullable String walls, boolean walled) {}

    String SELECT = "select a.id, a.name, a.host_id, h.name as host, a.offers, a.drained, a.last_contact, "
            + "a.untrusted, a.walls, a.walled from agent a left join host h on h.id = a.host_id ";

    @Insert("insert into host (name) values (#{name}) on duplicate key update retired_at = null")
    int addHost(String name);

    @Insert("""
            insert into agent (name, host_id, offers, untrusted, enrolment_hash, enrolment_until)
            values (#{name}, (select id from host where name = #{host}), #{offers}, #{untrusted}, #{hash}, #{until})
            on duplicate key update retired_at = null, offers = values(offers), untrusted = values(untrusted),
              enrolment_hash = values(enrolment_hash), enrolment_until = values(enrolment_until)""")
    int invite(String name, @Nullable String host, String offers, boolean untrusted, String hash, Instant until);

    @Update("""
            update agent set token_hash = #{token}, enrolment_hash = null, enrolment_until = null, enrolled_at =
              #{now}, renew = false
            where enrolment_hash = #{hash} and enrolment_until > #{now}""")
    int enrol(String hash, String token, Instant now);

    /**
     * Lets whoever has this token, which is the agent, take a new secret; only where that is wanted, or its secret is
     * old.
     */
    @Update("""
            update agent set enrolment_hash = #{hash}, enrolment_until = #{until}
            where id = #{id} and retired_at is null and (renew or enrolled_at < #{old})""")
    int renew(long id, String hash, Instant until, Instant old);

    @Update("update agent set renew = true where name = #{name} and token_hash is not null and retired_at is null")
    int wantRenewal(String name);

    @Select(SELECT + "where a.token_hash = #{hash} and a.retired_at is null")
    Optional<AgentRow> ofToken(String hash);

    @Select(SELECT + "where a.id = #{id}")
    AgentRow byId(long id);

    @Select(SELECT + "where a.retired_at is null order by a.name")
    List<AgentRow> all();

    @Update("update agent set drained = #{drained} where name = #{name}")
    int drain(String name, boolean drained);

    @Select("select count(*) from work where agent_id = #{id} and status = 'leased'")
    int working(long id);

    @Update("update agent set walls = #{walls}, walled = #{walled} where id = #{id}")
    int walls(long id, String walls, boolean walled);

    @Update("update agent set last_contact = #{now} where id = #{id}")
    int heard(long id, Instant now);
}
