package dev.paseo.service.preview;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface PreviewMapper {

    record TemplateRow(long environmentId, String name, String body, long setBy) {}

    String TEMPLATE = "select t.environment_id, e.name, t.body, t.set_by from preview_template t join environment e "
            + "on e.id = t.environment_id ";

    @Select(TEMPLATE + "where e.retired_at is null order by e.name")
    List<TemplateRow> templates();

    @Select(TEMPLATE + "where t.environment_id = #{id} for update")
    TemplateRow lock(long id);

    record PreviewRow(long environmentId, String environment, long templateId, String template, long componentId,
            String component, String branch, String owner,
            int port, Instant createdAt, Instant pushedAt, @Nullable String removing, @Nullable Instant triedAt,
            @Nullable Instant removedAt) {}

    String SELECT = """
            select p.environment_id, e.name as environment, p.template_id, t.name as template, p.component_id, c.name
              as component, p.branch, p.owner, p.port,
              p.created_at, p.pushed_at, p.removing, p.tried_at, p.removed_at
            from preview p join environment e on e.id = p.environment_id join environment t on t.id = p.template_id
              join component c on c.id = p.component_id
            """;

    @Select(SELECT + "where p.removed_at is null order by p.created_at desc")
    List<PreviewRow> there();

    @Select(SELECT + "where p.component_id = #{component} and p.branch = #{branch}")
    Optional<PreviewRow> of(long component, String branch);

    @Select(SELECT + "where e.name = #{environment} and p.removed_at is null")
    Optional<PreviewRow> named(String environment);

    @Insert("""
            insert into preview (environment_id, template_id, component_id, branch, owner, port, created_at, pushed_at)
            values (#{environment}, #{template}, #{component}, #{branch}, #{owner}, #{port}, #{now}, #{now})
            on duplicate key update template_id = values(template_id), owner = values(owner), port = values(port),
              created_at = values(created_at),
              pushed_at = values(pushed_at), removing = null, tried_at = null, removed_at = null""")
    int add(long environment, long template, long component, String branch, String owner, int port, Instant now);

    @Update("update preview set pushed_at = #{now}, owner = #{owner} where environment_id = #{environment}")
    int pushed(long environment, String owner, Instant now);

    @Update("update preview set removing = coalesce(removing, #{why}), tried_at = #{now} where environment_id = "
            + "#{environment} and removed_at is null")
    int removing(long environment, String why, Instant now);

    @Update("update preview set removed_at = #{now} where environment_id = #{environment} and removed_at is null")
    int removed(long environment, Instant now);

    @Select("select id from place where environment_id = #{environment}")
    long place(long environment);

    @Select("""
            select a.name from agent a join host h on h.id = a.host_id where h.name = #{host}
            union select a.name from host h join agent a on a.id = h.served_by where h.name = #{host} limit 1""")
    Optional<String> agent(String host);
}
