package dev.paseo.service.clock;

import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ClockMapper {

    /** The time, and by how many microseconds it was moved forward. */
    record NowRow(Instant at, long moved) {}

    @Select("select utc_timestamp(6) + interval micros microsecond as at, micros as moved from clock_offset where "
            + "id = 1")
    NowRow now();

    @Update("update clock_offset set micros = micros + #{micros} where id = 1")
    int forward(long micros);
}
