package dev.paseo.service.environment;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoMoreInteractions;
import static org.mockito.Mockito.when;

import dev.paseo.core.environment.Rules;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.environment.EnvironmentMapper.PlaceSettingsRow;
import dev.paseo.service.environment.EnvironmentMapper.ServedRow;
import java.util.List;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;

class ExportingTest {

    private static final String SETTINGS = """
            {"format":1,"url":null,"variables":{},"secrets":[],"acting":null,"hosts":{"north-hut":{"url":null,
              "variables":{},"side":null,"ssh":{"address":"north.park.example","port":22,"user":"paseo","key":"KEY",
              "hostKey":"ssh-ed25519 AAAA","folder":"/srv"}}}}""";

    private final EnvironmentMapper mapper = mock(EnvironmentMapper.class);
    private final Environments environments = mock(Environments.class);
    private final Exporting exporting = new Exporting(mapper, environments, RealDatabase.get().json());

    @Test
    void howeverManyPlacesAnEnvironmentHasTheDatabaseIsAskedTwiceForThem() {
        when(environments.all())
                .thenReturn(List.of(new Environments.Environment(3, "test", "UTC", Rules.NONE, 1)));
        when(mapper.settingsIn(3)).thenReturn(LongStream.range(100, 400)
                .mapToObj(place -> new PlaceSettingsRow(place, "hut-" + place, SETTINGS)).toList());
        when(mapper.hostsIn(3)).thenReturn(List.of(new ServedRow(100, "north-hut", "ridge"),
                new ServedRow(101, "north-hut", null)));
        var places = exporting.file().environments().getFirst().components();
        assertEquals(300, places.size());
        assertEquals("ridge", places.get("hut-100").hosts().get("north-hut").ssh().orElseThrow().agent());
        assertEquals("", places.get("hut-101").hosts().get("north-hut").ssh().orElseThrow().agent());
        verify(mapper).templates();
        verify(mapper).settingsIn(3);
        verify(mapper).hostsIn(3);
        verify(environments).all();
        verifyNoMoreInteractions(mapper, environments);
    }
}
