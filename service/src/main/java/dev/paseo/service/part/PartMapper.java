package dev.paseo.service.part;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface PartMapper {

    /** A version with a part, in one version of the part. */
    record HasRow(long versionId, String component, String number, Instant sealedAt, String name, String version,
            String licence) {}

    /**
     * What is looked for.
     *
     * @param name    a whole name, or its last word
     * @param version of the part; null: any
     */
    record Asked(String name, @Nullable String version, int limit) {}

    String PART = """
            select v.id as version_id, v.component_id, v.number, v.sealed_at, p.name, p.version, p.licence
            from part p join evidence e on e.id = p.evidence_id
            """;

    String WHICH = """
            where (p.name = #{name} or p.short_name = #{name}) and (#{version} is null or p.version = #{version})
            """;

    /** Of a stage that was tried again only its newest report counts. */
    @Select("""
            select h.version_id, c.name as component, h.number, h.sealed_at, h.name, h.version, h.licence from (
            """ + PART + "join version v on v.id = e.version_id and e.environment_id is null " + WHICH + """
            union
            """ + PART + "join version v on v.run_id = e.run_id join stage s on s.id = e.stage_id " + WHICH + """
              and e.id = (select max(x.id) from evidence x join stage t on t.id = x.stage_id
                where x.run_id = e.run_id and x.kind = 'parts' and t.name = s.name and t.variant = s.variant)
            union
            """ + PART + "join run r on r.id = e.run_id join version v on v.id = r.arrived_version_id " + WHICH + """
            ) h join component c on c.id = h.component_id
            order by h.version_id desc, h.name, h.version limit #{limit}""")
    List<HasRow> having(Asked asked);

    record LiveRow(long versionId, String environment, long deployment) {}

    /** Where versions are live. */
    @Select("""
            <script>
            select d.version_id, e.name as environment, d.id as deployment from place p
            join deployment d on d.id = p.live_deployment_id join environment e on e.id = p.environment_id
            where d.version_id in <foreach collection="versions" item="each" open="(" separator="," close=")">#{each}
            </foreach> order by e.id</script>""")
    List<LiveRow> live(@Param("versions") List<Long> versions);
}
