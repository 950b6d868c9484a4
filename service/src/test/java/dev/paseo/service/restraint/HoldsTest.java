package dev.paseo.service.restraint;

import dev.paseo.service.change.Changes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.environment.Rules;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.engine.LiveEvents;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.problem.Refusal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;

class HoldsTest {

    private static final Instant NOW = Rows.NOON;

    private final RealDatabase database = RealDatabase.get();
    private final RestraintMapper mapper = database.mapper(RestraintMapper.class);
    private final Restraints restraints = mock(Restraints.class);
    private final ServiceClock clock = mock(ServiceClock.class);
    private final AuditTrail audit = mock(AuditTrail.class);
    private final LiveEvents live = mock(LiveEvents.class);
    private final Holds holds = new Holds(mapper, restraints,
            new Changes(database.transactions(), clock, audit, live));
    private final Rows.Place row = database.rows().place();
    private final Person somebody = new Person(database.rows().account(), "operator", Set.of(), List.of());
    private final Environments.Place place = SomePlace.of(row, "daylight-api");
    private final Environments.Environment production = new Environments.Environment(row.environment(), "production",
            "UTC",
            Rules.NONE, 1);

    @BeforeEach
    void time() {
        when(clock.now()).thenReturn(NOW);
    }

    private static void refused(Refusal.Kind kind, String words, Executable what) {
        Refusal refusal = assertThrows(Refusal.class, what);
        assertEquals(kind, refusal.kind());
        assertEquals(words, refusal.getMessage());
    }

    @Test
    void whatIsNotHeldClosedOrBlockedIsNotLifted() {
        refused(Refusal.Kind.CONFLICT, "daylight-api is not held in production",
                () -> holds.liftHold(place, somebody, ""));
        refused(Refusal.Kind.CONFLICT, "production is not closed", () -> holds.open(production, somebody, ""));
        when(restraints.period(row.environment())).thenReturn(Optional.of(new Restraints.ClosedPeriod("Winter rest",
                Instant.parse("2026-12-27T00:00:00Z"))));
        refused(Refusal.Kind.CONFLICT,
                "production is closed by its calendar until 2026-12-27T00:00:00Z: “Winter rest”. "
                        + "Nobody closed it by hand, so nobody opens it; its rules do",
                () -> holds.open(production, somebody, ""));
        verify(audit, never()).record(any());
        verify(live, never()).publish(any(), any());
    }

    @Test
    void eachIsSetWithAReason() {
        assertThrows(Refusal.class, () -> holds.hold(place, somebody, "  "));
        assertThrows(Refusal.class, () -> holds.close(production, somebody, "", Optional.empty()));
        assertEquals(Optional.empty(), mapper.hold(row.id()));
    }

    @Test
    void aClosureDoesNotEndBeforeItBegins() {
        refused(Refusal.Kind.INVALID, "should be later than now, " + NOW + "; got " + NOW,
                () -> holds.close(production, somebody, "the night", Optional.of(NOW)));
        assertEquals(Optional.empty(), mapper.closure(row.environment(), NOW));
    }

    @Test
    void aSecondHoldTakesTheFirstOnesPlace() {
        holds.hold(place, somebody, "the snow");
        holds.hold(place, somebody, "more snow");
        assertEquals(Optional.of("more snow"), mapper.hold(row.id()).map(RestraintMapper.RestraintRow::reason));
    }

    @Test
    void whereTheTrailFailsNothingIsHeld() {
        doThrow(new IllegalStateException("the trail is away")).when(audit).record(any());
        assertThrows(IllegalStateException.class, () -> holds.hold(place, somebody, "the snow"));
        assertEquals(Optional.empty(), mapper.hold(row.id()));
    }
}
