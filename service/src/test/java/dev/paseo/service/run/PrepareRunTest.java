package dev.paseo.service.run;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import dev.paseo.service.source.Mirror;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The files that a recipe brings, too many of them. */
class PrepareRunTest {

    private static final String FILE = "paseo: 1\ncomponent: hut-planner\nversions: \"1.{serial}\"\nstages: {build: "
            + "{steps: ['true'], keep: {app: app}}}\n"
            + "deployment: {artifacts: [app], bring: [deploy/**], on-each-host: ['true']}\n";

    @Test
    void moreThanAGigabyteOfARecipesFilesIsRefused(@TempDir Path data) throws IOException {
        Files.createDirectories(data.resolve("scratch"));
        Settings settings = mock(Settings.class);
        when(settings.data()).thenReturn(data);
        Run run = mock(Run.class);
        when(run.commitId()).thenReturn("a".repeat(40));
        when(run.arrivedVersionId()).thenReturn(null);
        Runs runs = mock(Runs.class);
        Lines lines = mock(Lines.class);
        when(runs.byId(7)).thenReturn(run);
        when(runs.mirror(run)).thenReturn(mock(Mirror.class));
        when(runs.file(run)).thenReturn(PipelineFileReader.read(FILE).value().orElseThrow());
        KeptBytes bytes = mock(KeptBytes.class);
        when(bytes.keep(any(), anyLong(), any())).thenThrow(Refusal.tooLarge("more than 1 GB"));
        RunMapper mapper = mock(RunMapper.class);
        PrepareRun prepare = new PrepareRun(runs, lines, new CommitFiles(mapper, mock(RunOutputs.class),
                mock(Quotas.class), new CommitFiles.Keeping(bytes, mock(ServiceClock.class)), settings));
        assertEquals("more than 1 GB",
                assertThrows(Refusal.class, () -> prepare.perform("7")).getMessage());
        verify(bytes).keep(any(), eq(1_000_000_000L), any());
        verify(mapper, never()).bundle(anyLong(), anyString());
        verify(lines, never()).prepared(any());
        try (var left = Files.list(data.resolve("scratch"))) {
            assertEquals(0, left.count(), "nothing is left of it");
        }
    }
}
