package dev.paseo.service.listing;

import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** By the numbers of the database, which are the cursor as well: the oldest first after one, else the newest. */
@Mapper
interface ListingMapper {

    /**
     * What is asked of runs; null: nothing.
     *
     * @param author a part of the author's name or address
     * @param newest only the newest of each main branch
     */
    record RunsAsked(@Nullable Long component, @Nullable String label, @Nullable String branch,
            @Nullable RunStatus status, @Nullable String author, @Nullable Instant since, @Nullable Instant until,
            boolean newest, long before, @Nullable Long after, int limit) {}

    record RunRow(long id, String component, long number, RunStatus status, String branch, String commitId,
            String commitSummary, String commitAuthor, String version, boolean sealed, @Nullable String reason,
            Instant createdAt, @Nullable Instant startedAt, @Nullable Instant endedAt) {}

    @Select("""
            <script>
            select r.id, c.name as component, r.number, r.status, r.branch, r.commit_id, r.commit_summary,
              r.commit_author, r.version_number as version, exists (select 1 from version v
                where v.component_id = r.component_id and v.number = r.version_number) as sealed,
              r.reason, r.created_at, r.started_at, r.ended_at
            from run r join component c on c.id = r.component_id
            where r.id &lt; #{before}
            <if test="after != null">and r.id &gt; #{after}</if>
            <if test="component != null">and r.component_id = #{component}</if>
            <if test="label != null">and exists (select 1 from component_label l
              where l.component_id = r.component_id and l.value = #{label})</if>
            <if test="branch != null">and r.branch = #{branch}</if>
            <if test="status != null">and r.status = #{status}</if>
            <if test="author != null">and instr(r.commit_author, #{author}) &gt; 0</if>
            <if test="since != null">and r.created_at &gt;= #{since}</if>
            <if test="until != null">and r.created_at &lt; #{until}</if>
            <if test="newest">and r.branch = c.main_branch and r.number = (
              select max(n.number) from run n where n.line_id = r.line_id)</if>
            order by r.id <if test="after == null">desc</if> limit #{limit}
            </script>""")
    List<RunRow> runs(RunsAsked asked);

    /**
     * What is asked of versions; null: nothing.
     *
     * @param environment only what is live there
     */
    record VersionsAsked(@Nullable Long component, @Nullable String label, @Nullable String branch,
            @Nullable String environment, @Nullable Boolean blocked, @Nullable Instant since, @Nullable Instant until,
            long before, @Nullable Long after, int limit) {}

    /** @param live the environments where it is live, between commas */
    record VersionRow(long id, String component, String number, String branch, boolean trusted,
            @Nullable String commitId, @Nullable String commitSummary, @Nullable Long run, Instant sealedAt,
            @Nullable Instant blockedAt, @Nullable String live) {}

    @Select("""
            <script>
            select v.id, c.name as component, v.number, b.branch, v.trusted, v.commit_id, r.commit_summary,
              r.number as run, v.sealed_at, v.blocked_at, (
                select group_concat(e.name order by e.position, e.id separator ',') from deployment d
                join place p on p.live_deployment_id = d.id join environment e on e.id = p.environment_id
                where d.version_id = v.id) as live
            from version v join component c on c.id = v.component_id join line b on b.id = v.line_id
            left join run r on r.id = v.run_id
            where v.id &lt; #{before}
            <if test="after != null">and v.id &gt; #{after}</if>
            <if test="component != null">and v.component_id = #{component}</if>
            <if test="label != null">and exists (select 1 from component_label l
              where l.component_id = v.component_id and l.value = #{label})</if>
            <if test="branch != null">and b.branch = #{branch}</if>
            <if test="environment != null">and exists (select 1 from deployment d
              join place p on p.live_deployment_id = d.id join environment e on e.id = p.environment_id
              where d.version_id = v.id and e.name = #{environment})</if>
            <if test="blocked != null">and (v.blocked_at is not null) = #{blocked}</if>
            <if test="since != null">and v.sealed_at &gt;= #{since}</if>
            <if test="until != null">and v.sealed_at &lt; #{until}</if>
            order by v.id <if test="after == null">desc</if> limit #{limit}
            </script>""")
    List<VersionRow> versions(VersionsAsked asked);
}
