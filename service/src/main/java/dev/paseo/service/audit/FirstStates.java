package dev.paseo.service.audit;

import dev.paseo.service.database.Transactions;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/**
 * States once how guarded rows are that were there before the trail stated such things, in entries that everybody sees.
 */
@Component
class FirstStates {

    private static final Logger LOG = LoggerFactory.getLogger(FirstStates.class);

    /** An entry is no longer than its column. */
    private static final int A_TIME = 200;

    private final AuditMapper mapper;
    private final AuditTrail audit;
    private final Transactions transactions;
    private final List<Guarded> guarded;

    FirstStates(AuditMapper mapper, AuditTrail audit, Transactions transactions, List<Guarded> guarded) {
        this.mapper = mapper;
        this.audit = audit;
        this.transactions = transactions;
        this.guarded = guarded;
    }

    @EventListener(ApplicationStartedEvent.class)
    @Order(Ordered.HIGHEST_PRECEDENCE)
    void state() {
        guarded.forEach(rows -> transactions.run(() -> {
            if (mapper.stated(rows.kind()) == 1 && !mapper.hasStated("%\"" + AuditTrail.STATE + rows.kind() + " %")) {
                state(rows);
            }
        }));
    }

    private void state(Guarded rows) {
        List<Map.Entry<String, String>> states = List.copyOf(rows.states().entrySet());
        for (int from = 0; from < states.size(); from += A_TIME) {
            AuditTrail.Entry entry = AuditTrail.Entry.of("paseo", "first states taken", rows.kind());
            for (Map.Entry<String, String> state : states.subList(from, Math.min(states.size(), from + A_TIME))) {
                entry = entry.stating(state.getKey(), state.getValue());
            }
            audit.record(entry);
        }
        if (!states.isEmpty()) {
            LOG.info("the trail states from now on how {} are: {} of them", rows.kind(), states.size());
        }
    }
}
