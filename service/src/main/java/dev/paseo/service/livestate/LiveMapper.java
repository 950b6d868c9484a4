package dev.paseo.service.livestate;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface LiveMapper {

    record LiveRow(long place, String text) {}

    /** What is live in places that stay; of one, or of all. */
    @Select("""
            select p.id as place, concat('deployment ', p.live_deployment_id, ' on ', coalesce(p.live_side, 'all'))
              as text from place p join environment e on e.id = p.environment_id
            where not e.temporary and p.live_deployment_id is not null and (#{place} is null or p.id = #{place})""")
    List<LiveRow> whatIsLive(@Nullable Long place);
}
