package dev.paseo.service.change;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.engine.LiveEvents;
import java.time.Instant;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/**
 * What a change is done with: in one transaction, at a moment, written down in the trail, told to those who look.
 */
@Component
public class Changes {

    private final Transactions transactions;
    private final ServiceClock clock;
    private final AuditTrail audit;
    private final LiveEvents live;

    public Changes(Transactions transactions, ServiceClock clock, AuditTrail audit, LiveEvents live) {
        this.transactions = transactions;
        this.clock = clock;
        this.audit = audit;
        this.live = live;
    }

    /** Makes a change in a transaction, and again where it lost a race; it joins one that is under way. */
    public <T> T in(Supplier<T> change) {
        return transactions.in(change);
    }

    /** Makes a change in a transaction, and again where it lost a race; it joins one that is under way. */
    public void run(Runnable change) {
        transactions.run(change);
    }

    /** The service's time, to the microsecond. */
    public Instant now() {
        return clock.now();
    }

    /** The time outside, which no test of a clock moves: for what guards against guessing. */
    public Instant outside() {
        return clock.outside();
    }

    /** Writes an entry into the trail, in the transaction under way. */
    public void record(AuditTrail.Entry entry) {
        audit.record(entry);
    }

    /** Tells those who look that something changed, once the transaction under way has committed. */
    public void publish(String kind, String subject) {
        live.publish(kind, subject);
    }
}
