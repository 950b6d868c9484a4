package dev.paseo.service.audit;

import dev.paseo.service.database.Transactions;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

@Mapper
interface AuditMapper {

    /** An entry to be inserted; gets its id. */
    final class NewEntry {
        long id;
        final String body;

        NewEntry(String body) {
            this.body = body;
        }
    }

    record EntryRow(long id, String body) {}

    record LeafRow(long position, String leafHash, @Nullable String body) {}

    record HeadRow(long size, String root, String at, String signature) {}

    @Insert("insert into audit_entry (body) values (#{body})")
    @Options(useGeneratedKeys = true, keyProperty = "id")
    int add(NewEntry entry);

    @Insert("insert into audit_pending (entry_id) values (#{id})")
    int mark(long id);

    /** Adds an entry and marks it to be numbered: both, or neither. */
    default void write(Transactions.UnderWay together, NewEntry entry) {
        Objects.requireNonNull(together);
        add(entry);
        mark(entry.id);
    }

    /** Held by whoever numbers; empty while another replica does. */
    @Select("select name from lease where name = 'audit-sequencer' for update skip locked")
    Optional<String> sequencing();

    @Select("select e.id, e.body from audit_pending p join audit_entry e on e.id = p.entry_id order by p.entry_id "
            + "limit 2000")
    List<EntryRow> pending();

    @Select("select count(*) from audit_pending")
    long pendingCount();

    @Select("""
            select count(*) from audit_entry e
            where not exists (select 1 from audit_leaf l where l.entry_id = e.id)
              and not exists (select 1 from audit_pending p where p.entry_id = e.id)""")
    long strayCount();

    @Insert("insert into audit_leaf (position, entry_id, leaf_hash) values (#{position}, #{entry}, #{hash})")
    int number(long position, long entry, String hash);

    @Delete("delete from audit_pending where entry_id = #{entry}")
    int unmark(long entry);

    @Select("select count(*) from audit_leaf")
    long leafCount();

    @Select("select leaf_hash from audit_leaf where position >= #{from} order by position limit 10000")
    List<String> leafHashes(long from);

    @Select("""
            select l.position, l.leaf_hash, e.body from audit_leaf l left join audit_entry e on e.id = l.entry_id
            where l.position >= #{from} order by l.position limit 2000""")
    List<LeafRow> leaves(long from);

    @Insert("insert into tree_head (size, root, at, signature) values (#{size}, #{root}, #{at}, #{signature})")
    int sign(long size, String root, String at, String signature);

    @Select("select size, root, at, signature from tree_head order by size")
    List<HeadRow> heads();

    /** Whether any entry states this kind: looks into all, where none does. */
    @Select("select exists (select 1 from audit_entry where body like #{pattern})")
    boolean hasStated(String pattern);

    /** Notes that the trail states this kind; 0 where that was noted before. Who comes second waits for the first. */
    @Insert("insert ignore into stated_kind (kind) values (#{kind})")
    int stated(String kind);

    @Select("select e.body from audit_pending p join audit_entry e on e.id = p.entry_id order by p.entry_id")
    List<String> pendingBodies();

    record ReadRow(long id, @Nullable Long position, String body) {}

    /**
     * What is asked of entries; null: nothing.
     *
     * @param since  to the second, as ISO 8601 has it, in UTC
     * @param until  likewise; before it
     * @param text   whatever its case
     * @param signIns whether entries of signing in are among them
     * @param second of the entry behind which it goes on
     * @param before the id of that entry
     */
    record Asked(@Nullable String who, @Nullable String what, @Nullable String subject, @Nullable String component,
            @Nullable String environment, @Nullable String deployment, @Nullable String since, @Nullable String until,
            @Nullable String text, boolean signIns, @Nullable String second, @Nullable Long before, int limit) {

        Asked behind(String ofSecond) {
            return new Asked(who, what, subject, component, environment, deployment, since, until, text, signIns,
                    ofSecond, before, limit);
        }
    }

    /** No more entries are looked through for a text at once. */
    int LOOKED_THROUGH = 4_000;

    /** By when they were written, and by their ids within a second: each index leads there in this order. */
    String ASKED = """
            from audit_entry e
            <where>
            <if test="second != null">and e.at_second &lt;= #{second}
              and (e.at_second &lt; #{second} or e.id &lt; #{before})</if>
            <if test="who != null">and e.who = #{who}</if>
            <if test="what != null">and e.what = #{what}</if>
            <if test="subject != null">and e.subject = #{subject}</if>
            <if test="component != null">and e.component = #{component}</if>
            <if test="environment != null">and e.environment = #{environment}</if>
            <if test="deployment != null">and e.deployment = #{deployment}</if>
            <if test="!signIns">and e.what not in ('signed in', 'failed to sign in')</if>
            <if test="since != null">and e.at_second &gt;= #{since}</if>
            <if test="until != null">and e.at_second &lt; #{until}</if>
            </where>
            order by e.at_second desc, e.id desc
            """;

    @Select("""
            <script>
            select f.id, l.position, f.body from (
            <choose>
            <when test="text == null">select e.id, e.at_second, e.body
            """ + ASKED + """
            limit #{limit}</when>
            <otherwise>select t.id, t.at_second, t.body from (select e.id, e.at_second, e.who, e.what, e.subject,
              e.environment, e.body
            """ + ASKED + """
            limit\s""" + LOOKED_THROUGH + """
            ) t where instr(concat_ws(' ', t.who, t.what, t.subject, t.environment,
              json_value(t.body, '$.because'), json_extract(t.body, '$.details.*'))
              collate utf8mb4_general_ci, #{text}) &gt; 0
            order by t.at_second desc, t.id desc limit #{limit}</otherwise>
            </choose>
            ) f left join audit_leaf l on l.entry_id = f.id order by f.at_second desc, f.id desc
            </script>""")
    List<ReadRow> read(Asked asked);

    @Select("""
            select e.id, l.position, e.body from audit_entry e left join audit_leaf l on l.entry_id = e.id
            where e.deployment = #{deployment} order by e.id limit #{most}""")
    List<ReadRow> about(String deployment, int most);

    record LastRow(long id, String second) {}

    /** The last of those that are looked through for a text, where there may be more behind it. */
    @Select("""
            <script>
            select e.id, e.at_second as second
            """ + ASKED + """
            limit 1 offset\s""" + (LOOKED_THROUGH - 1) + """
            </script>""")
    Optional<LastRow> lastLookedThrough(Asked asked);

    @Select("select at_second from audit_entry where id = #{id}")
    Optional<String> second(long id);

    @Select("select e.id, l.position, e.body from audit_leaf l join audit_entry e on e.id = l.entry_id "
            + "where l.position = #{position}")
    Optional<ReadRow> at(long position);

    @Select("select leaf_hash from audit_leaf where position >= #{from} and position < #{to} order by position")
    List<String> leafHashesAmong(long from, long to);

    @Select("select size, root, at, signature from tree_head order by size desc limit 1")
    Optional<HeadRow> newestHead();

    /** Of each so many entries the last head, of those that cover more than {@code from}, up to {@code to}. */
    @Select("""
            select size, root, at, signature from tree_head where size in (
              select max(size) from tree_head where size > #{from} and size <= #{to} group by (size - 1) div #{each})
            order by size""")
    List<HeadRow> headsAmong(long from, long to, long each);

    /** The first that was written at a second or later. */
    @Select("""
            select min(l.position) from audit_leaf l join audit_entry e on e.id = l.entry_id
            where e.at_second >= #{since}""")
    Optional<Long> firstSince(String since);
}
