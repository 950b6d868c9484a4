package dev.paseo.service.bytes;

import dev.paseo.core.text.Size;
import dev.paseo.core.text.Sha256;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;

/** Keeps files in a folder: written under a temporary name, synced, renamed. */
@Component
class FolderByteStore implements ByteStore {

    private static final Pattern DIGEST = Pattern.compile("[0-9a-f]{64}");

    private final Path folder;
    private final Path scratch;

    FolderByteStore(Settings settings) throws IOException {
        this.folder = Files.createDirectories(settings.data().resolve("bytes"));
        this.scratch = Files.createDirectories(settings.data().resolve("scratch"));
    }

    @Override
    public StoredBytes keep(InputStream bytes, long mostBytes) throws IOException {
        Path arriving = Files.createTempFile(scratch, "arriving", "");
        try {
            MessageDigest digest = Sha256.digest();
            long size = write(new DigestInputStream(bytes, digest), arriving, mostBytes);
            String name = HexFormat.of().formatHex(digest.digest());
            Path place = place(name);
            // Also where the file is there already: should it be damaged, it is mended so.
            Files.createDirectories(place.getParent());
            Files.move(arriving, place, StandardCopyOption.ATOMIC_MOVE);
            sync(place.getParent());
            return new StoredBytes(name, size);
        } finally {
            Files.deleteIfExists(arriving);
        }
    }

    private static long write(InputStream bytes, Path file, long mostBytes) throws IOException {
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
            OutputStream out = Channels.newOutputStream(channel);
            byte[] buffer = new byte[1 << 17];
            long size = 0;
            for (int read = bytes.read(buffer); read >= 0; read = bytes.read(buffer)) {
                size += read;
                if (size > mostBytes) {
                    throw Refusal.tooLarge("At most " + Size.words(mostBytes) + " are accepted");
                }
                out.write(buffer, 0, read);
            }
            channel.force(true);
            return size;
        }
    }

    private static void sync(Path directory) throws IOException {
        try (FileChannel channel = FileChannel.open(directory, StandardOpenOption.READ)) {
            channel.force(true);
        }
    }

    @Override
    public InputStream open(String digest) throws IOException {
        MessageDigest running = Sha256.digest();
        return new Checked(new DigestInputStream(openUnchecked(digest), running), running, digest);
    }

    @Override
    public InputStream openUnchecked(String digest) throws IOException {
        try {
            return Files.newInputStream(place(digest));
        } catch (NoSuchFileException gone) {
            throw Refusal.notFound("No bytes with the digest " + digest + " are kept");
        }
    }

    @Override
    public Optional<Path> file(String digest) {
        return Optional.of(place(digest)).filter(Files::isRegularFile);
    }

    @Override
    public Path scratch() {
        return scratch;
    }

    private Path place(String digest) {
        if (!DIGEST.matcher(digest).matches()) {
            throw Refusal.invalid("/digest", "A digest has 64 hexadecimal digits, got “" + digest + "”");
        }
        return folder.resolve(digest.substring(0, 2)).resolve(digest.substring(2));
    }

    /** Fails at the end where the bytes are not those of the name. */
    private static final class Checked extends FilterInputStream {
        private final MessageDigest running;
        private final String wanted;

        Checked(InputStream in, MessageDigest running, String wanted) {
            super(in);
            this.running = running;
            this.wanted = wanted;
        }

        @Override
        public int read() throws IOException {
            int read = super.read();
            return read < 0 ? ended() : read;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            int read = super.read(buffer, offset, length);
            return read < 0 ? ended() : read;
        }

        private int ended() throws IOException {
            String found = HexFormat.of().formatHex(((MessageDigest) cloneOf(running)).digest());
            if (!found.equals(wanted)) {
                throw new DamagedBytes(wanted, found);
            }
            return -1;
        }

        private static Object cloneOf(MessageDigest digest) throws IOException {
            try {
                return digest.clone();
            } catch (CloneNotSupportedException impossible) {
                throw new IOException(impossible);
            }
        }
    }
}
