package dev.paseo.service.store;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface StoreMapper {

    /** A row to be inserted; gets its id. */
    final class NewStore {
        long id;
        final long component;
        final WatchedStore.Where where;
        final String kind;
        final String body;
        final Instant next;

        NewStore(long component, WatchedStore.Where where, String kind, String body, Instant next) {
            this.component = component;
            this.where = where;
            this.kind = kind;
            this.body = body;
            this.next = next;
        }
    }

    record StoreRow(long id, long componentId, String kind, String address, String body, Instant nextAt, int failures,
            @Nullable String lastError,
            @Nullable Instant lookedAt) {}

    record SightingRow(String name, String digest, @Nullable String version, @Nullable String reason, Instant seenAt) {}

    String COLUMNS = "select id, component_id, kind, address, body, next_at, failures, last_error, looked_at from "
            + "watched_store ";

    @Insert("""
            insert into watched_store (component_id, kind, address, body, next_at)
            values (#{component}, #{kind}, #{where.address}, #{body}, #{next})""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewStore store);

    @Select(COLUMNS + "where component_id = #{component} order by id")
    List<StoreRow> of(long component);

    @Select(COLUMNS + "where id = #{id}")
    Optional<StoreRow> byId(long id);

    @Select(COLUMNS
            + "where next_at <= #{now} and component_id not in (select id from component where retired_at is not "
            + "null) order by next_at limit 20")
    List<StoreRow> due(Instant now);

    @Update("update watched_store set next_at = #{until} where id = #{id} and next_at = #{was}")
    int claim(long id, Instant was, Instant until);

    @Update("update watched_store set next_at = #{next}, failures = 0, last_error = null, looked_at = #{now} where "
            + "id = #{id}")
    int looked(long id, Instant next, Instant now);

    @Update("update watched_store set next_at = #{next}, failures = failures + 1, last_error = #{error} where id = "
            + "#{id}")
    int failed(long id, Instant next, String error);

    @Update("update watched_store set next_at = #{next} where component_id = #{component}")
    int soon(long component, Instant next);

    @Delete("delete from store_sighting where store_id = #{id}")
    int dropSightings(long id);

    @Delete("delete from watched_store where id = #{id}")
    int drop(long id);

    @Select("""
            select s.name, s.digest, v.number as version, s.reason, s.seen_at from store_sighting s left join version
              v on v.id = s.version_id
            where s.store_id = #{store} order by s.seen_at desc, s.name""")
    List<SightingRow> sightings(long store);

    @Insert("""
            insert ignore into store_sighting (store_id, name, digest, version_id, reason, seen_at)
            values (#{store}, #{name}, #{digest}, #{version}, #{reason}, #{at})""")
    int see(long store, String name, String digest, @Nullable Long version, @Nullable String reason, Instant at);

    @Update("update store_sighting set reason = #{reason} where store_id = #{store} and name = #{name}")
    int say(long store, String name, String reason);
}
