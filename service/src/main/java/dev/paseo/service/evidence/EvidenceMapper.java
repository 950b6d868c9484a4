package dev.paseo.service.evidence;

import dev.paseo.core.evidence.Parts.Part;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface EvidenceMapper {

    record BodyRow(long run, long number, String commitId, String stage, String variant, int attempt, String kind,
            String body, Instant at) {}

    String SELECT = """
            select e.run_id as run, r.number, r.commit_id, s.name as stage, s.variant, s.attempt, e.kind, e.body, e.at
            from evidence e join run r on r.id = e.run_id join stage s on s.id = e.stage_id
            """;

    @Insert("""
            insert into evidence (run_id, stage_id, kind, origin, body, at)
            values (#{run}, #{stage}, #{kind}, #{origin}, #{body}, #{at})""")
    int add(long run, long stage, String kind, String origin, String body, Instant at);

    @Insert("insert into evidence (version_id, kind, origin, body, at) values (#{version}, #{kind}, #{origin}, "
            + "#{body}, #{at})")
    int addOfVersion(long version, String kind, String origin, String body, Instant at);

    @Insert("""
            insert into evidence (deployment_id, version_id, environment_id, kind, origin, body, at)
            values (#{tested.deployment}, #{tested.version}, #{tested.environmentId}, #{kind}, #{origin}, #{body},
              #{at})""")
    int addOfDeployment(Evidence.Tested tested, String kind, String origin, String body, Instant at);

    @Select("select last_insert_id()")
    long addedLast();

    @Insert("""
            <script>insert into part (evidence_id, name, version, licence) values
            <foreach collection="parts" item="part" separator=",">(#{evidence}, #{part.name}, #{part.version},
              #{part.licence})</foreach></script>""")
    int addParts(@Param("evidence") long evidence, @Param("parts") List<Part> parts);

    @Select("select p.name, p.version, p.licence from part p join evidence e on e.id = p.evidence_id "
            + "where e.stage_id = #{stage} order by p.name, p.version")
    List<Part> partsOfStage(long stage);

    /** The evidence that counts for a version: as {@link #ofVersionAndRun} has it, without what environments have. */
    @Select("""
            select p.name, p.version, p.licence from part p where p.evidence_id in (
              select max(x.id) from evidence x join stage s on s.id = x.stage_id
                where x.run_id = #{run} and x.kind = 'parts' group by s.name, s.variant
              union all select e.id from evidence e
                where e.version_id = #{version} and e.environment_id is null and e.kind = 'parts'
              union all select e.id from run r join evidence e on e.run_id = r.id
                where r.arrived_version_id = #{version} and e.kind = 'parts')
            order by p.name, p.version""")
    List<Part> partsOfVersion(long version, @Nullable Long run);

    @Select("""
            select exists (select 1 from evidence where version_id = #{version} and kind = #{kind} and file = #{file}
              and environment_id <=> #{environment})""")
    boolean has(long version, @Nullable Long environment, String kind, String file);

    @Insert("""
            insert into evidence (version_id, environment_id, kind, origin, body, at, added_by, file)
            values (#{version}, #{environment}, #{kind}, 'added', #{body}, #{at}, #{by}, #{file})""")
    int addAdded(long version, @Nullable Long environment, String kind, String body, Instant at, long by, String file);

    record AddedRow(String kind, @Nullable String environment, String by, Instant at, String file, String body) {}

    @Select("""
            select e.kind, n.name as environment, a.name as `by`, e.at, e.file, e.body from evidence e
            join account a on a.id = e.added_by left join environment n on n.id = e.environment_id
            where e.version_id = #{version} order by e.id""")
    List<AddedRow> added(long version);

    record VersionRow(String kind, String origin, String body, Instant at) {}

    /** What arrived with a version, and what the runs that its arrival started reported. */
    @Select("""
            select e.kind, e.origin, e.body, e.at from evidence e where e.version_id = #{version}
            union all select e.kind, concat(c.name, '#', r.number), e.body, e.at from run r join evidence e on
              e.run_id = r.id join component c on c.id = r.component_id
            where r.arrived_version_id = #{version} order by at""")
    List<VersionRow> ofVersion(long version);

    @Insert("insert ignore into test_failure (run_id, stage_id, name) values (#{run}, #{stage}, #{name})")
    int addFailure(long run, long stage, String name);

    @Select(SELECT + "where e.run_id = #{run} order by s.position, s.attempt, e.id")
    List<BodyRow> ofRun(long run);

    @Select("select '' as stage, e.kind, e.body from evidence e where e.stage_id = #{stage} order by e.id")
    List<KindRow> ofStage(long stage);

    @Select("""
            select '' as stage, e.kind, e.body from evidence e where e.deployment_id = #{deployment}
              and e.origin like concat('deployment ', #{deployment}, ' in %, ', #{test}) order by e.id desc limit 1""")
    List<KindRow> ofTest(long deployment, String test);

    /** {@code stage} is empty for what no stage reported. */
    record KindRow(String stage, String kind, String body) {}

    record FactRow(@Nullable String environment, String stage, String kind, String body) {}

    /**
     * The newest reports of each stage of its run, of what its arrival started, and of the newest tests in each
     * environment.
     */
    @Select("""
            select null as environment, n.name as stage, e.kind, e.body from evidence e join stage n on n.id =
              e.stage_id where e.id in
              (select max(x.id) from evidence x join stage s on s.id = x.stage_id where x.run_id = #{run} group by
                s.name, s.variant, x.kind)
            union all select null, '', e.kind, e.body from evidence e where e.version_id = #{version} and
              e.environment_id is null
            union all select null, coalesce(s.name, ''), e.kind, e.body from run r join evidence e on e.run_id = r.id
              left join stage s on s.id = e.stage_id where r.arrived_version_id = #{version}
            union all select n.name, '', e.kind, e.body from evidence e join environment n on n.id = e.environment_id
              where e.version_id = #{version} and e.added_by is not null
            union all select n.name, '', e.kind, e.body from evidence e join environment n on n.id = e.environment_id
              where e.version_id = #{version} and e.deployment_id = (select max(x.deployment_id) from evidence x where
              x.version_id = #{version} and x.environment_id = n.id)""")
    List<FactRow> ofVersionAndRun(long version, @Nullable Long run);

    /** The newest run of the same line before this one that has evidence of this kind from this stage. */
    @Select("""
            select max(e.run_id) from evidence e join stage s on s.id = e.stage_id join run r on r.id = e.run_id
            where r.line_id = (select line_id from run where id = #{run}) and e.run_id < #{run} and e.kind = #{kind}
              and s.name = #{stage} and s.variant = #{variant}""")
    Optional<Long> before(long run, String kind, String stage, String variant);

    @Select("select distinct name from test_failure where run_id = #{run}")
    List<String> failed(long run);

    record TrendRow(long run, long number, String commitId, String stage, String kind, String body) {}

    /** What the newest runs of a line, up to this one, reported; the newest first. */
    @Select("""
            select e.run_id as run, r.number, r.commit_id, concat(s.name, ' ', s.variant) as stage, e.kind, e.body
            from (select id, number, commit_id from run where line_id = (select line_id from run where id = #{run})
              and id <= #{run}
                  order by id desc limit #{runs}) r join evidence e on e.run_id = r.id
            join stage s on s.id = e.stage_id order by e.run_id desc, e.id""")
    List<TrendRow> trend(long run, int runs);
}
