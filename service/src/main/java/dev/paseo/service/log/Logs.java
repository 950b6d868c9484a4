package dev.paseo.service.log;

import dev.paseo.core.text.Size;
import dev.paseo.api.agent.LogLine;
import dev.paseo.service.bytes.KeptBytes;
import dev.paseo.service.clock.ServiceClock;
import dev.paseo.service.engine.Nudge;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.quota.Quotas;
import dev.paseo.service.settings.Settings;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import org.springframework.stereotype.Component;

/** Logs: compressed blocks in the byte store, one index row a block, the newest blocks in memory. */
@Component
public class Logs {

    public static final int LARGEST_BLOCK = 8_000_000;
    private static final int MOST_LINES = 20_000;
    /** How much memory the remembered blocks may take, about, in bytes. */
    private static final long REMEMBERED = 48L << 20;
    private static final long LINE_WEIGHT = 96;

    /** A numbered line. */
    public record Line(long number, LogLine line) {}

    private final LogMapper mapper;
    private final KeptBytes bytes;
    private final ServiceClock clock;
    private final Nudge nudge;
    private final Quotas quotas;
    private final long mostLines;
    private final Map<String, List<LogLine>> remembered = new LinkedHashMap<>(16, 0.75f, true);
    private long weight;

    Logs(LogMapper mapper, KeptBytes bytes, ServiceClock clock, Nudge nudge, Quotas quotas, Settings settings) {
        this.mapper = mapper;
        this.bytes = bytes;
        this.clock = clock;
        this.nudge = nudge;
        this.quotas = quotas;
        this.mostLines = settings.mostLogLines();
    }

    public long nextLine(long work) {
        return mapper.nextLine(work);
    }

    /** Keeps a block and gives the number of the next line. A block that is there already changes nothing. */
    public long append(long work, long first, byte[] block) {
        long next = mapper.nextLine(work);
        if (first != next) {
            return next;
        }
        List<LogLine> lines = decode(block);
        if (first + lines.size() - 1 > mostLines) {
            throw Refusal.tooLarge("A log has at most " + mostLines + " lines");
        }
        long component = quotas.ofWork(work);
        quotas.room(component, block.length);
        String digest = bytes.keep(new ByteArrayInputStream(block), LARGEST_BLOCK, clock.now()).digest();
        mapper.add(work, first, lines.size(), digest, lines.getFirst().step());
        quotas.kept(component, block.length);
        remember(digest, lines);
        nudge.now(Nudge.log(work));
        return mapper.nextLine(work);
    }

    private static List<LogLine> decode(byte[] block) {
        try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(block))) {
            byte[] text = in.readNBytes(LARGEST_BLOCK + 1);
            if (text.length > LARGEST_BLOCK) {
                throw Refusal.tooLarge("A block of a log has at most " + Size.words(LARGEST_BLOCK) + ", unpacked");
            }
            List<LogLine> lines = new ArrayList<>();
            int from = 0;
            String whole = new String(text, StandardCharsets.UTF_8);
            for (int end = whole.indexOf('\n'); end >= 0; end = whole.indexOf('\n', from)) {
                if (lines.size() == MOST_LINES) {
                    throw Refusal.tooLarge("A block of a log has at most " + MOST_LINES + " lines");
                }
                lines.add(LogLine.decode(whole.substring(from, end)));
                from = end + 1;
            }
            if (lines.isEmpty() || from < whole.length()) {
                throw new IllegalArgumentException("a block is lines, each with its end");
            }
            return lines;
        } catch (IOException | IllegalArgumentException damaged) {
            throw Refusal.invalid("/block", "The block is not gzip of log lines: " + damaged.getMessage());
        }
    }

    /** The lines from this number on, at most {@code limit}. */
    public List<Line> read(long work, long from, int limit) {
        List<Line> found = new ArrayList<>();
        for (LogMapper.BlockRow block : mapper.blocks(work, from)) {
            List<LogLine> lines = lines(block.digest());
            for (int at = (int) Math.max(0, from - block.firstLine()); at < lines.size()
                    && found.size() < limit; at++) {
                found.add(new Line(block.firstLine() + at, lines.get(at)));
            }
            if (found.size() >= limit) {
                break;
            }
        }
        return found;
    }

    /** The same, but waits for the first line this long where there is none yet. */
    public List<Line> await(long work, long from, int limit, long millis) throws InterruptedException {
        long until = System.nanoTime() + millis * 1_000_000;
        try (Nudge.Listening listening = nudge.listen(Nudge.log(work))) {
            while (true) {
                List<Line> lines = read(work, from, limit);
                long left = (until - System.nanoTime()) / 1_000_000;
                if (!lines.isEmpty() || left <= 0 || nudge.isClosing()) {
                    return lines;
                }
                // Another replica may have taken the block.
                listening.await(Math.min(left, 250));
            }
        }
    }

    /** Lines of one step that stand together; of step 0 the agent's own words. */
    public record Span(int step, long first, long last) {}

    /** Which lines are of which step, in their order. */
    public List<Span> outline(long work) {
        return mapper.spans(work).stream().map(row -> new Span(row.step(), row.first(), row.last())).toList();
    }

    /** Where a text was found: the numbers of the first lines, and how many lines have it in all. */
    public record Found(List<Long> lines, long total) {}

    /** Looks for a text, whatever its case, in a whole log. */
    public Found search(long work, String text, int most) {
        Pattern pattern = Pattern.compile(Pattern.quote(text), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
        List<Long> numbers = new ArrayList<>();
        long total = 0;
        for (LogMapper.BlockRow block : mapper.all(work)) {
            List<LogLine> lines = decoded(block.digest());
            for (int at = 0; at < lines.size(); at++) {
                if (pattern.matcher(lines.get(at).text()).find()) {
                    total++;
                    if (numbers.size() < most) {
                        numbers.add(block.firstLine() + at);
                    }
                }
            }
        }
        return new Found(numbers, total);
    }

    private List<LogLine> lines(String digest) {
        synchronized (remembered) {
            List<LogLine> lines = remembered.get(digest);
            if (lines != null) {
                return lines;
            }
        }
        List<LogLine> lines = decoded(digest);
        remember(digest, lines);
        return lines;
    }

    private List<LogLine> decoded(String digest) {
        try (InputStream in = bytes.open(digest)) {
            return decode(in.readAllBytes());
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private void remember(String digest, List<LogLine> lines) {
        synchronized (remembered) {
            if (remembered.put(digest, lines) == null) {
                weight += weight(lines);
            }
            Iterator<List<LogLine>> eldest = remembered.values().iterator();
            while (weight > REMEMBERED && eldest.hasNext()) {
                weight -= weight(eldest.next());
                eldest.remove();
            }
        }
    }

    private static long weight(List<LogLine> lines) {
        return lines.stream().mapToLong(line -> LINE_WEIGHT + line.text().length()).sum();
    }
}
