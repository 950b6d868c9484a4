package dev.paseo.service.hook;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface HookMapper {

    @Insert("insert ignore into hook_delivery (component_id, delivery, received_at) values (#{component}, "
            + "#{delivery}, #{at})")
    int deliver(long component, String delivery, Instant at);

    @Select("select body from hook_mapping where component_id = #{component}")
    Optional<String> mapping(long component);

    @Insert("insert into hook_mapping (component_id, body) values (#{component}, #{body}) on duplicate key update "
            + "body = values(body)")
    int keepMapping(long component, String body);
}
