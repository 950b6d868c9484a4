package dev.paseo.service.announcement;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AnnouncementMapper {

    /** A row to be inserted; gets its id. */
    final class NewReceiver {
        long id;
        final String name;
        final String address;
        final String kinds;
        final String components;
        final Instant at;

        NewReceiver(String name, String address, String kinds, String components, Instant at) {
            this.name = name;
            this.address = address;
            this.kinds = kinds;
            this.components = components;
            this.at = at;
        }
    }

    record ReceiverRow(long id, String name, String address, String kinds, String components, Instant createdAt,
            @Nullable Instant stoppedAt) {}

    record MessageRow(long id, String message, String kind, String body, Instant createdAt, Instant dueAt, int tries,
            @Nullable Instant deliveredAt,
            @Nullable Instant gaveUpAt) {}

    record DueRow(long id, long receiverId, String address, String message, String body, Instant createdAt,
            Instant dueAt, int tries) {}

    record AttemptRow(long outgoingId, int number, Instant at, int millis, @Nullable Integer status,
            @Nullable String error) {}

    String RECEIVERS = "select id, name, address, kinds, components, created_at, stopped_at from receiver ";

    @Insert("insert into receiver (name, address, kinds, components, created_at) values (#{name}, #{address}, "
            + "#{kinds}, #{components}, #{at})")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewReceiver receiver);

    @Select(RECEIVERS + "where stopped_at is null order by id")
    List<ReceiverRow> active();

    @Select(RECEIVERS + "order by name")
    List<ReceiverRow> all();

    @Select(RECEIVERS + "where name = #{name}")
    Optional<ReceiverRow> named(String name);

    @Update("update receiver set stopped_at = #{now} where id = #{id} and stopped_at is null")
    int stop(long id, Instant now);

    @Insert("""
            insert ignore into outgoing (receiver_id, message, kind, body, created_at, due_at)
            values (#{receiver}, #{message}, #{kind}, #{body}, #{now}, #{now})""")
    int post(long receiver, String message, String kind, String body, Instant now);

    @Select("""
            select o.id, o.receiver_id, r.address, o.message, o.body, o.created_at, o.due_at, o.tries from outgoing o
              join receiver r on r.id = o.receiver_id
            where o.delivered_at is null and o.gave_up_at is null and o.due_at <= #{now} and r.stopped_at is null
              order by o.due_at limit 20""")
    List<DueRow> due(Instant now);

    /** For the one replica that still finds it due. */
    @Update("update outgoing set due_at = #{until}, tries = tries + 1 where id = #{id} and due_at = #{was} and "
            + "delivered_at is null")
    int claim(long id, Instant was, Instant until);

    @Insert("""
            insert ignore into outgoing_attempt (outgoing_id, number, at, millis, status, error)
            values (#{outgoing}, #{number}, #{at}, #{millis}, #{status}, #{error})""")
    int attempted(long outgoing, int number, Instant at, int millis, @Nullable Integer status, @Nullable String error);

    @Update("update outgoing set delivered_at = #{now} where id = #{id}")
    int delivered(long id, Instant now);

    @Update("update outgoing set due_at = #{due} where id = #{id}")
    int again(long id, Instant due);

    @Update("update outgoing set gave_up_at = #{now} where id = #{id}")
    int gaveUp(long id, Instant now);

    @Update("""
            update outgoing set due_at = #{now}, created_at = #{now}, delivered_at = null, gave_up_at = null
            where id = #{id} and receiver_id = #{receiver}""")
    int resend(long id, long receiver, Instant now);

    String MESSAGES = "select id, message, kind, body, created_at, due_at, tries, delivered_at, gave_up_at from "
            + "outgoing ";

    @Select(MESSAGES + "where receiver_id = #{receiver} and id < #{before} order by id desc limit #{limit}")
    List<MessageRow> messages(long receiver, long before, int limit);

    @Select("""
            <script>
            select outgoing_id, number, at, millis, status, error from outgoing_attempt
            where outgoing_id in <foreach collection="messages" item="id" open="(" separator=","
              close=")">#{id}</foreach> order by outgoing_id, number
            </script>""")
    List<AttemptRow> attempts(List<Long> messages);
}
