package dev.paseo.api.archive;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class TarReaderTest {

    private static byte[] archive(TarArchiveEntry entry, byte[] content) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
            entry.setSize(content.length);
            tar.putArchiveEntry(entry);
            tar.write(content);
            tar.closeArchiveEntry();
        }
        return bytes.toByteArray();
    }

    private static String wrong(InputStream archive) {
        return assertThrows(IOException.class, () -> {
            try (TarReader tar = new TarReader(archive)) {
                while (tar.next().isPresent()) {
                    tar.content().transferTo(java.io.OutputStream.nullOutputStream());
                }
            }
        }).getMessage();
    }

    /** A header of another kind, of this size, with right checksum. */
    private static byte[] header(char kind, long size) throws IOException {
        byte[] header = Arrays
                .copyOf(archive(new TarArchiveEntry("././@LongLink", (byte) TarConstants.LF_NORMAL), new byte[0]), 512);
        System.arraycopy(String.format("%011o", size).getBytes(StandardCharsets.US_ASCII), 0, header, 124, 11);
        header[156] = (byte) kind;
        sign(header);
        return header;
    }

    /** Makes the checksum of the first header right. */
    private static void sign(byte[] archive) {
        Arrays.fill(archive, 148, 156, (byte) ' ');
        int sum = 0;
        for (int at = 0; at < 512; at++) {
            sum += archive[at] & 0xff;
        }
        System.arraycopy(String.format("%06o", sum).getBytes(StandardCharsets.US_ASCII), 0, archive, 148, 6);
        archive[154] = 0;
    }

    /** As many bytes as wanted, without holding them. */
    private static InputStream endless(long bytes) {
        return new InputStream() {
            private long left = bytes;

            @Override
            public int read() {
                return left-- > 0 ? 'a' : -1;
            }

            @Override
            public int read(byte[] into, int offset, int length) {
                if (left <= 0) {
                    return -1;
                }
                int read = (int) Math.min(length, left);
                Arrays.fill(into, offset, offset + read, (byte) 'a');
                left -= read;
                return read;
            }
        };
    }

    @ParameterizedTest
    @ValueSource(chars = {'L', 'K', 'x', 'g'})
    void aHeaderWithoutEndIsRefusedBeforeItFillsTheMemory(char kind) throws IOException {
        byte[] name = ((6L << 30) + " path=").getBytes(StandardCharsets.US_ASCII);
        InputStream archive = new SequenceInputStream(new ByteArrayInputStream(header(kind, 6L << 30)),
                new SequenceInputStream(new ByteArrayInputStream(name), endless(6L << 30)));
        assertEquals("holds a header of more than 64 kB", wrong(archive));
    }

    @Test
    void aLongNameIsRead() throws IOException {
        String name = "a-long-way/".repeat(80) + "file";
        try (TarReader tar = new TarReader(new ByteArrayInputStream(
                archive(new TarArchiveEntry(name), "text".getBytes(StandardCharsets.UTF_8))))) {
            assertEquals(name, tar.next().orElseThrow().getName());
            assertEquals("text", new String(tar.content().readAllBytes(), StandardCharsets.UTF_8));
            assertEquals(Optional.empty(), tar.next());
        }
    }

    @Test
    void whatIsLeftUnreadOfAFileIsNoHeader() throws IOException {
        try (TarReader tar = new TarReader(
                new ByteArrayInputStream(archive(new TarArchiveEntry("large"), new byte[1 << 20])))) {
            assertTrue(tar.next().isPresent());
            assertEquals(Optional.empty(), tar.next());
        }
    }

    @ParameterizedTest
    @ValueSource(chars = {'1', '3', '4', '6', 'S'})
    void whatIsNeitherFileNorFolderNorLinkIsRefused(char kind) throws IOException {
        byte[] archive = Arrays.copyOf(header(kind, 0), 2048);
        assertTrue(wrong(new ByteArrayInputStream(archive)).matches(
                "holds \\S+, which is (neither a file nor a folder nor a symbolic link|sparse; files are sent whole)"));
    }

    @Test
    void aNameInLatin1IsRefused() throws IOException {
        byte[] archive = archive(new TarArchiveEntry("cafe"), new byte[10]);
        archive[3] = (byte) 0xe9;
        sign(archive);
        assertTrue(wrong(new ByteArrayInputStream(archive)).endsWith(", whose name is no UTF-8"));
    }

    @Test
    void aWrongChecksumIsRefused() throws IOException {
        byte[] archive = archive(new TarArchiveEntry("file"), new byte[10]);
        archive[0] ^= 1;
        assertEquals("holds a header whose checksum is wrong", wrong(new ByteArrayInputStream(archive)));
    }

    /** Whatever the bytes are: entries, or a refusal, and nothing else. */
    @Test
    void anyBytesAreReadOrRefused() throws IOException {
        Random random = new Random(20261128);
        byte[] good = archive(new TarArchiveEntry("a-long-way/".repeat(20) + "file"), new byte[3000]);
        for (int time = 0; time < 3000; time++) {
            byte[] bytes = Arrays.copyOf(good, 512 + random.nextInt(good.length - 512));
            for (int change = 0; change < 4; change++) {
                bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
            }
            try (TarReader tar = new TarReader(new ByteArrayInputStream(bytes))) {
                while (tar.next().isPresent()) {
                    tar.content().transferTo(java.io.OutputStream.nullOutputStream());
                }
            } catch (IOException refused) {
                assertTrue(
                        refused.getMessage().startsWith("holds ")
                                || refused.getMessage().equals("is no whole tar archive"),
                        refused.getMessage() + " at " + time);
            }
        }
    }
}
