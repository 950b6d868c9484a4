package dev.paseo.agent.log;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.paseo.agent.lease.LeaseClient;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LogShipperTest {

    private static final int MOST = 10_000_000;

    /** One line more than are kept of one try of a step: the last that is sent says so. */
    @Test
    void aLogBeyondItsLinesSaysThatTheRestIsNotKept(@TempDir Path folder) throws Exception {
        Path output = folder.resolve("output");
        byte[] lines = new byte[1000];
        Arrays.fill(lines, (byte) '\n');
        try (OutputStream out = Files.newOutputStream(output)) {
            for (int block = 0; block < MOST / lines.length; block++) {
                out.write(lines);
            }
            out.write("beyond\n".getBytes(StandardCharsets.US_ASCII));
        }
        AtomicLong sent = new AtomicLong();
        AtomicReference<String> last = new AtomicReference<>("");
        LeaseClient lease = mock(LeaseClient.class);
        when(lease.log(anyLong(), any())).thenAnswer(call -> {
            String block = text(call.getArgument(1));
            long count = block.chars().filter(sign -> sign == '\n').count();
            sent.addAndGet(count);
            last.set(block);
            return call.<Long>getArgument(0) + count;
        });
        LogShipper shipper = new LogShipper(lease, new Masker(List.of()), true);
        shipper.add(output, 1);
        shipper.finish();
        assertEquals(MOST + 1, sent.get());
        assertEquals("… the rest is not kept: 10000000 lines are the most of one try of a step", last.get().strip()
                .lines().reduce((one, other) -> other).orElseThrow().replaceFirst("^[0-9]+ [0-9]+ ", ""));
    }

    private static String text(byte[] block) throws IOException {
        try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(block))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
