package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.Effects;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.source.Mirror;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A commit's files, kept as they are. */
class CommitFilesTest {

    @TempDir
    Path data;

    private final KeptBytes bytes = mock(KeptBytes.class);
    private final RunOutputs outputs = mock(RunOutputs.class);
    private final Quotas quotas = mock(Quotas.class);
    private final Mirror mirror = mock(Mirror.class);
    private final Run run = mock(Run.class);

    @BeforeEach
    void aRunWithRoom() throws IOException {
        Files.createDirectories(data.resolve("scratch"));
        when(run.commitId()).thenReturn("a".repeat(40));
        when(run.componentId()).thenReturn(7L);
        when(quotas.room(7, 0)).thenReturn(5_000_000_000L);
    }

    @AfterEach
    void nothingIsLeftOfIt() throws IOException {
        try (var left = Files.list(data.resolve("scratch"))) {
            assertEquals(0, left.count());
        }
    }

    private CommitFiles files() {
        Settings settings = mock(Settings.class);
        when(settings.data()).thenReturn(data);
        return new CommitFiles(mock(RunMapper.class), outputs, quotas,
                new CommitFiles.Keeping(bytes, mock(ServiceClock.class)), settings);
    }

    @Test
    void theCommitsFilesAreTheArtifactAndCount() {
        when(bytes.keep(any(), eq(1_000_000_000L), any())).thenReturn(new ByteStore.StoredBytes("f".repeat(64), 512));
        files().tree(run, mirror, Optional.empty());
        verify(outputs).artifact(run, null, "tree", "tree.tar", new RunOutputs.Bytes("f".repeat(64), 512));
        verify(quotas).kept(7, 512);
    }

    @Test
    void moreThanAGigabyteOfACommitsFilesIsRefused() {
        when(bytes.keep(any(), anyLong(), any())).thenThrow(Refusal.tooLarge("At most 1 GB are accepted"));
        assertEquals("At most 1 GB are accepted",
                Refused.by(Refusal.Kind.TOO_LARGE, () -> files().tree(run, mirror, Optional.empty())));
        verify(bytes).keep(any(), eq(1_000_000_000L), any());
        verifyNoInteractions(outputs);
    }

    @Test
    void whereThereIsLessRoomNoMoreIsKept() {
        when(quotas.room(7, 0)).thenReturn(100L);
        when(bytes.keep(any(), anyLong(), any())).thenReturn(new ByteStore.StoredBytes("f".repeat(64), 90));
        files().tree(run, mirror, Optional.empty());
        verify(bytes).keep(any(), eq(100L), any());
    }

    @Test
    void aFolderThatIsNotThereIsGivenUpWithItsKey() {
        doThrow(mock(Mirror.NoSuchFiles.class, call -> "the commit has no folder site")).when(mirror).tree(any(), any(),
                any());
        assertEquals("tree: the commit has no folder site", Assertions.assertThrows(Effects.GivesUp.class,
                () -> files().tree(run, mirror, Optional.of("site"))).getMessage());
        verifyNoInteractions(bytes, outputs);
    }
}
