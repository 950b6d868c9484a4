package dev.paseo.service.edit;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface NamesMapper {

    @Select("""
            select c.name from component_source s join component c on c.id = s.source_id
            where s.component_id = #{component} and c.retired_at is null order by c.name""")
    List<String> sources(long component);

    record ArtifactRow(String component, String artifact, String version) {}

    /** Of the newest version that is not blocked of each component that is opened to this one. */
    @Select("""
            select c.name as component, a.name as artifact, v.number as version
            from component_source s join component c on c.id = s.source_id
            join version v on v.id = (
              select max(newest.id) from version newest where newest.component_id = c.id and newest.blocked_at is null)
            join version_artifact a on a.version_id = v.id
            where s.component_id = #{component} and c.retired_at is null order by c.name, a.name""")
    List<ArtifactRow> artifacts(long component);
}
