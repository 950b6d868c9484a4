package dev.paseo.service.find;

import dev.paseo.core.deployment.DeploymentStatus;
import dev.paseo.core.run.RunStatus;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Each by the beginning of what it is named by, so that an index leads there; texts are patterns of {@code like}. */
@Mapper
interface FindMapper {

    int MOST = 8;

    record NameRow(String name, boolean retired) {}

    /** Those that begin so come first. */
    @Select("select name, retired_at is not null as retired from component where name like #{part} "
            + "order by name not like #{beginning}, length(name), name limit " + MOST)
    List<NameRow> components(String part, String beginning);

    @Select("select name, retired_at is not null as retired from environment where name like #{part} "
            + "order by name not like #{beginning}, id limit " + MOST)
    List<NameRow> environments(String part, String beginning);

    @Select("select name from account where name like #{beginning} order by name limit " + MOST)
    List<String> accounts(String beginning);

    /** Parts of versions, by the beginning of their whole name or of its last word. */
    @Select("select name from ((select distinct name from part where short_name like #{beginning} limit " + MOST
            + ") union (select distinct name from part where name like #{beginning} limit " + MOST
            + ")) p order by length(name), name limit " + MOST)
    List<String> packages(String beginning);

    record VersionRow(String component, String number, Instant sealedAt, @Nullable String artifact) {}

    String VERSION = "select c.name as component, v.number, v.sealed_at, null as artifact from version v "
            + "join component c on c.id = v.component_id ";

    /** Of whatever component; in the order of the numbers, so that few rows are read however many begin so. */
    @Select("select c.name as component, v.number, v.sealed_at, null as artifact from (select component_id, number, "
            + "sealed_at from version where number like #{beginning} order by number desc limit " + MOST + ") v "
            + "join component c on c.id = v.component_id order by v.number desc, c.name")
    List<VersionRow> versions(String beginning);

    /** The very one first, then the newest. */
    @Select(VERSION + "where c.name = #{component} and v.number like #{beginning} "
            + "order by v.number <> #{number}, v.id desc limit " + MOST)
    List<VersionRow> versionsOf(String component, String beginning, String number);

    record RunRow(String component, long number, RunStatus status, String branch, String commitId,
            String commitSummary) {}

    String RUN = "select c.name as component, r.number, r.status, r.branch, r.commit_id, r.commit_summary from run r "
            + "join component c on c.id = r.component_id ";

    @Select(RUN + "where c.name like #{component} and r.number = #{number} order by length(c.name) limit " + MOST)
    List<RunRow> runs(String component, long number);

    @Select(RUN + "where r.commit_id like #{beginning} order by r.id desc limit " + MOST)
    List<RunRow> ofCommit(String beginning);

    @Select("select c.name as component, v.number, v.sealed_at, a.name as artifact from version_artifact a "
            + "join version v on v.id = a.version_id join component c on c.id = v.component_id "
            + "where a.digest like #{beginning} limit " + MOST)
    List<VersionRow> ofArtifact(String beginning);

    @Select(VERSION + "where v.digest like #{beginning} limit " + MOST)
    List<VersionRow> ofDigest(String beginning);

    record DeploymentRow(long id, String component, String version, String environment, DeploymentStatus status) {}

    @Select("select d.id, c.name as component, v.number as version, e.name as environment, d.status "
            + "from deployment d join place p on p.id = d.place_id join component c on c.id = p.component_id "
            + "join environment e on e.id = p.environment_id join version v on v.id = d.version_id where d.id = #{id}")
    Optional<DeploymentRow> deployment(long id);
}
