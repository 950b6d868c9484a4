package dev.paseo.service.audit;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Json;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.mockito.Mockito;

class FirstStatesTest {

    private final RealDatabase database = RealDatabase.get();
    private final AuditMapper mapper = database.mapper(AuditMapper.class);
    private final ServiceClock clock = Mockito.mock(ServiceClock.class, call -> Rows.NOON);
    private final AuditTrail audit = new AuditTrail(mapper, database.json(), clock);
    private final String kind = Rows.fresh("kind");
    private final AtomicInteger asked = new AtomicInteger();

    @Test
    void whatIsThereIsStatedOnceHoweverOftenTheServiceStarts() {
        start(Map.of(kind + " one", "as it is", kind + " two", "as it is"));
        start(Map.of(kind + " one", "as it is", kind + " two", "as it is", kind + " three", "as it is"));
        assertTrue(stated());
        assertEquals(1, asked.get());
    }

    @Test
    void whereThereIsNothingNothingIsStatedAndNotLookedForAgain() {
        start(Map.of());
        start(Map.of(kind + " one", "stated by what made it"));
        assertFalse(stated());
        assertEquals(1, asked.get());
    }

    @Test
    void whatAnEarlierReleaseStatedIsLeft() {
        database.transactions().run(() -> audit.record(
                AuditTrail.Entry.of("ana", "account added", "one").stating(kind + " one", "as it was")));
        start(Map.of(kind + " one", "as it is"));
        assertEquals(0, asked.get());
    }

    private void start(Map<String, String> states) {
        new FirstStates(mapper, audit, database.transactions(), List.of(new Guarded() {
            @Override
            public String kind() {
                return kind;
            }

            @Override
            public Map<String, String> states() {
                asked.incrementAndGet();
                return states;
            }
        })).state();
    }

    private boolean stated() {
        return mapper.hasStated("%\"state of " + kind + " %");
    }
}
