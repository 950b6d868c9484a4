package dev.paseo.agent.log;

import dev.paseo.api.agent.LogLine;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Reads spooled output as lines, from the beginning. The same output always gives the same lines, however often and in
 * whatever parts it is read, so that an agent that was restarted goes on at the right one.
 */
final class OutputReader {

    /** Longer lines are cut; in characters. */
    static final int LONGEST_LINE = 16_384;

    private final Path file;
    private final int step;
    private final Masker masker;
    private final StringBuilder rest = new StringBuilder();
    private byte[] undecoded = new byte[0];
    private long position;

    OutputReader(Path file, int step, Masker masker) {
        this.file = file;
        this.step = step;
        this.masker = masker;
    }

    /**
     * The lines that are complete by now, in parts of about this many bytes; with {@code all}, also an unended last
     * one.
     * None means that there is nothing more for the moment.
     */
    List<LogLine> read(int partBytes, boolean all) throws IOException {
        List<LogLine> lines = new ArrayList<>();
        long now = System.currentTimeMillis();
        boolean atEnd;
        do {
            atEnd = fill(partBytes);
            takeWhole(lines, now, all && atEnd);
        } while (lines.isEmpty() && !atEnd);
        if (all && atEnd) {
            takeRest(lines, now);
        }
        return lines;
    }

    private void takeWhole(List<LogLine> lines, long now, boolean all) {
        int whole = rest.lastIndexOf("\n") + 1;
        if (whole > 0) {
            String text = rest.substring(0, whole);
            int settled = all ? whole : masker.settled(text);
            List<String> pieces = new ArrayList<>();
            int from = 0;
            for (int end = text.indexOf('\n'); end >= 0 && end < settled; end = text.indexOf('\n', from)) {
                cut(text.substring(from, end), pieces);
                from = end + 1;
            }
            add(lines, pieces, now);
            rest.delete(0, from);
        }
        while (rest.indexOf("\n") < 0 && rest.length() > LONGEST_LINE + masker.longest()) {
            int cut = masker.cut(rest.toString(), LONGEST_LINE);
            add(lines, List.of(rest.substring(0, cut)), now);
            rest.delete(0, cut);
        }
    }

    private void takeRest(List<LogLine> lines, long now) {
        rest.append(new String(undecoded, StandardCharsets.UTF_8));
        undecoded = new byte[0];
        if (!rest.isEmpty()) {
            List<String> pieces = new ArrayList<>();
            cut(rest.toString(), pieces);
            add(lines, pieces, now);
            rest.setLength(0);
        }
    }

    private boolean fill(int mostBytes) throws IOException {
        if (!Files.exists(file)) {
            return true;
        }
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            in.seek(position);
            byte[] buffer = new byte[(int) Math.min(mostBytes, Math.max(0, in.length() - position))];
            in.readFully(buffer);
            position += buffer.length;
            decode(buffer);
            return position >= in.length();
        }
    }

    /** Text up to the last whole sign; what is no UTF-8 becomes the replacement sign. */
    private void decode(byte[] buffer) {
        byte[] joined = new byte[undecoded.length + buffer.length];
        System.arraycopy(undecoded, 0, joined, 0, undecoded.length);
        System.arraycopy(buffer, 0, joined, undecoded.length, buffer.length);
        int whole = joined.length;
        for (int back = 1; back <= 3 && back <= joined.length; back++) {
            int sign = joined[joined.length - back] & 0xff;
            boolean goesOn = sign >= 0x80 && sign < 0xc0;
            int needs = sign >= 0xf8 ? 1 : sign >= 0xf0 ? 4 : sign >= 0xe0 ? 3 : 2;
            if (!goesOn && sign >= 0xc0 && needs > back) {
                whole = joined.length - back;
            }
            if (!goesOn) {
                break;
            }
        }
        rest.append(new String(joined, 0, whole, StandardCharsets.UTF_8));
        undecoded = Arrays.copyOfRange(joined, whole, joined.length);
    }

    /** A line that is too long becomes several, none of them torn within a secret. */
    private void cut(String line, List<String> pieces) {
        String left = line;
        while (left.length() > LONGEST_LINE + masker.longest()) {
            int cut = masker.cut(left, LONGEST_LINE);
            pieces.add(left.substring(0, cut));
            left = left.substring(cut);
        }
        pieces.add(left.endsWith("\r") ? left.substring(0, left.length() - 1) : left);
    }

    private void add(List<LogLine> lines, List<String> pieces, long now) {
        if (!pieces.isEmpty()) {
            masker.mask(pieces).forEach(line -> lines.add(new LogLine(now, step, line)));
        }
    }
}
