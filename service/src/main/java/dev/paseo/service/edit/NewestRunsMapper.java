package dev.paseo.service.edit;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface NewestRunsMapper {

    /** @param answers JSON: a mapping of names to answers */
    record RunRow(long id, long number, String branch, String commitId, String versionNumber, boolean trusted,
            String answers, String kind) {}

    @Select("""
            select r.id, r.number, r.branch, r.commit_id, r.version_number, r.trusted, r.answers, c.kind from run r
            join cause c on c.id = r.cause_id where r.component_id = #{component}
            order by r.number desc limit #{limit}""")
    List<RunRow> newest(long component, int limit);

    /** A branch that moved. */
    record PushRow(String branch, String commitId) {}

    @Select("select branch, commit_id from trigger_event where component_id = #{component} and kind = 'push' and "
            + "branch is not null order by id desc limit #{limit}")
    List<PushRow> pushes(long component, int limit);

    /** A version that was to be deployed in an environment. */
    record ProposedRow(long deployment, String component, long version, String number, @Nullable Long run,
            String branch, @Nullable String commitId, boolean trusted) {}

    @Select("""
            select d.id as deployment, c.name as component, v.id as version, v.number, v.run_id as run, l.branch,
              v.commit_id, v.trusted
            from place p join deployment d on d.place_id = p.id join version v on v.id = d.version_id
            join component c on c.id = v.component_id join line l on l.id = v.line_id
            where p.environment_id = (select id from environment where name = #{environment}) and d.kind = 'promotion'
            order by d.id desc limit #{limit}""")
    List<ProposedRow> proposed(String environment, int limit);

    /** The newest attempt of each variant of a stage. */
    @Select("""
            select s.id from stage s where s.run_id = #{run} and s.name = #{name} and s.attempt = (select max(t.attempt)
              from stage t where t.run_id = s.run_id and t.name = s.name and t.variant = s.variant)
            order by s.position""")
    List<Long> stages(long run, String name);
}
