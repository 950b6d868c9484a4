package dev.paseo.service.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Transactions;
import java.util.List;
import java.util.concurrent.CountDownLatch;
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
}
