package dev.paseo.service.store;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

class FolderStoreTest {

    @TempDir
    Path drop;
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final RegistryStore.Using using = new RegistryStore.Using(mock(Web.class), bytes, new AtNoon().changes,
            JsonMapper.shared());

    @BeforeEach
    void bytes() {
        when(bytes.keep(any(), anyLong(), any())).thenReturn(new ByteStore.StoredBytes("0".repeat(64), 4));
    }

    private FolderStore store() {
        return new FolderStore(new WatchedStore.Where(WatchedStore.Kind.FOLDER, drop.toUri().toString(),
                Optional.empty(), Optional.empty(), Optional.empty(), "hut-planner-{version}.tgz", false), using);
    }

    @Test
    void filesAreVersionsByTheirNames() throws IOException {
        Files.writeString(drop.resolve("hut-planner-2.3.0.tgz"), "x");
        Files.writeString(drop.resolve("notes.txt"), "x");
        assertEquals(List.of("2.3.0"), store().list(true).stream().map(WatchedStore.Sighting::number).toList());
    }

    @Test
    void aFolderThatIsGoneIsTold() throws IOException {
        Files.delete(drop);
        assertEquals(List.of(), store().list(false), "one that was never there may come yet");
        assertEquals("The folder " + drop + " cannot be listed: " + drop,
                Refused.by(Kind.UNAVAILABLE, () -> store().list(true)));
    }

    @Test
    void aFileThatIsGoneOrStillBeingWrittenIsLookedAtAgain() throws IOException {
        Path file = drop.resolve("hut-planner-2.3.0.tgz");
        Files.writeString(file, "half");
        WatchedStore.Sighting half = store().list(true).getFirst();
        Files.writeString(file, "the whole of it");
        assertEquals(file + " was being written while it was read",
                Refused.by(Kind.UNAVAILABLE, () -> store().fetch(half)));
        Files.delete(file);
        assertEquals("The file of 2.3.0 was removed meanwhile",
                Refused.by(Kind.UNAVAILABLE, () -> store().fetch(half)));
    }
}
