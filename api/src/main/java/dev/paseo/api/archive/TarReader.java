package dev.paseo.api.archive;

import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;

/**
 * A tar archive (POSIX pax and GNU), read entry by entry with bounded memory. It holds files, folders and symbolic
 * links;
 * everything else, and what is not well formed, is refused with an {@link IOException} that says so in a sentence's
 * part, such as {@code "holds a header of more than 64 kB"}.
 */
public final class TarReader implements AutoCloseable {

    /** What stands before an entry: its header, with a long name, or what pax says of it. */
    public static final int MOST_HEADER_BYTES = 64_000;

    /** What stands in a name in place of bytes that are no UTF-8. */
    private static final char NO_UTF_8 = '\uFFFD';
    private static final char REPLACED = '?';
    /** A header's size, and where in it the names stand. */
    private static final int RECORD = 512;
    private static final int NAME_AT = 0;
    private static final int LINK_NAME_AT = 157;
    private static final int NAME_BYTES = 100;

    private final Bounded bounded;
    private final TarArchiveInputStream tar;

    public TarReader(InputStream archive) {
        this.bounded = new Bounded(archive);
        this.tar = new TarArchiveInputStream(bounded);
    }

    /** The next entry; its bytes are what {@link #content} gives until then. */
    public Optional<TarArchiveEntry> next() throws IOException {
        try {
            // What is left of the entry before is no part of the next one's header.
            if (tar.getCurrentEntry() != null) {
                tar.transferTo(OutputStream.nullOutputStream());
            }
            bounded.header.reset();
            bounded.left = MOST_HEADER_BYTES;
            TarArchiveEntry entry = tar.getNextEntry();
            bounded.left = Long.MAX_VALUE;
            return entry == null ? Optional.empty() : Optional.of(known(entry));
        } catch (IOException | IllegalArgumentException unreadable) {
            throw told(unreadable);
        }
    }

    /** In our own words, but for what went wrong where the archive comes from. */
    private IOException told(Exception failed) {
        if (bounded.failed.isPresent()) {
            return bounded.failed.get();
        }
        return failed instanceof Unreadable own ? own : new Unreadable("is no whole tar archive");
    }

    /** What is wrong with an archive; the message goes on after what it is called. */
    public static final class Unreadable extends IOException {
        private static final long serialVersionUID = 1L;

        private Unreadable(String message) {
            super(message);
        }
    }

    private TarArchiveEntry known(TarArchiveEntry entry) throws IOException {
        if (!entry.isCheckSumOK()) {
            throw new Unreadable("holds a header whose checksum is wrong");
        }
        if (entry.getSize() < 0) {
            throw new Unreadable("holds " + entry.getName() + " with a negative size");
        }
        if (!isUtf8(entry)) {
            throw new Unreadable("holds " + entry.getName() + ", whose name is no UTF-8");
        }
        if (entry.isSparse()) {
            throw new Unreadable("holds " + entry.getName() + ", which is sparse; files are sent whole");
        }
        if (entry.isLink() || entry.isFIFO() || entry.isBlockDevice() || entry.isCharacterDevice()) {
            throw new Unreadable(
                    "holds " + entry.getName() + ", which is neither a file nor a folder nor a symbolic link");
        }
        return entry;
    }

    /**
     * The library puts signs of its own in place of what is no UTF-8, so that two files could become one: the bytes
     * themselves are looked at.
     */
    private boolean isUtf8(TarArchiveEntry entry) {
        String names = entry.getName() + entry.getLinkName();
        if (names.indexOf(REPLACED) < 0) {
            return names.indexOf(NO_UTF_8) < 0;
        }
        byte[] read = bounded.header.toByteArray();
        byte[] header = Arrays.copyOfRange(read, Math.max(0, read.length - RECORD), read.length);
        return isUtf8(header, NAME_AT) && isUtf8(header, LINK_NAME_AT);
    }

    private static boolean isUtf8(byte[] header, int from) {
        int end = from;
        while (end < Math.min(header.length, from + NAME_BYTES) && header[end] != 0) {
            end++;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(header, from, end - from));
            return true;
        } catch (CharacterCodingException other) {
            return false;
        }
    }

    /** The bytes of the entry. To close it does nothing. */
    public InputStream content() {
        return new FilterInputStream(tar) {
            @Override
            public int read(byte[] bytes, int offset, int length) throws IOException {
                try {
                    return super.read(bytes, offset, length);
                } catch (IOException unreadable) {
                    throw told(unreadable);
                }
            }

            @Override
            public int read() throws IOException {
                byte[] one = new byte[1];
                return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
            }

            @Override
            public void close() {
                // The archive goes on.
            }
        };
    }

    @Override
    public void close() throws IOException {
        tar.close();
    }

    /** Gives at most so many bytes. */
    private static final class Bounded extends FilterInputStream {

        private long left = Long.MAX_VALUE;
        private Optional<IOException> failed = Optional.empty();
        private final ByteArrayOutputStream header = new ByteArrayOutputStream();

        private Bounded(InputStream in) {
            super(in);
        }

        private void took(long bytes) throws IOException {
            left -= Math.max(0, bytes);
            if (left < 0) {
                throw new Unreadable("holds a header of more than " + MOST_HEADER_BYTES / 1000 + " kB");
            }
        }

        private int from(InputStream archive, byte[] bytes, int offset, int length) throws IOException {
            try {
                return archive.read(bytes, offset, length);
            } catch (IOException broken) {
                failed = Optional.of(broken);
                throw broken;
            }
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] bytes, int offset, int length) throws IOException {
            int read = from(in, bytes, offset, length);
            took(read);
            if (left <= MOST_HEADER_BYTES && read > 0) {
                header.write(bytes, offset, read);
            }
            return read;
        }

        @Override
        public long skip(long bytes) throws IOException {
            long skipped = super.skip(bytes);
            took(skipped);
            return skipped;
        }
    }
}
