package dev.paseo.service.edit;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

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

    /** The newest attempt of each variant of a stage. */
    @Select("""
            select s.id from stage s where s.run_id = #{run} and s.name = #{name} and s.attempt = (select max(t.attempt)
              from stage t where t.run_id = s.run_id and t.name = s.name and t.variant = s.variant)
            order by s.position""")
    List<Long> stages(long run, String name);
}
