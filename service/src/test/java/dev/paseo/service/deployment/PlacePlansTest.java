package dev.paseo.service.deployment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.Kind;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.database.Rows;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.place.PlaceGates;
import dev.paseo.service.place.Places;
import dev.paseo.service.place.Planner;
import dev.paseo.service.restraint.Holds;
import dev.paseo.service.restraint.Restraints;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Before anything is deployed: why it cannot be, or what whoever deploys it goes past. */
class PlacePlansTest {

    private static final Place PLACE = SomePlace.of("path-board");

    private final Places places = mock(Places.class);
    private final PlaceGates gates = mock(PlaceGates.class);
    private final Planner planner = mock(Planner.class);
    private final Holds holds = mock(Holds.class);
    private final PlacePlans plans = new PlacePlans(places, gates, planner, holds);
    private final Versions.Version version = version("1.4.1", 4);

    private static Versions.Version version(String number, long order) {
        Versions.Version version = mock(Versions.Version.class);
        when(version.number()).thenReturn(number);
        when(version.line()).thenReturn(2L);
        when(version.order()).thenReturn(order);
        when(version.recipe()).thenReturn(Optional.of(mock(Recipe.class)));
        return version;
    }

    @BeforeEach
    void nothingIsThere() {
        when(places.live(PLACE)).thenReturn(Optional.empty());
        when(holds.held(PLACE)).thenReturn(Optional.empty());
    }

    @Test
    void whatCannotBeDeployedSaysWhyAndNothingIsPlannedOrJudged() {
        when(planner.reasonAgainst(PLACE, version)).thenReturn(Optional.of("no host there has the space"));
        assertEquals(Optional.of("no host there has the space"), plans.plan(PLACE, version, "ben").reason());
        when(version.recipe()).thenReturn(Optional.empty());
        assertEquals(Optional.of("it has no deployment in its pipeline file"),
                plans.plan(PLACE, version, "ben").reason());
        verify(planner, never()).plan(any(), any(), any(), any());
        verify(gates, never()).prospect(any(), any(), any());
    }

    @Test
    void aStepBackAndAHoldAreCautioned() {
        assertEquals(List.of(), plans.cautions(PLACE, version, Kind.PROMOTION));
        Versions.Version newer = version("1.4.2", 5);
        when(places.live(PLACE)).thenReturn(Optional.of(newer));
        assertEquals(1, plans.cautions(PLACE, version, Kind.PROMOTION).size());
        when(holds.held(PLACE)).thenReturn(Optional.of(new Restraints.Hold("the snow", "ines", Rows.NOON)));
        List<String> both = plans.cautions(PLACE, version, Kind.PROMOTION);
        assertEquals(2, both.size());
        assertEquals(true, both.stream().anyMatch(caution -> caution.contains("by ines: “the snow”")));
    }
}
