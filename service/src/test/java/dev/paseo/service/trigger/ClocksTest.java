package dev.paseo.service.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components;
import dev.paseo.service.database.Rows;
import dev.paseo.service.start.StartTriggers;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** Clocks whose time has come start what waits for them; one that cannot keeps no other. */
class ClocksTest {

    private final StartTriggers triggers = mock(StartTriggers.class);
    private final Components components = mock(Components.class);
    private final Starting starting = mock(Starting.class);
    private final Clocks clocks = new Clocks(triggers, components, starting, new AtNoon().clock);

    @BeforeEach
    void aComponent() {
        when(components.byId(7)).thenReturn(new Components.RegisteredComponent(7, "path-board", Optional.empty(),
                "paseo.yaml", "main", "", Optional.empty()));
    }

    private static StartTriggers.Due due(long component, Instant at) {
        return new StartTriggers.Due(component, 0, "0 12 * * *", "Europe/Rome", at);
    }

    private Happened started(StartTriggers.Due... due) {
        when(triggers.due()).thenReturn(List.of(due));
        clocks.fire();
        ArgumentCaptor<Happened> happened = ArgumentCaptor.captor();
        verify(starting, times(1)).happened(happened.capture(), any());
        return happened.getValue();
    }

    @Test
    void itSaysWhenInTheZoneOfTheClock() {
        Happened happened = started(due(7, Rows.NOON));
        assertEquals(Optional.of("main"), happened.branch());
        assertEquals(true, happened.sentence().endsWith(":00 Europe/Rome"), happened.sentence());
    }

    @Test
    void oneThatWasMissedForMoreThanAnHourSaysSo() {
        Happened happened = started(due(7, Rows.NOON.minus(Duration.ofMinutes(61))));
        assertEquals(true, happened.sentence().endsWith("Europe/Rome, missed"), happened.sentence());
    }

    @Test
    void oneThatCannotStartAnythingKeepsNoOther() {
        when(components.byId(8)).thenThrow(new IllegalStateException("gone"));
        assertEquals("path-board", started(due(8, Rows.NOON), due(7, Rows.NOON)).about().name());
    }

    /** Of two services the one that moves the clock on starts what it starts. */
    @Test
    void theClockIsMovedOnInTheSameTransaction() {
        StartTriggers.Due due = due(7, Rows.NOON);
        when(triggers.due()).thenReturn(List.of(due));
        when(triggers.fire(due)).thenReturn(false);
        clocks.fire();
        ArgumentCaptor<BooleanSupplier> first = ArgumentCaptor.captor();
        verify(starting).happened(any(), first.capture());
        assertEquals(false, first.getValue().getAsBoolean());
        verify(triggers).fire(due);
    }
}
