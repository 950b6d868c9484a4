package dev.paseo.service.recording;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.core.access.Person;
import dev.paseo.core.deployment.PlaceEvent;
import dev.paseo.core.deployment.Plan;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.SomePlace;
import dev.paseo.service.gate.Stretches;
import dev.paseo.service.livestate.LiveStates;
import dev.paseo.service.passage.Passages;
import dev.paseo.service.place.Places;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.request.NewDeployments;
import dev.paseo.service.version.Versions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class RecordingTest {

    private static final Place PLACE = SomePlace.of("path-board");
    private static final Person ANNA = new Person(1, "anna", Set.of(), List.of());

    private final AtNoon noon = new AtNoon();
    private final Places places = mock(Places.class);
    private final NewDeployments deployments = mock(NewDeployments.class);
    private final Environments environments = mock(Environments.class);
    private final Stretches stretches = mock(Stretches.class);
    private final Passages passages = mock(Passages.class);
    private final LiveStates live = mock(LiveStates.class);
    private final Recording recording = new Recording(places, deployments, environments,
            new RecordedAsLive(stretches, passages, live, noon.changes), RealDatabase.get().transactions());
    private final Versions.Version version = mock(Versions.Version.class);

    @BeforeEach
    void aVersionWithADeployment() {
        when(version.id()).thenReturn(2L);
        when(version.component()).thenReturn("path-board");
        when(version.number()).thenReturn("1.4.2");
        when(version.recipe()).thenReturn(Optional.of(mock(Recipe.class)));
        Environments.PlaceHost host = mock(Environments.PlaceHost.class);
        when(host.name()).thenReturn("north-hut");
        when(host.side()).thenReturn(Optional.empty());
        when(environments.hosts(3)).thenReturn(List.of(host));
        when(live.into(any(), anyLong())).thenAnswer(call -> call.getArgument(0));
        when(deployments.recorded(PLACE, version, ANNA, "it was there")).thenReturn(11L);
    }

    @Test
    void whatWasThereIsLiveFromNowOnEverywhere() {
        PlaceEvent[] told = new PlaceEvent[1];
        doAnswer(call -> {
            told[0] = call.<Function<Place, Optional<PlaceEvent>>>getArgument(1).apply(PLACE).orElseThrow();
            return null;
        }).when(places).require(anyLong(), any(), any());
        assertEquals(11, recording.record(PLACE, version, ANNA, "it was there"));
        assertEquals(new PlaceEvent.Recorded(11, "1.4.2", 0, 0,
                List.of(new Plan.Host("north-hut", Optional.empty(), false))), told[0]);
        verify(stretches).begin(3);
        verify(passages).recorded(2, 5);
        verify(noon.live).publish("whereabouts", "path-board");
    }

    @Test
    void whereThePlaceSaysNoNothingFollows() {
        doAnswer(call -> {
            throw call.<Function<String, Refusal>>getArgument(2).apply("1.4.1 is live there");
        }).when(places).require(anyLong(), any(), any());
        assertEquals("path-board in production: 1.4.1 is live there",
                Refused.by(Refusal.Kind.CONFLICT, () -> recording.record(PLACE, version, ANNA, "it was there")));
        verify(stretches, never()).begin(anyLong());
        verify(noon.audit, never()).record(any());
    }

    @Test
    void whatHasNoDeploymentIsNowhereLive() {
        when(version.recipe()).thenReturn(Optional.empty());
        assertEquals("path-board 1.4.2 has no deployment in its pipeline file",
                Refused.by(Refusal.Kind.CONFLICT, () -> recording.record(PLACE, version, ANNA, "it was there")));
    }
}
