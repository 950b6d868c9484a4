package dev.paseo.service.serving;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface ServingMapper {

    @Select("select version()")
    String database();

    /** What the tables and their indexes take up, in bytes, as the database estimates it. */
    @Select("select coalesce(sum(data_length + index_length), 0) from information_schema.tables "
            + "where table_schema = database()")
    long bytes();

    record ReplicaRow(String name, Instant startedAt, Instant seenAt) {}

    @Select("select name, started_at, seen_at from replica order by started_at, name")
    List<ReplicaRow> replicas();

    /** Mails that are due and have not gone out. */
    @Select("select count(*) from notice where mailed_at is null and mail_due_at <= #{now}")
    long mailsDue(Instant now);
}
