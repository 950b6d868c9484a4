package dev.paseo.service.host;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.service.agent.WorkBoard;
import dev.paseo.service.audit.AuditTrail;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** A host that is taken out: what was offered to it goes elsewhere, and its places hear why it is away. */
class MaintenanceTest {

    private final RealDatabase database = RealDatabase.get();
    private final HostReportMapper mapper = database.mapper(HostReportMapper.class);
    private final AtNoon noon = new AtNoon();
    private final Environments environments = mock(Environments.class);
    private final Places places = mock(Places.class);
    private final WorkBoard board = mock(WorkBoard.class);
    private final Maintenance maintenance = new Maintenance(mapper, environments, places, board,
            noon.changes);
    private final Rows.Place row = database.rows().place();
    private final long host = database.rows().host(row.id());
    private final String name = database.name("host", host);
    private final Environments.Place place = SomePlace.of(row, "path-board");

    @BeforeEach
    void anotherHostActsForThePlace() {
        when(environments.acting(place)).thenReturn(new Environments.PlaceHost(99, "other", Optional.empty(),
                Optional.empty(), Optional.empty(), Optional.empty()));
        when(board.installOffered(row.id(), host)).thenReturn(true);
    }

    private Optional<String> reason() {
        return mapper.hosts().stream().filter(row -> row.name().equals(name)).findFirst()
                .map(HostReportMapper.HostRow::maintenance);
    }

    @Test
    void whatWasOfferedGoesElsewhereAndThePlaceHearsWhyTheHostIsAway() {
        maintenance.begin(name, "a new disk", "ines");
        assertEquals(Optional.of("a new disk"), reason());
        ArgumentCaptor<Function<Environments.Place, Optional<PlaceEvent>>> event = ArgumentCaptor.captor();
        verify(places).change(eq(row.id()), event.capture());
        assertEquals(Optional.of(new PlaceEvent.HostAway(name, "in maintenance: a new disk", true)),
                event.getValue().apply(place));
        verify(board).offerElsewhere(row.id(), host, 99);
        ArgumentCaptor<AuditTrail.Entry> entry = ArgumentCaptor.captor();
        verify(noon.audit).record(entry.capture());
        assertEquals("maintenance begun", entry.getValue().what());
    }

    @Test
    void whenItIsOverNothingIsTakenFromAnybody() {
        maintenance.begin(name, "a new disk", "ines");
        maintenance.end(name, "ines");
        assertEquals(Optional.empty(), reason());
        verify(board, never()).offerElsewhere(row.id(), 99, host);
    }

    @Test
    void aHostThatIsNotThereIsNamedWithTheOneThatIsNear() {
        assertEquals("There is no host " + name + "x; did you mean " + name + "?",
                Refused.by(Kind.NOT_FOUND, () -> maintenance.begin(name + "x", "a new disk", "ines")));
        verify(places, never()).change(anyLong(), any());
        verify(noon.audit, never()).record(any());
    }
}
