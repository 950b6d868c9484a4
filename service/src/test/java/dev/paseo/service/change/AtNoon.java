package dev.paseo.service.change;

import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.LiveEvents;

/** Changes in real transactions, at noon, of which the test sees what is recorded. */
public final class AtNoon {

    public final ServiceClock clock = mock(ServiceClock.class);
    public final AuditTrail audit = mock(AuditTrail.class);
    public final LiveEvents live = mock(LiveEvents.class);
    public final Changes changes = new Changes(RealDatabase.get().transactions(), clock, audit, live);

    public AtNoon() {
        when(clock.now()).thenReturn(Rows.NOON);
        when(clock.outside()).thenReturn(Rows.NOON);
    }
}
