package dev.paseo.agent.log;

import dev.paseo.agent.lease.LeaseClient;
import dev.paseo.agent.lease.Patience;
import dev.paseo.api.agent.LogLine;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.zip.GZIPOutputStream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Ships spooled output to the service in compressed blocks, one file after the other, beside the work itself. It reads
 * no faster than the service takes, and goes on where the service says that it has got to.
 */
public final class LogShipper {

    private static final Logger LOG = LoggerFactory.getLogger(LogShipper.class);
    private static final int BLOCK_BYTES = 256 << 10;
    private static final int BLOCK_LINES = 10_000;
    private static final long MOST_LINES = 10_000_000;

    private record Output(Path file, int step, CountDownLatch ended) {}

    private final LeaseClient lease;
    private final Masker masker;
    private final LinkedBlockingQueue<Output> outputs = new LinkedBlockingQueue<>();
    private final Output last = new Output(Path.of("/dev/null"), 0, new CountDownLatch(0));
    private final Thread shipping;
    private long wanted;
    private long reached = 1;

    /** @param fresh the service has no line yet, and need not be asked */
    public LogShipper(LeaseClient lease, Masker masker, boolean fresh) throws IOException, InterruptedException {
        this.lease = lease;
        this.masker = masker;
        this.wanted = fresh ? 1 : Patience.insist(lease::nextLine);
        this.shipping = Thread.ofPlatform().daemon().name("log").start(this::ship);
    }

    /** Ships a file, after those before it, until the latch says that it no longer grows and all of it is shipped. */
    public void follow(Path output, int step, CountDownLatch ended) {
        outputs.add(new Output(output, step, ended));
    }

    /** Ships a file that is whole. */
    public void add(Path output, int step) {
        follow(output, step, new CountDownLatch(0));
    }

    /** Waits until everything is shipped. */
    public void finish() throws InterruptedException {
        outputs.add(last);
        shipping.join();
    }

    private void ship() {
        try {
            for (Output output = outputs.take(); output != last; output = outputs.take()) {
                ship(output);
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        } catch (LeaseClient.LeaseOver over) {
            LOG.debug("the log is no longer wanted");
        } catch (LeaseClient.Refused refused) {
            LOG.warn("the log is not taken: {}", refused.getMessage());
        } catch (IOException unreadable) {
            LOG.error("the spool cannot be read: what is left of the log is lost", unreadable);
        }
    }

    private void ship(Output output) throws IOException, InterruptedException {
        OutputReader reader = new OutputReader(output.file(), output.step(), masker);
        long left = MOST_LINES;
        while (true) {
            // Asked before reading: what was written before the end is then certainly read.
            boolean ended = output.ended().getCount() == 0;
            List<LogLine> lines = reader.read(BLOCK_BYTES, ended);
            if (!lines.isEmpty()) {
                boolean full = lines.size() > left;
                shipAll(full ? cut(lines.subList(0, (int) left), output.step()) : lines);
                if (full) {
                    return;
                }
                left -= lines.size();
            } else if (ended) {
                return;
            } else {
                output.ended().await(20, TimeUnit.MILLISECONDS);
            }
        }
    }

    private static List<LogLine> cut(List<LogLine> lines, int step) {
        List<LogLine> whole = new ArrayList<>(lines);
        whole.add(new LogLine(lines.isEmpty() ? 0 : lines.getLast().millis(), step,
                "… the rest is not kept: " + MOST_LINES + " lines are the most of one try of a step"));
        return whole;
    }

    private void shipAll(List<LogLine> lines) throws IOException, InterruptedException {
        for (int from = 0; from < lines.size(); from += BLOCK_LINES) {
            ship(lines.subList(from, Math.min(lines.size(), from + BLOCK_LINES)));
        }
    }

    private void ship(List<LogLine> lines) throws IOException, InterruptedException {
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
