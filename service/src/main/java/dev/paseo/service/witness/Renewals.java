package dev.paseo.service.witness;

import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Transactions;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.signature.ServiceKey;
import java.util.List;
import org.springframework.stereotype.Component;

/** Renews the key that signs, and says so in the trail. */
@Component
class Renewals {

    private static final int LONGEST = 1000;

    private final ServiceKey key;
    private final AuditTrail audit;
    private final Transactions transactions;
    private final ServiceClock clock;

    Renewals(ServiceKey key, AuditTrail audit, Transactions transactions, ServiceClock clock) {
        this.key = key;
        this.audit = audit;
        this.transactions = transactions;
        this.clock = clock;
    }

    KeyRing ring() {
        return key.ring();
    }

    /**
     * The entry is written first and committed once the new key is in its place: a head by the new one covers it.
     *
     * @throws Refusal without a reason, or with one that is too long
     */
    KeyRing renew(String reason, String by) {
        if (reason.isBlank() || reason.length() > LONGEST) {
            throw Refusal.invalid("/reason", "should say why, in 1 to " + LONGEST + " characters");
        }
        return transactions.in(() -> key.renew(clock.now(), after -> {
            List<KeyRing.Term> terms = after.terms();
            audit.record(AuditTrail.Entry.of(by, "renewed the key that signs", "audit trail").because(reason.strip())
                    .with("key before", terms.get(terms.size() - 2).print()).with("key", terms.getLast().print()));
        }));
    }
}
