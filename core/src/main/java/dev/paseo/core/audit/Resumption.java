package dev.paseo.core.audit;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * How much of an export can be gone on from: of one that was cut short, or of an earlier one.
 *
 * @param bytes that stay; the end of an export does not
 * @param next  the position of the entry that comes next
 */
public record Resumption(long bytes, long next) {

    /** No line is longer; the file is none of ours where one is. */
    private static final int LONGEST = 4_000_000;

    /**
     * Reads up to the first line that is none of an export, or has no end; empty where there is no first line.
     * Whether what stays is good is not looked at: the whole is verified once it is there.
     */
    public static Optional<Resumption> of(InputStream file) throws IOException {
        InputStream in = new BufferedInputStream(file);
        long bytes = 0;
        long next = -1;
        for (Optional<byte[]> line = line(in); line.isPresent(); line = line(in)) {
            Optional<Exported> read = Exported.read(new String(line.get(), StandardCharsets.UTF_8));
            boolean first = bytes == 0;
            if (read.isEmpty() || first != (read.get() instanceof Exported.Start)
                    || read.get() instanceof Exported.End) {
                break;
            }
            next = switch (read.get()) {
                case Exported.Start start -> start.from();
                case Exported.Entry entry -> entry.position() + 1;
                default -> next;
            };
            bytes += line.get().length + 1;
        }
        return bytes == 0 ? Optional.empty() : Optional.of(new Resumption(bytes, next));
    }

    /** A line with its end; none where the end is missing. */
    private static Optional<byte[]> line(InputStream in) throws IOException {
        ByteArrayOutputStream line = new ByteArrayOutputStream();
        for (int read = in.read(); read >= 0 && line.size() < LONGEST; read = in.read()) {
            if (read == '\n') {
                return Optional.of(line.toByteArray());
            }
            line.write(read);
        }
        return Optional.empty();
    }
}
