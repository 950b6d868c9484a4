package dev.paseo.service.stage;

import dev.paseo.service.bytes.Archive;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.core.run.StageKey;
import dev.paseo.language.file.PipelineFileReader;
import dev.paseo.service.agent.Work;
import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.evidence.Evidence;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.run.Run;
import dev.paseo.service.run.RunOutputs;
import dev.paseo.service.run.Runs;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class RunFilesTest {

    private final AtNoon noon = new AtNoon();
    private final Runs runs = mock(Runs.class);
    private final RunOutputs outputs = mock(RunOutputs.class);
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final RunFiles files = new RunFiles(runs, outputs, bytes, mock(Evidence.class),
            RealDatabase.get().transactions());
    private final Run run = mock(Run.class);
    private final Work work = new Work(1, "STAGE", 5L, 6L, null, null, "leased", null, 1, null, "no", "[]", false,
            "build", "", 1);

    @BeforeEach
    void file() {
        when(runs.byId(5)).thenReturn(run);
        when(runs.file(run)).thenReturn(PipelineFileReader.read("""
                paseo: 1
                component: daylight-api
                stages:
                  build:
                    steps: [make]
                    keep: {app: out/app.jar}
                """).value().orElseThrow());
    }

    private void output(String name, String fileName) {
        files.output(work, name, fileName, new ByteStore.StoredBytes("0".repeat(64), 3));
    }

    @Test
    void aStageKeepsWhatItsFileNames() {
        output("app", "app.jar");
        for (String wrong : List.of("", "../app.jar", "a/b", "x".repeat(256))) {
            Refused.field("/name", () -> output("app", wrong));
        }
        assertEquals("Stage build keeps no artifact named other from a file app.jar",
                Refused.field("/name", () -> output("other", "app.jar")));
    }

    private String left(Kind kind, byte[] archive) {
        when(bytes.openUnchecked(anyString())).thenAnswer(call -> new ByteArrayInputStream(archive));
        return Refused.by(kind, () -> files.files(work, new ByteStore.StoredBytes("0".repeat(64), 3)));
    }

    @Test
    void noArchiveReachesOutOfTheWorkspace() {
        for (String outside : List.of("/etc/passwd", "../up", "a/../../up")) {
            assertEquals("files: " + outside + " lies outside the workspace",
                    left(Kind.UNPROCESSABLE, Archive.of(outside)));
        }
        assertTrue(left(Kind.UNPROCESSABLE, "no archive at all, but text".repeat(40).getBytes(StandardCharsets.UTF_8))
                .startsWith("files: it "));
        verify(outputs, never()).leave(any(), anyLong(), any(), any());
    }

    @Test
    void twoStagesDoNotLeaveOnePath() {
        when(outputs.left(anyLong())).thenReturn(List.of(new RunOutputs.Left(99, new StageKey("test", ""),
                new RunOutputs.Bytes("1".repeat(64), 3), List.of("out/report.xml"))));
        assertEquals("files: out/report.xml is left by test as well",
                left(Kind.UNPROCESSABLE, Archive.of("out/app.jar", "out/report.xml")));
    }

    @Test
    void aKeyForReuseIsADigest() {
        assertEquals("A key is a SHA-256 in hexadecimal",
                Refused.field("/key", () -> files.reuse(work, "latest", new ByteStore.StoredBytes("0".repeat(64), 3))));
    }
}
