package dev.paseo.service.trigger;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface PushMapper {

    record PushRow(String branch, String commitId, String pusher, Instant seenAt, @Nullable Long runNumber, @Nullable String reason) {}

    @Insert("insert ignore into hook_delivery (component_id, delivery, received_at) values (#{component}, #{delivery}, #{at})")
    int deliver(long component, String delivery, Instant at);

    @Insert("""
            insert into push (component_id, branch, commit_id, pusher, seen_at, run_id, reason)
            values (#{component}, #{branch}, #{commit}, #{pusher}, #{at}, #{run}, #{reason})""")
    int add(long component, String branch, String commit, String pusher, Instant at, @Nullable Long run, @Nullable String reason);

    @Select("""
            select p.branch, p.commit_id, p.pusher, p.seen_at, r.number as run_number, p.reason
            from push p left join run r on r.id = p.run_id where p.component_id = #{component} order by p.id desc limit #{limit}""")
    List<PushRow> newest(long component, int limit);
}
