package dev.paseo.service.quota;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface QuotaMapper {

    /** How much one has kept; {@code told} whether people heard that it is nearly all. */
    record KeptRow(long componentId, String component, long bytes, boolean told) {}

    @Select("select k.component_id, c.name as component, k.bytes, k.told from component_bytes k join component c on "
            + "c.id = k.component_id")
    List<KeptRow> all();

    @Select("select k.component_id, c.name as component, k.bytes, k.told from component_bytes k join component c on "
            + "c.id = k.component_id where k.component_id = #{component}")
    Optional<KeptRow> of(long component);

    @Insert("insert into component_bytes (component_id, bytes) values (#{component}, #{bytes}) on duplicate key "
            + "update bytes = bytes + #{bytes}")
    int add(long component, long bytes);

    @Update("update component_bytes set told = #{told} where component_id = #{component} and told <> #{told}")
    int told(long component, boolean told);

    /** Whose work it is: a stage's, or a host's. */
    @Select("""
            select coalesce(r.component_id, p.component_id) from work w left join run r on r.id = w.run_id
            left join deployment d on d.id = w.deployment_id left join place p on p.id = d.place_id where w.id =
              #{work}""")
    Optional<Long> ofWork(long work);

    @Select("select name from component where id = #{component}")
    String name(long component);
}
