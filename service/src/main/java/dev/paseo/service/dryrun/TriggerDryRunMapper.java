package dev.paseo.service.dryrun;

import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What happened that triggers could have been for. */
@Mapper
interface TriggerDryRunMapper {

    record OwnRow(long id, String kind, @Nullable String branch, @Nullable String commitId, String sentence,
            long causeId,
            Instant at) {}

    /** Pushes, tags and arrivals of a component, the newest first. */
    @Select("""
            select id, kind, branch, commit_id, sentence, cause_id, at from trigger_event
            where component_id = #{component} and kind in ('push', 'tag', 'arrival') and at >= #{since}
              and cause_id is not null order by id desc limit #{most}""")
    List<OwnRow> own(long component, Instant since, int most);

    record EndedRow(String component, long number, String branch, String mainBranch, RunStatus status, Instant endedAt,
            @Nullable String repository) {}

    /** Runs of other components that ended, the newest first. */
    @Select("""
            <script>
            select c.name as component, r.number, r.branch, c.main_branch, r.status, r.ended_at, c.repository
            from run r join component c on c.id = r.component_id
            where c.name in <foreach collection="components" item="name" open="(" separator=","
              close=")">#{name}</foreach> and r.ended_at &gt;= #{since}
            order by r.ended_at desc limit #{most}
            </script>""")
    List<EndedRow> ended(List<String> components, Instant since, int most);

    record LiveRow(String component, String version, String environment, Instant liveAt) {}

    /** When versions of other components went live somewhere for the first time, the newest first. */
    @Select("""
            <script>
            select c.name as component, v.number as version, e.name as environment, min(d.live_at) as live_at
            from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id
              join environment e on e.id = p.environment_id join version v on v.id = d.version_id
            where c.name in <foreach collection="components" item="name" open="(" separator=","
              close=")">#{name}</foreach> and d.live_at is not null
            group by v.id, e.id having min(d.live_at) &gt;= #{since} order by live_at desc limit #{most}
            </script>""")
    List<LiveRow> live(List<String> components, Instant since, int most);
}
