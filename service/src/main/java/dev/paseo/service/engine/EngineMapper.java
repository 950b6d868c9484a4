package dev.paseo.service.engine;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface EngineMapper {

    record EffectRow(long id, String aggregate, String kind, String body, Instant deadline, int tries) {}

    @Insert("""
            insert ignore into effect (aggregate, idempotency_key, kind, body, format, due_at, deadline)
            values (#{aggregate}, #{key}, #{kind}, #{body}, 1, #{now}, #{deadline})""")
    int addEffect(String aggregate, String key, String kind, String body, Instant now, Instant deadline);

    /**
     * The lowest undone effects of aggregates that have none under way; others pass over what is locked.
     *
     * @param kinds those for which there is room, by commas
     */
    @Select("""
            select e.id, e.aggregate, e.kind, e.body, e.deadline, e.tries from effect e
            where e.done_at is null and e.due_at <= #{now} and find_in_set(e.kind, #{kinds}) > 0
              and not exists (select 1 from effect f where f.aggregate = e.aggregate and f.done_at is null and f.id <
                e.id)
            order by e.id limit 8 for update skip locked""")
    List<EffectRow> nextEffects(Instant now, String kinds);

    @Select("select distinct kind from effect where done_at is null")
    List<String> kinds();

    @Update("update effect set due_at = #{until}, tries = tries + 1 where id = #{id} and done_at is null and tries "
            + "= #{tries}")
    int claim(long id, int tries, Instant until);

    /** Whoever has it in hand goes on. */
    @Update("update effect set due_at = #{until} where id = #{id} and done_at is null")
    int goesOn(long id, Instant until);

    @Update("update effect set done_at = #{now} where id = #{id} and done_at is null")
    int done(long id, Instant now);

    @Update("update effect set due_at = #{due}, last_error = #{error} where id = #{id} and done_at is null")
    int again(long id, Instant due, String error);

    @Insert("insert into live_event (kind, subject, replica, at) values (#{kind}, #{subject}, #{replica}, #{at})")
    int tell(String kind, String subject, String replica, Instant at);

    record EventRow(long sequence, String kind, String subject, String replica, Instant at) {}

    @Select("select sequence, kind, subject, replica, at from live_event where sequence > #{after} order by "
            + "sequence limit 500")
    List<EventRow> eventsAfter(long after);

    @Select("select coalesce(max(sequence), 0) from live_event")
    long lastEvent();

    @Delete("delete from live_event where at < #{before} limit 5000")
    int forgetEvents(Instant before);

    @Select("select last_alive from presence where id = 1 for update")
    Instant lastAlive();

    @Select("select coalesce(outside_at, last_alive) from presence where id = 1")
    Instant lastOutside();

    @Update("update presence set last_alive = #{now}, outside_at = #{outside} where id = 1")
    int alive(Instant now, Instant outside);

    @Insert("""
            insert into replica (name, started_at, seen_at) values (#{name}, #{started}, #{now})
            on duplicate key update started_at = values(started_at), seen_at = values(seen_at)""")
    int serves(String name, Instant started, Instant now);

    /** Forgets those that have not been at work since. */
    @Delete("delete from replica where seen_at < #{before}")
    int forget(Instant before);

    @Insert("insert ignore into absence (from_at, to_at) values (#{from}, #{to})")
    int absent(Instant from, Instant to);

    @Select("select from_at, to_at from absence order by from_at desc limit 1000")
    List<Absences.Absence> absences();
}
