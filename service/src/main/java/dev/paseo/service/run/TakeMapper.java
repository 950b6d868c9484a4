package dev.paseo.service.run;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface TakeMapper {

    /** A version that was chosen, and why. */
    record Choice(long version, String number, String because, boolean trusted) {}

    record FileRow(String name) {}

    /** Whether a source is open to all branches of a component; empty where it is not opened at all. */
    @Select("select all_branches from component_source where component_id = #{component} and source_id = #{source}")
    Optional<Boolean> opened(long component, long source);

    /** The components whose pieces a file has, and which are opened to trusted branches alone. */
    @Select("""
            select distinct c.name from piece_use u join component c on c.id = u.component_id
            join component_source s on s.component_id = #{component} and s.source_id = u.component_id
            where u.file_id = #{file} and not s.all_branches order by c.name""")
    List<String> piecesOfTrusted(long file, long component);

    @Select("select name from version_artifact where version_id = #{version} order by name")
    List<FileRow> artifacts(long version);

    @Select("""
            select id as version, number, 'the newest' as because, trusted from version
            where component_id = #{component} and trusted and blocked_at is null order by id desc limit 1""")
    Optional<Choice> newest(long component);

    @Select("select id as version, number, 'it came with what started this run' as because, trusted from version "
            + "where id = #{version} and blocked_at is null")
    Optional<Choice> cameWith(long version);

    @Select("""
            select id as version, number, '' as because, trusted from version
            where component_id = #{component} and trusted and blocked_at is null order by id desc limit 500""")
    List<Choice> trusted(long component);

    @Select("""
            select v.id as version, v.number, concat('as in #', r.number, ', the run of its branch before') as
              because, v.trusted
            from run r join run_take t on t.run_id = r.id join version v on v.id = t.version_id
            where r.line_id = #{line} and v.component_id = #{component} and v.blocked_at is null order by r.number
              desc limit 1""")
    Optional<Choice> lastUsed(long line, long component);

    @Select("""
            select v.id as version, v.number, concat('live in ', e.name) as because, v.trusted
            from place p join environment e on e.id = p.environment_id join deployment d on d.id = p.live_deployment_id
            join version v on v.id = d.version_id where p.component_id = #{component} and e.name = #{environment}""")
    Optional<Choice> liveIn(long component, String environment);

    @Insert("""
            insert into run_take (run_id, stage, position, version_id, artifact, into_folder, because)
            values (#{run}, #{take.stage}, #{position}, #{take.version}, #{take.artifact}, #{take.into},
              #{take.because})""")
    int add(long run, int position, Takes.Decided take);

    @Select("""
            select t.stage, c.name as component, v.number as version, t.artifact, a.file_name, a.digest, a.size,
              t.into_folder, t.because
            from run_take t join version v on v.id = t.version_id join component c on c.id = v.component_id
            join version_artifact a on a.version_id = v.id and a.name = t.artifact
            where t.run_id = #{run} order by t.stage, t.position""")
    List<Taken> taken(long run);
}
