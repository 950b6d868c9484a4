package dev.paseo.service.database;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertThrows;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.AbstractPlatformTransactionManager;
import org.springframework.transaction.support.DefaultTransactionStatus;

/** What is written together with something else asks for a proof that only a transaction gives. */
class TransactionsTest {

    /** One that manages nothing. */
    private static class NoDatabase extends AbstractPlatformTransactionManager {
        @Override
        protected Object doGetTransaction() {
            return new Object();
        }

        @Override
        protected void doBegin(Object transaction, TransactionDefinition definition) {}

        @Override
        protected void doCommit(DefaultTransactionStatus status) {}

        @Override
        protected void doRollback(DefaultTransactionStatus status) {}
    }

    @Test
    void theProofIsGivenWithinATransactionAlone() {
        assertEquals("not in a transaction",
                assertThrows(IllegalStateException.class, Transactions::underWay).getMessage());
        Transactions transactions = new Transactions(new NoDatabase(), new SimpleMeterRegistry());
        assertNotNull(transactions.in(Transactions::underWay));
        assertThrows(IllegalStateException.class, Transactions::underWay);
    }

    @Test
    void oneMomentIsReadOutsideOfOtherTransactionsAlone() {
        List<Integer> levels = new ArrayList<>();
        Transactions transactions = new Transactions(new NoDatabase() {
            @Override
            protected void doBegin(Object transaction, TransactionDefinition definition) {
                levels.add(definition.getIsolationLevel());
            }
        }, new SimpleMeterRegistry());
        assertEquals(1, transactions.atOneMoment(() -> 1));
        assertEquals(List.of(TransactionDefinition.ISOLATION_REPEATABLE_READ), levels);
        assertThrows(IllegalStateException.class, () -> transactions.in(() -> transactions.atOneMoment(() -> 1)));
    }
}
