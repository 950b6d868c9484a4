package dev.paseo.service.waiting;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Grant;
import dev.paseo.core.access.Person;
import dev.paseo.core.access.Role;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.Rows;
import dev.paseo.service.gate.WaitingGates;
import dev.paseo.service.loosening.Agreements;
import dev.paseo.service.waiting.MissingGrants.GrantView;
import dev.paseo.service.waiting.WaitingMapper.ReviewRow;
import dev.paseo.service.waiting.WaitingMapper.StayRow;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WaitingViewsTest {

    private final WaitingMapper mapper = mock(WaitingMapper.class);
    private final WaitingGates waits = mock(WaitingGates.class);
    private final MissingGrants missing = mock(MissingGrants.class);
    private final WaitingViews views = new WaitingViews(mapper, waits, missing, mock(Agreements.class),
            mock(ServiceClock.class));

    /** The number that stands in the rail is that of the page that it leads to. */
    @ParameterizedTest
    @CsvSource({"ADMINISTRATOR, 6", "APPROVER, 3", "AUDITOR, 2"})
    void asMuchIsCountedAsIsShown(Role role, int much) {
        Person person = new Person(7, "anna", Set.of(),
                List.of(new Grant(role, Optional.empty(), Optional.empty())));
        when(waits.count(7)).thenReturn(2);
        when(waits.forNobody(anyInt())).thenReturn(List.of(new WaitingGates.Waiting(Optional.of(3L), Optional.empty(),
                "ridge-map", "production", "1.2.0", "decision", "approvers", "nobody may", Rows.NOON,
                Optional.empty())));
        when(missing.all()).thenReturn(List.of(new GrantView("ridge-map", "SIGNING_KEY", false)));
        when(mapper.stays()).thenReturn(List.of(new StayRow("ridge-map", "1.2.0", "staging", "a secret is missing",
                Rows.NOON)));
        when(mapper.reviews(7)).thenReturn(List.of(new ReviewRow(4, "ridge-map", "production", "1.1.9", "boris",
                "it burned", true, Rows.NOON, Rows.NOON.plus(Duration.ofDays(1)))));
        assertEquals(much, views.waiting(person, List.of()).count());
        assertEquals(much, views.count(person, 0).count());
    }
}
