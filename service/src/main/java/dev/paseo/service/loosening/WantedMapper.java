package dev.paseo.service.loosening;

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
interface WantedMapper {

    /** A row to be inserted; gets its id. */
    final class NewWanted {
        long id;
        final String kind;
        final String what;
        final String body;
        final String digest;
        final String asked;
        final long by;
        final Instant at;

        NewWanted(Wanted wanted, String what, String digest, String asked, long by, Instant at) {
            this.kind = wanted.kind();
            this.what = what;
            this.body = wanted.body();
            this.digest = digest;
            this.asked = asked;
            this.by = by;
            this.at = at;
        }
    }

    @Insert("""
            insert into wanted_loosening (kind, what, body, digest, asked, by_id, at, status)
            values (#{kind}, #{what}, #{body}, #{digest}, #{asked}, #{by}, #{at}, 'open')""")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewWanted wanted);

    record WantedRow(long id, String kind, String what, String body, String digest, String asked, String by, Instant at,
            String status, @Nullable String ending, @Nullable Instant endedAt) {}

    String COLUMNS = """
            select w.id, w.kind, w.what, w.body, w.digest, w.asked, a.name as `by`, w.at, w.status, w.ending, w.ended_at
            from wanted_loosening w join account a on a.id = w.by_id
            """;

    @Select(COLUMNS + "where w.id = #{id}")
    Optional<WantedRow> byId(long id);

    @Select(COLUMNS + "where w.status = 'open' and w.digest = #{digest} and a.name = #{by}")
    Optional<WantedRow> same(String digest, String by);

    /** Those that wait, and the newest of those that have ended. */
    @Select("(" + COLUMNS + "where w.status = 'open' order by w.id desc limit 200) union all (" + COLUMNS
            + "where w.status <> 'open' order by w.id desc limit 50)")
    List<WantedRow> newest();

    @Select(COLUMNS + "where w.status = 'open' order by w.id")
    List<WantedRow> open();

    @Select(COLUMNS + "where w.status = 'open' and w.at <= #{before}")
    List<WantedRow> old(Instant before);

    record StateRow(long id, String text) {}

    @Select("""
            select w.id, concat(w.digest, ' by ', w.by_id, coalesce((select group_concat(concat('\n', l.account_id, '
              ', l.yes, ' ', l.comment) order by l.account_id separator '')
              from loosening_word l where l.loosening_id = w.id), '')) as text
            from wanted_loosening w where #{id} is null or w.id = #{id}""")
    List<StateRow> states(@Nullable Long id);

    @Select("select id from wanted_loosening where id = #{id} for update")
    long lock(long id);

    @Update("update wanted_loosening set status = #{status}, ending = #{ending}, ended_at = #{now} where id = #{id} "
            + "and status = 'open'")
    int end(long id, String status, String ending, Instant now);

    record WordRow(String by, boolean yes, String comment, Instant at) {}

    @Select("select a.name as `by`, l.yes, l.comment, l.at from loosening_word l join account a on a.id = "
            + "l.account_id where l.loosening_id = #{id} order by l.at")
    List<WordRow> words(long id);

    @Insert("insert into loosening_word (loosening_id, account_id, yes, comment, at) values (#{id}, #{account}, "
            + "#{yes}, #{comment}, #{at})")
    int say(long id, long account, boolean yes, String comment, Instant at);
}
