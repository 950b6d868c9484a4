package dev.paseo.service.loosening;

import java.time.Instant;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface LooseningMapper {

    @Insert("insert into loosening (environment_id, component_id, what, by_id, at) values (#{environment}, "
            + "#{component}, #{what}, (select id from account where name = #{by}), #{at})")
    int add(@Nullable Long environment, @Nullable Long component, String what, String by, Instant at);

    @Select("""
            select l.what, a.name as `by`, a.id as by_id, l.at from loosening l join account a on a.id = l.by_id
            where l.at > #{since} and (l.environment_id = #{environment} or l.component_id = #{component}) order by
              l.id desc limit 1""")
    Optional<Loosenings.Loosened> newest(long environment, long component, Instant since);

    @Insert("insert ignore into review (deployment_id, due_at, reason, loosened_by) values (#{deployment}, #{due}, "
            + "#{reason}, #{by})")
    int review(long deployment, Instant due, String reason, long by);
}
