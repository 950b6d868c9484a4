package dev.paseo.service.place;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.core.deployment.HostContent;
import dev.paseo.language.file.Recipe;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.environment.Environments;
import dev.paseo.service.environment.Environments.HostSettings;
import dev.paseo.service.environment.Environments.Place;
import dev.paseo.service.environment.Environments.PlaceSettings;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.version.Versions;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What a host has, would have, and lacks. */
class HostContentsTest {

    private static final Place PLACE = new Place(3, 5, "production", "UTC", 1, 7, "path-board", Optional.empty(), 2,
            Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    private static final HostSettings NORTH = new HostSettings(Optional.of("http://north"), Map.of("PORT", "81"),
            Optional.of("blue"), Optional.empty());

    private final DeploymentMapper mapper = mock(DeploymentMapper.class);
    private final Environments environments = mock(Environments.class);
    private final Secrets secrets = mock(Secrets.class);
    private final HostContents contents = new HostContents(mapper, environments, secrets, RealDatabase.get().json());
    private final Versions.Version version = mock(Versions.Version.class);
    private final Recipe recipe = mock(Recipe.class);

    private static PlaceSettings settings(String lamp, Map<String, HostSettings> hosts) {
        return new PlaceSettings(1, Optional.of("http://board"), Map.of("PORT", "80", "LAMP", lamp), hosts, List.of(),
                Optional.empty());
    }

    @BeforeEach
    void theSecondRevisionIsInForce() {
        when(environments.settings(3, 1)).thenReturn(settings("old", Map.of("north", NORTH)));
        when(environments.settings(3, 2)).thenReturn(settings("new", Map.of("north", NORTH, "south",
                new HostSettings(Optional.empty(), Map.of("PORT", "82"), Optional.empty(), Optional.empty()))));
        when(secrets.revisionsWithHosts(any(), anyLong(), anyLong()))
                .thenReturn(Map.of("KEY", 4L, "KEY@north", 5L));
        when(version.number()).thenReturn("1.4.2");
        when(version.component()).thenReturn("path-board");
        when(version.recipe()).thenReturn(Optional.of(recipe));
        when(recipe.secrets()).thenReturn(List.of("KEY"));
        when(recipe.installed()).thenReturn(Map.of());
        when(recipe.whole()).thenReturn(List.of());
        when(recipe.eachHost()).thenReturn(List.of());
    }

    private static Map<String, String> north(String lamp) {
        return Map.of("PORT", "81", "LAMP", lamp, "url", "http://board", "host.url", "http://north", "side", "blue");
    }

    @Test
    void whatWasDeployedIsToldWithTheSettingsOfThen() {
        when(mapper.contents(3)).thenReturn(
                List.of(new DeploymentMapper.HostContentRow("north", "1.4.1", 1, "{\"KEY\":3,\"KEY@north\":2}")));
        assertEquals(Map.of("north", new HostContent("1.4.1", north("old"), Map.of("KEY", 2L))),
                contents.had(PLACE));
    }

    @Test
    void whatWouldBeDeployedIsToldWithThoseOfNowAndAHostsOwnBeatThePlaces() {
        assertEquals(new HostContent("1.4.2", north("new"), Map.of("KEY", 5L)),
                contents.now(PLACE, version).apply("north"));
        assertEquals(Map.of("KEY", 4L), contents.now(PLACE, version).apply("south").secrets());
    }

    /** A host that came to the place later has what is set for it now. */
    @Test
    void ofAHostThatWasNotThereThenCountsWhatIsSetForItNow() {
        assertEquals(Optional.of("82"), contents.own(PLACE, settings("old", Map.of("north", NORTH)), "south")
                .map(own -> own.variables().get("PORT")));
        assertEquals(Optional.empty(), contents.own(PLACE, settings("old", Map.of()), "nowhere"));
    }

    @Test
    void whatARecipeNamesAndWhatIsNotSetForAHostIsSaid() {
        checks("{host.url}/health?on={variables.PASEO_VERSION}", "{variables.LAMP} of {url}");
        assertEquals(Optional.empty(), contents.lacks(PLACE, version, "north", 2));
        assertEquals(Optional.of("the recipe of path-board 1.4.2 names {host.url}, but in production no address (url) "
                + "is set for south"), contents.lacks(PLACE, version, "south", 2));
        checks("http://board/{variables.ROOM}", "");
        assertEquals(Optional.of("the recipe of path-board 1.4.2 names {variables.ROOM}, but in production no variable "
                + "ROOM is set for north"), contents.lacks(PLACE, version, "north", 2));
    }

    private void checks(String http, String contains) {
        when(recipe.eachHost()).thenReturn(List.of(new Recipe.Check(Optional.of(http), Optional.empty(),
                Optional.empty(), Optional.empty(), 200, Optional.of(contains), Map.of(), Map.of(), Optional.empty(),
                Duration.ofSeconds(5))));
    }
}
