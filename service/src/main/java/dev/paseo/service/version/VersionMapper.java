package dev.paseo.service.version;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface VersionMapper {

    /** A row to be inserted; gets its id. */
    final class NewVersion {
        long id;
        final long component;
        final Versions.Outcome outcome;
        final String recipe;
        final String route;
        final String digest;
        final Instant at;

        NewVersion(long component, Versions.Outcome outcome, String recipe, String route, String digest, Instant at) {
            this.component = component;
            this.outcome = outcome;
            this.recipe = recipe;
            this.route = route;
            this.digest = digest;
            this.at = at;
        }
    }

    record VersionRow(long id, long componentId, String component, String number, long lineId, long lineOrder,
            String branch, boolean trusted,
            @Nullable Long runId, @Nullable Long runNumber, @Nullable String commitId, String recipe,
            @Nullable String bundle, String route,
            String digest, long causeId, Instant sealedAt, @Nullable Instant blockedAt, @Nullable String origin) {}

    record ArtifactRow(String name, String fileName, String digest, long size) {}

    String SELECT = """
            select v.id, v.component_id, c.name as component, v.number, v.line_id, v.line_order, l.branch, v.trusted,
              v.run_id,
              r.number as run_number, v.commit_id, v.recipe, v.bundle, v.route, v.digest, v.cause_id, v.sealed_at,
                v.blocked_at, v.origin
            from version v join component c on c.id = v.component_id join line l on l.id = v.line_id left join run r
              on r.id = v.run_id
            """;

    @Insert("""
            insert into version (component_id, number, line_id, line_order, trusted, run_id, commit_id, recipe,
              bundle, route, digest,
              cause_id, origin, sealed_at)
            values (#{component}, #{outcome.number}, #{outcome.line}, #{outcome.order}, #{outcome.trusted},
              #{outcome.run},
              #{outcome.commit}, #{recipe}, #{outcome.bundle}, #{route}, #{digest}, #{outcome.cause},
              #{outcome.origin}, #{at})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewVersion version);

    /** The position of a number in a line. */
    @Select("select line_order from version where line_id = #{line} and number = #{number}")
    Optional<Long> orderOf(long line, String number);

    @Insert("insert into version_artifact (version_id, name, file_name, digest, size) values (#{version}, "
            + "#{a.name}, #{a.fileName}, #{a.digest}, #{a.size})")
    int addArtifact(long version, Versions.Artifact a);

    @Insert("insert ignore into version_author (version_id, address) values (#{version}, #{address})")
    int addAuthor(long version, String address);

    @Select("select count(*) from version where line_id = #{line}")
    long count(long line);

    @Select(SELECT + "where v.id = #{id}")
    VersionRow byId(long id);

    @Select(SELECT + "where v.component_id = #{component} and v.number = #{number}")
    Optional<VersionRow> numbered(long component, String number);

    /** By its second name, which a tag gave it. */
    @Select(SELECT
            + "where v.id = (select version_id from version_name where component_id = #{component} and name = #{name})")
    Optional<VersionRow> alsoNamed(long component, String name);

    @Select("select name from version_name where version_id = #{version} order by name")
    List<String> names(long version);

    @Select("select number from version where component_id = #{component} order by id desc limit 200")
    List<String> numbers(long component);

    @Select(SELECT + "where v.component_id = #{component} order by v.id desc limit #{limit}")
    List<VersionRow> newest(long component, int limit);

    @Select("select name, file_name, digest, size from version_artifact where version_id = #{version} order by name")
    List<ArtifactRow> artifacts(long version);
}
