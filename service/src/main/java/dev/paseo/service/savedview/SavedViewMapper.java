package dev.paseo.service.savedview;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface SavedViewMapper {

    record ViewRow(long id, String name, String address, boolean shared, String account) {}

    String COLUMNS = "select s.id, s.name, s.address, s.shared, a.name as account from saved_view s "
            + "join account a on a.id = s.account_id ";

    /** One's own, and those that are for everybody. */
    @Select(COLUMNS + "where s.account_id = #{account} or s.shared order by s.name, s.id")
    List<ViewRow> seenBy(long account);

    @Select(COLUMNS + "where s.id = #{id}")
    Optional<ViewRow> byId(long id);

    @Select("select count(*) from saved_view where account_id = #{account}")
    int count(long account);

    /** Under a name that one has already, it takes that one's place. */
    @Insert("""
            insert into saved_view (account_id, name, address, shared, created_at)
            values (#{account}, #{name}, #{address}, #{shared}, #{now})
            on duplicate key update address = values(address), shared = values(shared)""")
    int keep(long account, String name, String address, boolean shared, Instant now);

    @Delete("delete from saved_view where id = #{id}")
    int drop(long id);
}
