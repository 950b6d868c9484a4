package dev.paseo.service.run;

import java.util.Locale;
import dev.paseo.core.run.StageStatus;
import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
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
        final String answers;
        final String newerStart;
        final @Nullable Long arrived;
        final Instant at;

        NewRun(long number, String versionNumber, long line, RunStarts.Start start, String state, String answers,
                Instant at) {
            this.number = number;
            this.versionNumber = versionNumber;
            this.line = line;
            this.start = start;
            this.state = state;
            this.answers = answers;
            this.newerStart = start.plan().newerStart().name().toLowerCase(Locale.ROOT);
            this.arrived = start.reason().arrived().map(RunStarts.Arrived::version).orElse(null);
            this.at = at;
        }
    }

    record StageRow(long id, int position, String name, String variant, int attempt, StageStatus status,
            @Nullable String reason,
            @Nullable String reused, @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    record OutputRow(String name, String fileName, String digest, long size) {}

    String COLUMNS = """
            select r.id, r.component_id, (select c.name from component c where c.id = r.component_id) as component,
              r.number, r.line_id, r.commit_id, r.branch, r.trusted, r.pipeline_file_id,
              r.cause_id, r.version_number, exists (select 1 from version v
                where v.component_id = r.component_id and v.number = r.version_number)
                as version_sealed, r.up_to, r.commit_summary, r.commit_author, r.bundle,
                r.arrived_version_id, r.answers, r.status, r.state, r.format, r.revision, r.reason,
              r.created_at, r.started_at, r.ended_at
            from run r
            """;

    @Insert("insert ignore into line (component_id, branch) values (#{component}, #{branch})")
    int addLine(long component, String branch);

    @Select("select id from line where component_id = #{component} and branch = #{branch}")
    long line(long component, String branch);

    @Insert("insert into counter (component_id, scope, last) values (#{component}, #{scope}, 1) on duplicate key "
            + "update last = last + 1")
    int count(long component, String scope);

    @Select("select last from counter where component_id = #{component} and scope = #{scope}")
    Optional<Long> counted(long component, String scope);

    @Insert("insert ignore into reserved_number (component_id, number) values (#{component}, #{number})")
    int reserve(long component, String number);

    @Insert("""
            insert into run (component_id, number, line_id, commit_id, branch, trusted, pipeline_file_id, cause_id,
              version_number, up_to,
              commit_summary, commit_author, committed_at, answers, newer_start, arrived_version_id, status, state,
                format, revision, created_at)
            values (#{start.component.id}, #{number}, #{line}, #{start.commit.id}, #{start.branch}, #{start.trusted},
              #{start.file},
              #{start.cause}, #{versionNumber}, #{start.upTo}, #{start.summary}, #{start.author}, #{start.commit.at},
              #{answers},
              #{newerStart}, #{arrived}, 'waiting', #{state}, 2, 0, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewRun run);

    @Insert("insert into run_upstream (run_id, component_id, version_id) values (#{run}, #{upstream.component}, "
            + "#{upstream.version})")
    int addUpstream(long run, RunStarts.Upstream upstream);

    @Insert("""
            insert into stage (run_id, position, name, variant, attempt, status)
            values (#{run}, #{position}, #{name}, #{variant}, #{attempt}, #{status})""")
    int addStage(long run, int position, String name, String variant, int attempt, StageStatus status);

    @Select(COLUMNS + "where r.id = #{id}")
    Run byId(long id);

    /** The run, locked until the transaction ends. */
    @Select(COLUMNS + "where r.id = #{id} for update")
    Run locked(long id);

    @Select(COLUMNS
            + "where r.component_id = coalesce((select id from component where name = #{component}), (select "
            + "component_id from former_name where name = #{component})) and r.number = #{number}")
    Optional<Run> numbered(String component, long number);

    /** What a decision makes of a run. */
    record Moved(long id, long revision, RunStatus status, String state, boolean prepared, @Nullable String reason,
            @Nullable Instant startedAt,
            @Nullable Instant endedAt, @Nullable Instant wakeAt) {}

    @Update("""
            update run set status = #{status}, state = #{state}, format = 2, prepared = #{prepared}, reason =
              #{reason}, revision = revision + 1,
              started_at = #{startedAt}, ended_at = #{endedAt}, wake_at = #{wakeAt}
            where id = #{id} and revision = #{revision}""")
    int move(Moved moved);

    @Select("select status from run where component_id = #{component} and branch = #{branch} order by number desc "
            + "limit 1")
    Optional<String> newestStatus(long component, String branch);

    record MemberRow(long id, long number, RunStatus status, boolean prepared, String newerStart) {}

    /** The runs of a line that have not ended. */
    @Select("""
            select id, number, status, prepared, newer_start from run
            where line_id = #{line} and status in ('waiting', 'running', 'cancelling') order by number""")
    List<MemberRow> open(long line);

    @Select("select id from line where id = #{line} for update")
    long lockLine(long line);

    @Select("select id from run where status in ('waiting', 'running', 'cancelling') and wake_at < #{now} order by "
            + "wake_at limit 50")
    List<Long> late(Instant now);

    @Update("update run set bundle = #{bundle} where id = #{id}")
    int bundle(long id, String bundle);

    @Select("""
            select id, position, name, variant, attempt, status, reason, reused, started_at, ended_at from stage
            where run_id = #{run} order by position, attempt""")
    List<StageRow> stages(long run);

    /** Where a stage of a run is now. */
    record StageMove(long run, String name, String variant, int attempt, StageStatus status, @Nullable String reason,
            boolean begins, boolean ends, Instant now) {}

    @Update("""
            update stage set status = #{status}, reason = #{reason}, started_at = if(#{begins}, #{now}, started_at),
              ended_at = if(#{ends}, #{now}, null)
            where run_id = #{run} and name = #{name} and variant = #{variant} and attempt = #{attempt}""")
    int moveStage(StageMove move);

    @Update("update stage set reused = #{reused} where id = #{id}")
    int reused(long id, String reused);

    @Delete("""
            delete o from run_output o join stage s on s.id = o.stage_id
            where o.run_id = #{run} and s.name = #{name} and s.variant = #{variant} and s.attempt < #{attempt}""")
    int dropOutputs(long run, String name, String variant, int attempt);

    @Insert("""
            insert ignore into run_output (run_id, stage_id, name, file_name, digest, size)
            values (#{run}, #{stage}, #{name}, #{fileName}, #{digest}, #{size})""")
    int addOutput(long run, @Nullable Long stage, String name, String fileName, String digest, long size);

    @Select("select name, file_name, digest, size from run_output where run_id = #{run} order by name")
    List<OutputRow> outputs(long run);

    /** How the run of a line before this one ended. */
    @Select("select status from run where line_id = #{line} and id < #{run} and ended_at is not null and status <> "
            + "'cancelled' order by id desc limit 1")
    Optional<String> endedBefore(long line, long run);
}
