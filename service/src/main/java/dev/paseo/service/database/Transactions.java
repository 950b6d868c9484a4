package dev.paseo.service.database;

import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionTemplate;

/** Runs work in a transaction, and all of it again when it met a deadlock or lost a race. */
@Component
public class Transactions {

    private static final Logger LOG = LoggerFactory.getLogger(Transactions.class);
    private static final int MOST_TRIES = 12;

    /** Thrown inside a transaction whose reading turned out to be old: roll back and do it again. */
    public static class LostRace extends ConcurrencyFailureException {
        public LostRace(String what) {
            super(what);
        }
    }

    /** Proof that a transaction is under way on this thread; what has to be written in one asks for it. */
    public static final class UnderWay {
        private UnderWay() {}
    }

    private final TransactionTemplate template;
    private final TransactionTemplate moment;
    private final Counter repeats;

    Transactions(PlatformTransactionManager manager, MeterRegistry meters) {
        this.template = new TransactionTemplate(manager);
        this.moment = new TransactionTemplate(manager);
        moment.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
        moment.setReadOnly(true);
        this.repeats = Counter.builder("paseo.transactions.repeated").register(meters);
    }

    /** In a transaction that is under way already the work simply joins it. */
    public <T> T in(Supplier<T> work) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            return work.get();
        }
        for (int tried = 1;; tried++) {
            try {
                return template.execute(status -> work.get());
            } catch (ConcurrencyFailureException | DuplicateKeyException lost) {
                if (tried == MOST_TRIES) {
                    throw lost;
                }
                repeats.increment();
                LOG.debug("repeating a transaction, try {}: {}", tried, lost.getMessage());
                Thread.yield();
            }
        }
    }

    /**
     * Reads everything as it was at one moment: that of the first reading.
     *
     * @throws IllegalStateException where a transaction is under way, which reads what is committed meanwhile
     */
    public <T> T atOneMoment(Supplier<T> reading) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("in a transaction already");
        }
        return moment.execute(status -> reading.get());
    }

    /** @throws IllegalStateException where no transaction is under way */
    public static UnderWay underWay() {
        if (!TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("not in a transaction");
        }
        return new UnderWay();
    }

    public void run(Runnable work) {
        in(() -> {
            work.run();
            return true;
        });
    }
}
