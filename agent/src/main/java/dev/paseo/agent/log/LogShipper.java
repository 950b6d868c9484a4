package dev.paseo.agent.log;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.api.agent.LogLine;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.GZIPOutputStream;

/**
 * Ships spooled output to the service in compressed blocks, one file after the other. It reads no faster than the service
 * takes, and goes on where the service says that it has got to.
 */
public final class LogShipper {

    private static final int BLOCK_BYTES = 512 << 10;

    private final LeaseClient lease;
    private final Masker masker;
    private long wanted;
    private long reached = 1;

    public LogShipper(LeaseClient lease, Masker masker) throws InterruptedException {
        this.lease = lease;
        this.masker = masker;
        this.wanted = Patience.insist(lease::nextLine);
    }

    /** Whether a file of output is still growing. */
    @FunctionalInterface
    public interface Growing {
        boolean isGrowing();
    }

    /** Follows a file until it no longer grows and all of it is shipped. */
    public void follow(Path output, int step, Growing growing) throws InterruptedException {
        OutputReader reader = new OutputReader(output, step, masker);
        try {
            while (true) {
                // Asked before reading: what was written before the end is then certainly read.
                boolean last = !growing.isGrowing();
                List<LogLine> lines = reader.read(BLOCK_BYTES, last);
                if (!lines.isEmpty()) {
                    ship(lines);
                } else if (last) {
                    return;
                } else {
                    Thread.sleep(20);
                }
            }
        } catch (IOException unreadable) {
            throw new UncheckedIOException("the spool cannot be read", unreadable);
        }
    }

    private void ship(List<LogLine> lines) throws InterruptedException {
        long first = reached;
        reached += lines.size();
        while (wanted < reached) {
            List<LogLine> missing = lines.subList((int) (wanted - first), lines.size());
            byte[] block = compress(missing);
            long from = wanted;
            wanted = Patience.insist(() -> lease.log(from, block));
        }
    }

    private static byte[] compress(List<LogLine> lines) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (GZIPOutputStream out = new GZIPOutputStream(bytes, 1 << 13)) {
            for (LogLine line : lines) {
                out.write(line.encode().getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }
}
