package dev.paseo.service.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;

import dev.paseo.service.bytes.ByteStore;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.change.AtNoon;
import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal.Kind;
import dev.paseo.service.problem.Refused;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;

class LogsTest {

    private final RealDatabase database = RealDatabase.get();
    private final AtNoon noon = new AtNoon();
    private final KeptBytes bytes = mock(KeptBytes.class);
    private final Settings settings = mock(Settings.class);
    private final long work = database.rows().work();
    private final Logs logs = logs();

    private Logs logs() {
        when(settings.mostLogLines()).thenReturn(10L);
        when(bytes.keep(any(), anyLong(), any()))
                .thenAnswer(call -> new ByteStore.StoredBytes(database.rows().digest(), 1));
        return new Logs(database.mapper(LogMapper.class), bytes, noon.clock, mock(Nudge.class), mock(Quotas.class),
                settings);
    }

    private static byte[] block(String text) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(bytes)) {
            gzip.write(text.getBytes(StandardCharsets.UTF_8));
        } catch (IOException failed) {
            throw new IllegalStateException(failed);
        }
        return bytes.toByteArray();
    }

    @Test
    void aBlockThatIsThereOrTooEarlyChangesNothing() {
        assertEquals(3, logs.append(work, 1, block("5 1 one\n6 1 two\n")));
        assertEquals(3, logs.append(work, 1, block("5 1 one\n6 1 two\n")));
        assertEquals(3, logs.append(work, 9, block("5 1 nine\n")));
        assertEquals(List.of("one", "two"), logs.read(work, 1, 10).stream().map(line -> line.line().text()).toList());
    }

    @Test
    void aLogHasItsMostLinesAndNoMore() {
        logs.append(work, 1, block("5 1 x\n".repeat(10)));
        assertEquals("A log has at most 10 lines",
                Refused.by(Kind.TOO_LARGE, () -> logs.append(work, 11, block("5 1 x\n"))));
    }

    @Test
    void aBlockIsGzipOfWholeLines() {
        for (byte[] wrong : List.of("5 1 plain\n".getBytes(StandardCharsets.UTF_8), block(""), block("5 1 no end"),
                block("not a line\n"))) {
            assertTrue(Refused.field("/block", () -> logs.append(work, 1, wrong))
                    .startsWith("The block is not gzip of log lines: "));
        }
        assertEquals("A block of a log has at most 20000 lines",
                Refused.by(Kind.TOO_LARGE, () -> logs.append(work, 1, block("5 1 x\n".repeat(20_001)))));
        assertEquals("A block of a log has at most 8 MB, unpacked",
                Refused.by(Kind.TOO_LARGE, () -> logs.append(work, 1, block("5 1 " + "x".repeat(9 << 20) + "\n"))));
    }
}
