package dev.paseo.service.store;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;

import dev.paseo.service.change.AtNoon;
import dev.paseo.service.component.Components.RegisteredComponent;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.secret.Secrets;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StoresTest {

    private static final RegisteredComponent COMPONENT = new RegisteredComponent(7, "hut-planner", Optional.empty(),
            "paseo.yaml", "main",
            "", Optional.empty());

    private final AtNoon noon = new AtNoon();
    private final StoreMapper mapper = mock(StoreMapper.class);
    private final Settings settings = mock(Settings.class);
    private final Stores stores = new Stores(mapper, new StoreAddresses(mock(Web.class), settings),
            mock(Secrets.class), noon.changes, RealDatabase.get().json());

    private void watch(WatchedStore.Kind kind, String address, String name, String group, String pattern) {
        stores.watch(COMPONENT, new WatchedStore.Where(kind, address, Optional.of(name), Optional.of(group),
                Optional.empty(), pattern, false), Optional.empty(), "anna");
    }

    @Test
    void whatIsLookedForIsNamedAsItsStoreNamesThings() {
        for (String wrong : List.of("", "Park", "../up", "a b", "x".repeat(201))) {
            Refused.field("/name", () -> watch(WatchedStore.Kind.REGISTRY, "http://127.0.0.1", wrong, "", "*"));
        }
        for (String wrong : List.of("", ".", "a/b", "park..huts")) {
            assertEquals("should be the group's id; got “" + wrong + "”", Refused.field("/group",
                    () -> watch(WatchedStore.Kind.MAVEN, "http://127.0.0.1", "planner", wrong, "*")));
        }
        for (String wrong : List.of("", "x".repeat(201))) {
            assertEquals("has 1 to 200 characters", Refused.field("/pattern",
                    () -> watch(WatchedStore.Kind.REGISTRY, "http://127.0.0.1", "park", "", wrong)));
        }
        verify(mapper, never()).add(any());
    }

    @Test
    void aFolderIsOneThatAnOperatorAllowed(@TempDir Path folder) throws IOException {
        Path allowed = Files.createDirectory(folder.resolve("drop"));
        Path link = Files.createSymbolicLink(allowed.resolve("out"), folder);
        when(settings.allowedStores()).thenReturn(List.of(allowed.toString()));
        String pattern = "hut-planner-{version}.tgz";
        watch(WatchedStore.Kind.FOLDER, allowed.toUri().toString(), "", "", pattern);
        for (String outside : List.of(folder.toUri().toString(), link.toUri().toString(),
                allowed.toUri() + "../", "http://127.0.0.1/")) {
            Refused.by(Kind.NOT_ALLOWED, () -> watch(WatchedStore.Kind.FOLDER, outside, "", "", pattern));
        }
        Refused.field("/address", () -> watch(WatchedStore.Kind.FOLDER, allowed.toUri() + "none", "", "", pattern));
        for (String wrong : List.of("hut-planner.tgz", "{version}-{version}.tgz", "in/{version}.tgz")) {
            Refused.field("/pattern",
                    () -> watch(WatchedStore.Kind.FOLDER, allowed.toUri().toString(), "", "", wrong));
        }
    }

    @Test
    void oneOfAnotherComponentIsNotStopped() {
        when(mapper.byId(3)).thenReturn(Optional.empty());
        assertEquals("hut-planner observes no store 3",
                Refused.by(Kind.NOT_FOUND, () -> stores.stop(3, COMPONENT, "anna")));
    }
}
