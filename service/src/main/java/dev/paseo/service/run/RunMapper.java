package dev.paseo.service.run;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface RunMapper {

    /** A row to be inserted; gets its id. */
    final class NewRun {
        long id;
        final long number;
        final String versionNumber;
        final long line;
        final RunStarts.Start start;
        final String state;
        final Instant at;

        NewRun(long number, String versionNumber, long line, RunStarts.Start start, String state, Instant at) {
            this.number = number;
            this.versionNumber = versionNumber;
            this.line = line;
            this.start = start;
            this.state = state;
            this.at = at;
        }
    }

    record RunRow(long id, long componentId, String component, long number, long lineId, String commitId, String branch, boolean trusted,
            long pipelineFileId, long causeId, String versionNumber, @Nullable String upTo, String commitSummary, String commitAuthor,
            @Nullable String bundle, String status, String state, long revision, @Nullable String reason, Instant createdAt,
            @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    record StageRow(long id, int position, String name, String variant, int attempt, String status, @Nullable String reason,
            @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    record OutputRow(String name, String fileName, String digest, long size) {}

    String COLUMNS = """
            select r.id, r.component_id, c.name as component, r.number, r.line_id, r.commit_id, r.branch, r.trusted, r.pipeline_file_id,
              r.cause_id, r.version_number, r.up_to, r.commit_summary, r.commit_author, r.bundle, r.status, r.state, r.revision, r.reason,
              r.created_at, r.started_at, r.ended_at
            from run r join component c on c.id = r.component_id
            """;

    @Insert("insert ignore into line (component_id, branch) values (#{component}, #{branch})")
    int addLine(long component, String branch);

    @Select("select id from line where component_id = #{component} and branch = #{branch}")
    long line(long component, String branch);

    @Insert("insert into counter (component_id, scope, last) values (#{component}, #{scope}, 1) on duplicate key update last = last + 1")
    int count(long component, String scope);

    @Select("select last from counter where component_id = #{component} and scope = #{scope}")
    Optional<Long> counted(long component, String scope);

    @Insert("insert ignore into reserved_number (component_id, number) values (#{component}, #{number})")
    int reserve(long component, String number);

    @Insert("""
            insert into run (component_id, number, line_id, commit_id, branch, trusted, pipeline_file_id, cause_id, version_number, up_to,
              commit_summary, commit_author, status, state, format, revision, created_at)
            values (#{start.component.id}, #{number}, #{line}, #{start.commit.id}, #{start.branch}, #{start.trusted}, #{start.file},
              #{start.cause}, #{versionNumber}, #{start.upTo}, #{start.summary}, #{start.author}, 'waiting', #{state}, 1, 0, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewRun run);

    @Insert("""
            insert into stage (run_id, position, name, variant, attempt, status)
            values (#{run}, #{position}, #{name}, #{variant}, #{attempt}, 'waiting')""")
    int addStage(long run, int position, String name, String variant, int attempt);

    @Select(COLUMNS + "where r.id = #{id}")
    RunRow byId(long id);

    @Select("select id from run where id = #{id} for update")
    long lock(long id);

    @Select(COLUMNS + "where c.name = #{component} and r.number = #{number}")
    Optional<RunRow> numbered(String component, long number);

    @Select(COLUMNS + "where r.component_id = #{component} and r.number < #{before} order by r.number desc limit #{limit}")
    List<RunRow> newest(long component, long before, int limit);

    @Update("""
            update run set status = #{status}, state = #{state}, reason = #{reason}, revision = revision + 1,
              started_at = #{startedAt}, ended_at = #{endedAt}
            where id = #{id} and revision = #{revision}""")
    int move(long id, long revision, String status, String state, @Nullable String reason, @Nullable Instant startedAt, @Nullable Instant endedAt);

    @Update("update run set bundle = #{bundle} where id = #{id}")
    int bundle(long id, String bundle);

    @Select("""
            select id, position, name, variant, attempt, status, reason, started_at, ended_at from stage
            where run_id = #{run} order by position, attempt""")
    List<StageRow> stages(long run);

    @Select("select id, position, name, variant, attempt, status, reason, started_at, ended_at from stage where id = #{id}")
    StageRow stage(long id);

    @Update("""
            update stage set status = #{status}, reason = #{reason}, started_at = #{startedAt}, ended_at = #{endedAt}
            where id = #{id} and status <> #{status}""")
    int moveStage(long id, String status, @Nullable String reason, @Nullable Instant startedAt, @Nullable Instant endedAt);

    @Insert("""
            insert ignore into run_output (run_id, stage_id, name, file_name, digest, size)
            values (#{run}, #{stage}, #{name}, #{fileName}, #{digest}, #{size})""")
    int addOutput(long run, long stage, String name, String fileName, String digest, long size);

    @Select("select name, file_name, digest, size from run_output where run_id = #{run} order by name")
    List<OutputRow> outputs(long run);
}
