package dev.paseo.service.gate;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface WaitMapper {

    /** A row to be inserted; gets its id. */
    final class NewWait {
        long id;
        final Gates.AtGate at;
        final WaitingGates.WaitingFor kept;

        NewWait(Gates.AtGate at, WaitingGates.WaitingFor kept) {
            this.at = at;
            this.kept = kept;
        }
    }

    record KeptRow(long id, boolean nobody) {}

    @Select("""
            select id, nobody from gate_wait where deployment_id = #{standing.deployment} or passage_id =
              #{standing.passage} for update""")
    Optional<KeptRow> of(@Param("standing") Gates.Standing standing);

    @Insert("""
            insert into gate_wait (deployment_id, passage_id, component_id, environment_id, version_id, kind, name,
              sentence, since_at, due_at, nobody)
            values (#{at.standing.deployment}, #{at.standing.passage}, #{at.place.componentId},
              #{at.place.environmentId}, #{at.version.id}, #{kept.kind}, #{kept.name},
              #{kept.sentence}, #{at.requestedAt}, #{kept.due}, #{kept.nobody})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewWait wait);

    @Update("update gate_wait set kind = #{kept.kind}, name = #{kept.name}, sentence = #{kept.sentence}, due_at = "
            + "#{kept.due}, nobody = #{kept.nobody} where id = #{id}")
    int change(long id, WaitingGates.WaitingFor kept);

    @Delete("delete from gate_wait where deployment_id = #{standing.deployment} or passage_id = #{standing.passage}")
    int gone(@Param("standing") Gates.Standing standing);

    @Select("select a.name from gate_wait_person p join account a on a.id = p.account_id where p.wait_id = #{wait}")
    List<String> people(long wait);

    @Delete("delete from gate_wait_person where wait_id = #{wait}")
    int clear(long wait);

    @Insert("insert ignore into gate_wait_person (wait_id, account_id) select #{wait}, id from account where name = "
            + "#{person}")
    int addPerson(long wait, String person);

    record WaitRow(long id, @Nullable Long deployment, @Nullable Long passage, String component, String environment,
            String version, String kind, String name, String sentence,
            Instant since, @Nullable Instant due, boolean nobody) {}

    String COLUMNS = """
            select w.id, w.deployment_id as deployment, w.passage_id as passage, c.name as component, e.name as
              environment, v.number as version, w.kind, w.name, w.sentence,
              w.since_at as since, w.due_at as due, w.nobody
            """;
    String JOINS = "join component c on c.id = w.component_id join environment e on e.id = w.environment_id join "
            + "version v on v.id = w.version_id ";

    /** What waits for somebody, the most urgent first. */
    @Select(COLUMNS + """
            from (select i.* from gate_wait_person p join gate_wait i on i.id = p.wait_id where p.account_id =
              #{account}
                  order by i.due_at is null, i.due_at, i.since_at, i.id limit #{limit}) w
            """ + JOINS + "order by w.due_at is null, w.due_at, w.since_at, w.id")
    List<WaitRow> forPerson(long account, int limit);

    @Select("select count(*) from gate_wait_person where account_id = #{account}")
    int count(long account);

    /** What waits and nobody may decide. */
    @Select(COLUMNS + "from gate_wait w " + JOINS + "where w.nobody order by w.since_at limit #{limit}")
    List<WaitRow> forNobody(int limit);

    @Select(COLUMNS + "from gate_wait w " + JOINS
            + """
            where w.due_at > #{now} and w.kind <> 'time'
              and timestampdiff(second, #{now}, w.due_at) * 8 <= timestampdiff(second, w.since_at, w.due_at) limit
              200""")
    List<WaitRow> expiring(Instant now);

    /** What stands before a deployment, and whether it waits for this account. */
    record StandRow(String name, boolean mine) {}

    @Select("""
            select w.name, exists (select 1 from gate_wait_person p where p.wait_id = w.id and p.account_id =
              #{account}) as mine
            from gate_wait w where w.deployment_id = #{deployment}""")
    Optional<StandRow> stand(long deployment, long account);
}
