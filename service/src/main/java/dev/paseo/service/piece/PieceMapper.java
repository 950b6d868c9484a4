package dev.paseo.service.piece;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface PieceMapper {

    /** A use by a component's main branch. */
    record UseRow(long componentId, String component, long file, String place, String piece, String wanted,
            String version, String digest, @Nullable String within, boolean opened) {}

    @Select("""
            select c.id as component_id, c.name as component, h.pipeline_file_id as file, u.place, u.piece, u.wanted,
              v.number as version, u.digest, u.within,
              u.component_id = c.id or s.component_id is not null as opened
            from piece_use u join head h on h.pipeline_file_id = u.file_id
            join component c on c.id = h.component_id and c.main_branch = h.branch
            join version v on v.id = u.version_id
            left join component_source s on s.component_id = c.id and s.source_id = u.component_id
            where u.component_id = #{component} and u.wanted <> 'the same' and c.retired_at is null
            order by u.piece, c.name, u.position""")
    List<UseRow> uses(long component);

    /** A main branch whose file names pieces and could not be put together yet. */
    record LostRow(long componentId, String component, String text) {}

    @Select("""
            select c.id as component_id, c.name as component, f.text from component c
            join head h on h.component_id = c.id and h.branch = c.main_branch
            join pipeline_file f on f.id = h.pipeline_file_id
            where c.retired_at is null and f.pieces = '' and f.problems = '[]' and f.text like '%like%'
            order by c.name""")
    List<LostRow> lost();

    @Select("select last from counter where component_id = #{component} and scope = #{scope}")
    Optional<Long> counted(long component, String scope);
}
