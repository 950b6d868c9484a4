package dev.paseo.service.notice;

import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface FollowingMapper {

    /** @param name a component's or an environment's name, or a deployment's number */
    record FollowedRow(String what, String name) {}

    @Select("""
            select f.what, coalesce(c.name, e.name, f.thing_id) as name from following f
            left join component c on f.what = 'component' and c.id = f.thing_id
            left join environment e on f.what = 'environment' and e.id = f.thing_id
            where f.account_id = #{account} order by f.what, name""")
    List<FollowedRow> of(long account);

    @Select("select id from deployment where id = #{id}")
    Optional<Long> deployment(long id);

    @Insert("insert ignore into following (account_id, what, thing_id) values (#{account}, #{what}, #{thing})")
    int follow(long account, String what, long thing);

    @Delete("delete from following where account_id = #{account} and what = #{what} and thing_id = #{thing}")
    int leave(long account, String what, long thing);
}
