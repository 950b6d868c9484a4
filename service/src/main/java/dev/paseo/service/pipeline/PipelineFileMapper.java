package dev.paseo.service.pipeline;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface PipelineFileMapper {

    String FILE = "select id, component_id, text, problems, pieces from pipeline_file ";

    record FileRow(long id, long componentId, String text, String problems, String pieces) {}

    @Insert("""
            insert ignore into pipeline_file (component_id, commit_id, path, text, problems, pieces, read_at)
            values (#{component}, #{commit}, #{path}, #{text}, #{problems}, #{pieces}, #{at})""")
    int keep(long component, String commit, String path, String text, String problems, String pieces, Instant at);

    /** As it was put together last. */
    @Select(FILE + "where component_id = #{component} and commit_id = #{commit} and path = #{path} "
            + "order by id desc limit 1")
    Optional<FileRow> newest(long component, String commit, String path);

    @Select(FILE + "where component_id = #{component} and commit_id = #{commit} and path = #{path} "
            + "and pieces = #{pieces}")
    Optional<FileRow> of(long component, String commit, String path, String pieces);

    @Select(FILE + "where id = #{id}")
    FileRow byId(long id);

    @Select("select pipeline_file_id from run where id = #{run}")
    long ofRun(long run);

    /** Every text of the file that was seen, the newest first. */
    @Select("""
            select commit_id, text, json_length(problems) as problems, read_at from pipeline_file
            where component_id = #{component} order by id desc limit #{limit}""")
    List<SeenText> history(long component, int limit);

    /** Branches at a commit have the file as it was put together last. */
    @Update("update head set pipeline_file_id = #{file} where component_id = #{component} and commit_id = #{commit}")
    int putInForce(long component, String commit, long file);

    /** @param named the name by which the file names the component whose piece it is */
    record UseRow(long component, String named, String place, String piece, String wanted, long version, String digest,
            @Nullable String within) {}

    @Insert("""
            insert ignore into piece_use (file_id, position, place, piece, component_id, named, wanted, version_id,
              digest, within)
            values (#{file}, #{position}, #{use.place}, #{use.piece}, #{use.component}, #{use.named}, #{use.wanted},
              #{use.version}, #{use.digest}, #{use.within})""")
    int addUse(long file, int position, UseRow use);

    record ComponentRow(long id, String name) {}

    /** By its name, or one that it had. */
    @Select("""
            select id, name from component where name = #{name}
            union select c.id, c.name from former_name f join component c on c.id = f.component_id
            where f.name = #{name} limit 1""")
    Optional<ComponentRow> named(String name);

    @Select("select name from component order by name")
    List<String> names();

    @Select("select 1 from component_source where component_id = #{component} and source_id = #{source}")
    Optional<Integer> opened(long component, long source);

    /** @param file of the run that built it; none: it arrived from elsewhere */
    record ReleaseRow(long version, String component, String number, @Nullable Long file, boolean trusted,
            boolean blocked) {}

    String RELEASE = "select v.id as version, c.name as component, v.number, r.pipeline_file_id as file, "
            + "v.trusted, v.blocked_at is not null as blocked from version v join component c on c.id = v.component_id "
            + "left join run r on r.id = v.run_id ";

    /** Those built from trusted branches, the newest first; blocked ones too. */
    @Select(RELEASE + "where v.component_id = #{component} and v.trusted order by v.id desc limit 500")
    List<ReleaseRow> releases(long component);

    @Select(RELEASE + """
            where v.id = (select d.version_id from place p join environment e on e.id = p.environment_id
              join deployment d on d.id = p.live_deployment_id
              where p.component_id = #{component} and e.name = #{environment})""")
    Optional<ReleaseRow> liveIn(long component, String environment);

    @Select(RELEASE + "where v.component_id = #{component} and v.number = #{number}")
    Optional<ReleaseRow> numbered(long component, String number);

    /** What a file was put together from, with the versions as they are named now. */
    record RecordedRow(String named, String wanted, String component, String number, long file) {}

    @Select("""
            select u.named, u.wanted, c.name as component, v.number, r.pipeline_file_id as file from piece_use u
            join version v on v.id = u.version_id join component c on c.id = v.component_id
            join run r on r.id = v.run_id where u.file_id = #{file}""")
    List<RecordedRow> recorded(long file);
}
