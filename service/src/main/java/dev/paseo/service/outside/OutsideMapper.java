package dev.paseo.service.outside;

import dev.paseo.core.deployment.DeploymentStatus;
import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface OutsideMapper {

    @Insert("insert ignore into outside_answer (deployment_id, name, token_hash, asked_at, words) values "
            + "(#{deployment}, #{name}, #{hash}, #{now}, 'it is being asked')")
    int ask(long deployment, String name, String hash, Instant now);

    @Update("update outside_answer set token_hash = #{hash}, words = #{words} where deployment_id = #{deployment} "
            + "and name = #{name} and answered_at is null")
    int asked(long deployment, String name, String hash, String words);

    record AskedRow(long id, long deployment, String name, @Nullable Instant answeredAt) {}

    @Select("select id, deployment_id as deployment, name, answered_at from outside_answer where token_hash = "
            + "#{hash} for update")
    Optional<AskedRow> byToken(String hash);

    @Update("update outside_answer set yes = #{yes}, words = #{words}, answered_at = #{now} where id = #{id} and "
            + "answered_at is null")
    int answer(long id, boolean yes, String words, Instant now);

    record AboutRow(String component, String environment, long environmentId, String version, DeploymentStatus status,
            @Nullable String requestedBy, long placeId) {}

    @Select("""
            select c.name as component, e.name as environment, e.id as environment_id, v.number as version, d.status,
              a.name as requested_by, d.place_id
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id join
              environment e on e.id = p.environment_id
            join version v on v.id = d.version_id left join account a on a.id = d.requested_by where d.id =
              #{deployment}""")
    AboutRow about(long deployment);

    @Update("update place set wake_at = #{now} where id = #{place}")
    int wake(long place, Instant now);
}
