package dev.paseo.service.run;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface StageFileMapper {

    record FilesRow(long stageId, String stage, String variant, int attempt, String digest, long size, String paths) {}

    @Insert("""
            insert into stage_files (stage_id, run_id, digest, size, paths) values (#{stage}, #{run}, #{digest},
              #{size}, #{paths})
            on duplicate key update digest = values(digest), size = values(size), paths = values(paths)""")
    int add(long stage, long run, String digest, long size, String paths);

    /** What the newest attempt of each stage left. */
    @Select("""
            select f.stage_id, s.name as stage, s.variant, s.attempt, f.digest, f.size, f.paths
            from stage_files f join stage s on s.id = f.stage_id
            where f.run_id = #{run} and s.attempt = (select max(x.attempt) from stage x where x.run_id = s.run_id and
              x.name = s.name and x.variant = s.variant)
            order by s.position""")
    List<FilesRow> files(long run);

    record ReuseRow(String digest, long size, String keyDigest, String run) {}

    /**
     * What was kept under the key, else the newest under another; what was kept for this scope before what was kept for
     * all.
     */
    @Select("""
            select k.digest, k.size, k.key_digest, concat(c.name, '#', r.number) as run
            from reuse_cache k join run r on r.id = k.run_id join component c on c.id = k.component_id
            where k.component_id = #{component} and k.name = #{name} and k.scope in (#{scope}, '')
            order by k.key_digest = #{key} desc, k.scope = #{scope} desc, k.id desc limit 1""")
    Optional<ReuseRow> reused(long component, String scope, String name, String key);

    @Insert("""
            insert ignore into reuse_cache (component_id, scope, name, key_digest, digest, size, run_id, kept_at)
            values (#{component}, #{scope}, #{name}, #{key}, #{digest}, #{size}, #{run}, #{at})""")
    int keep(long component, String scope, String name, String key, String digest, long size, long run, Instant at);
}
