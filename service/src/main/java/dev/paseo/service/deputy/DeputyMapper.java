package dev.paseo.service.deputy;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Deputies for a time; what was handed on of one deployment is not theirs. */
@Mapper
interface DeputyMapper {

    record DeputyRow(long id, String account, String deputy, Instant from, Instant until, String setBy) {}

    String SELECT = """
            select s.id, a.name as account, d.name as deputy, s.from_at as `from`, s.until_at as `until`, b.name as
              set_by from stand_in s
            join account a on a.id = s.account_id join account d on d.id = s.deputy_id join account b on b.id = s.set_by
            where s.deployment_id is null and s.lifted_at is null
            """;

    @Select(SELECT + "and s.until_at > #{now} order by s.from_at, s.id limit 500")
    List<DeputyRow> all(Instant now);

    @Select(SELECT + "and s.id = #{id}")
    Optional<DeputyRow> byId(long id);

    @Insert("""
            insert into stand_in (account_id, deputy_id, from_at, until_at, set_by)
            values (#{account}, #{deputy}, #{from}, #{until}, #{by})""")
    int add(long account, long deputy, Instant from, Instant until, long by);

    @Update("update stand_in set lifted_at = #{now} where id = #{id} and lifted_at is null")
    int lift(long id, Instant now);

    /** How many began or ended between two moments. */
    @Select("""
            select count(*) from stand_in where deployment_id is null and lifted_at is null
              and (from_at > #{after} and from_at <= #{now} or until_at > #{after} and until_at <= #{now})""")
    int changed(Instant after, Instant now);
}
