package dev.paseo.service.clock;

import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface ClockMapper {

    @Select("select utc_timestamp(6) + interval micros microsecond from clock_offset where id = 1")
    Instant now();
}
