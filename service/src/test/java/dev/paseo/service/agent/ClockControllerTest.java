package dev.paseo.service.agent;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.settings.Settings;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ClockControllerTest {

    private static final Person ADMIN = new Person(1, "admin", Set.of(),
            List.of(new Grant(Role.ADMINISTRATOR, Optional.empty(), Optional.empty())));

    private final ServiceClock clock = mock(ServiceClock.class);
    private final Settings settings = mock(Settings.class);
    private final ClockController controller = new ClockController(clock, mock(WorkBoard.class), settings,
            RealDatabase.get().transactions(), mock(AuditTrail.class));

    @Test
    void theClockGoesForwardAndNotTooFar() {
        when(settings.clockMayMove()).thenReturn(true);
        for (Duration wrong : List.of(Duration.ZERO, Duration.ofHours(-1), Duration.ofDays(10_000))) {
            assertEquals("should be more than 0 s and at most 31 d", Refused.field("/by",
                    () -> controller.forward(ADMIN, new ClockController.ForwardRequest(wrong))));
        }
        verify(clock, never()).forward(any());
    }
}
