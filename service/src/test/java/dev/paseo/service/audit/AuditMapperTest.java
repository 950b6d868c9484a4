package dev.paseo.service.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.database.Transactions;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DuplicateKeyException;

class AuditMapperTest {

    private final RealDatabase database = RealDatabase.get();
    private final AuditMapper mapper = database.mapper(AuditMapper.class);

    @Test
    void whileOneNumbersNobodyElseDoes() throws Exception {
        CountDownLatch held = new CountDownLatch(1);
        CountDownLatch seen = new CountDownLatch(1);
        Thread one = Thread.ofVirtual().start(() -> database.transactions().run(() -> {
            assertEquals(true, mapper.sequencing().isPresent());
            held.countDown();
            try {
                seen.await();
            } catch (InterruptedException ended) {
                Thread.currentThread().interrupt();
            }
        }));
        held.await();
        List<Boolean> others = RealDatabase.atOnce(4,
                () -> database.transactions().in(() -> mapper.sequencing().isPresent()));
        assertEquals(List.of(false, false, false, false), others);
        seen.countDown();
        one.join();
        assertEquals(true, database.transactions().in(() -> mapper.sequencing().isPresent()), "it has let go");
    }

    @Test
    void anEntryIsMarkedWithItOrIsNotThere() {
        long before = mapper.pendingCount();
        AuditMapper.NewEntry entry = new AuditMapper.NewEntry("{}");
        assertThrows(IllegalArgumentException.class, () -> database.transactions().run(() -> {
            mapper.write(Transactions.underWay(), entry);
            throw new IllegalArgumentException("what it was written for failed");
        }));
        assertEquals(before, mapper.pendingCount());
        database.transactions().run(() -> mapper.write(Transactions.underWay(), new AuditMapper.NewEntry("{}")));
        assertEquals(before + 1, mapper.pendingCount());
        assertEquals(0, mapper.strayCount());
    }

    @Test
    void aPositionIsGivenOnce() {
        AuditMapper.NewEntry entry = new AuditMapper.NewEntry("{}");
        database.transactions().run(() -> mapper.write(Transactions.underWay(), entry));
        long position = 1_000_000 + entry.id;
        mapper.number(position, entry.id, "0".repeat(64));
        assertThrows(DuplicateKeyException.class, () -> mapper.number(position, entry.id, "1".repeat(64)));
    }

    private String written(String who, String subject, String at, String details) {
        return "{\"at\":\"" + at + "\",\"details\":{" + details + "},\"subject\":\"" + subject
                + "\",\"what\":\"held\",\"where\":\"production\",\"who\":\"" + who + "\"}";
    }

    private AuditMapper.Asked by(String who) {
        return new AuditMapper.Asked(who, null, null, null, null, null, null, null, null, true, null, null, 10);
    }

    @Test
    void signingInIsLeftOutWhereItIsNotAskedFor() {
        String who = Rows.fresh("who");
        for (String what : List.of("held", "signed in", "failed to sign in")) {
            database.transactions().run(() -> mapper.write(Transactions.underWay(), new AuditMapper.NewEntry(
                    written(who, who, "2026-11-23T12:00:00Z", "").replace("held", what))));
        }
        assertEquals(3, mapper.read(by(who)).size());
        assertEquals(1, mapper.read(new AuditMapper.Asked(who, null, null, null, null, null, null, null, null, false,
                null, null, 10)).size());
    }

    @Test
    void entriesAreFoundByWhatStandsInThem() {
        String who = Rows.fresh("who");
        String component = Rows.fresh("component");
        for (String body : List.of(
                written(who, component + " 1.4.2", "2026-11-23T12:00:00.5Z", "\"deployment\":\"41\""),
                written(who, component + "#7", "2026-11-23T12:00:01Z", ""), "no JSON " + who)) {
            database.transactions().run(() -> mapper.write(Transactions.underWay(), new AuditMapper.NewEntry(body)));
        }
        assertEquals(2, mapper.read(by(who)).size());
        AuditMapper.ReadRow newest = mapper.read(by(who)).getFirst();
        assertEquals(1, mapper.read(asked(who, "held", null, component, "1.4.2", null)).size());
        assertEquals(1, mapper.read(new AuditMapper.Asked(who, "held", null, component, "production", "41",
                "2026-11-23T12:00:00", "2026-11-23T12:00:01", null, true, null, null, 10)).size());
        assertEquals(0, mapper.read(asked(who, null, component, null, null, null)).size(),
                "the subject is asked whole");
        assertEquals(0, mapper.read(asked(who, null, null, null, "1_4_2", null)).size(), "an underscore is one");
        assertEquals(1, mapper.read(asked(who, null, null, null, null, newest.id())
                .behind(mapper.second(newest.id()).orElseThrow())).stream()
                .filter(row -> row.body().contains("1.4.2")).count(), "the cursor goes on towards the older ones");
        assertEquals(true, mapper.lastLookedThrough(by(who)).isEmpty(), "all of them were");
    }

    /** A text is looked for among so many at once; from the last of those it goes on. */
    @Test
    void aTextIsFoundBehindThoseThatAreLookedThroughAtOnce() {
        String who = Rows.fresh("who");
        database.change("insert into audit_entry (body) select concat('{\"at\":\"2026-11-23T12:00:00Z\",\"what\":\"', "
                + "if(seq = 1, 'needle', 'hay'), '\",\"who\":\"', ?, '\"}') from seq_1_to_"
                + (AuditMapper.LOOKED_THROUGH + 1), who);
        database.change("insert into audit_pending (entry_id) select id from audit_entry where who = ?", who);
        AuditMapper.Asked first = asked(who, null, null, null, "needle", null);
        assertEquals(List.of(), mapper.read(first));
        AuditMapper.LastRow last = mapper.lastLookedThrough(first).orElseThrow();
        AuditMapper.Asked next = asked(who, null, null, null, "needle", last.id()).behind(last.second());
        assertEquals(1, mapper.read(next).size());
        assertEquals(true, mapper.lastLookedThrough(next).isEmpty());
    }

    private static AuditMapper.Asked asked(String who, @Nullable String what, @Nullable String subject,
            @Nullable String component, @Nullable String text, @Nullable Long before) {
        return new AuditMapper.Asked(who, what, subject, component, null, null, null, null, text, true, null, before,
                10);
    }

    @Test
    void oneHeadOfEachSoManyEntriesIsGiven() {
        long base = 7_000_000_000L;
        for (long size : new long[]{base + 1, base + 2, base + 10, base + 11, base + 25}) {
            mapper.sign(size, "0".repeat(64), "2026-11-23T12:00:00Z", "s");
        }
        assertEquals(List.of(base + 10, base + 11), mapper.headsAmong(base, base + 11, 10).stream()
                .map(AuditMapper.HeadRow::size).toList());
        assertEquals(List.of(base + 25), mapper.headsAmong(base + 11, base + 99, 10).stream()
                .map(AuditMapper.HeadRow::size).toList());
        assertEquals(base + 25, mapper.newestHead().orElseThrow().size());
    }
}
