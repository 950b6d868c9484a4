package dev.paseo.service.arrival;

import dev.paseo.service.problem.Refusal;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.springframework.stereotype.Component;

/** What has arrived so far of files on their way; the length of a part is how far it is. */
@Component
class Parts {

    private final Path folder;

    Parts(Settings settings) {
        this.folder = settings.data().resolve("uploads");
    }

    private Path path(long upload, String kind, String name) {
        return folder.resolve(upload + "-" + kind + "-" + name + ".part");
    }

    long length(long upload, String kind, String name) {
        try {
            Path part = path(upload, kind, name);
            return Files.exists(part) ? Files.size(part) : 0;
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** Adds bytes where the part ends; how long it is then. What arrived before a connection broke stays. */
    long append(long upload, UploadMapper.FileRow file, long offset, InputStream bytes) {
        try {
            Files.createDirectories(folder);
            try (FileChannel channel = FileChannel.open(path(upload, file.kind(), file.name()),
                    StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock held = lock(channel, file)) {
                if (channel.size() != offset) {
                    throw Refusal.conflict(channel.size() + " bytes of " + file.name()
                            + " have arrived; continue from there, not from " + offset);
                }
                channel.position(offset);
                try {
                    copy(bytes, channel, file);
                } finally {
                    channel.force(true);
                }
                return channel.size();
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private static FileLock lock(FileChannel channel, UploadMapper.FileRow file) throws IOException {
        try {
            FileLock lock = channel.tryLock();
            if (lock != null) {
                return lock;
            }
        } catch (OverlappingFileLockException here) {
            // The same answer as for another process.
        }
        throw Refusal.conflict(file.name() + " is being sent by another request at this moment");
    }

    private static void copy(InputStream bytes, FileChannel channel, UploadMapper.FileRow file) throws IOException {
        byte[] buffer = new byte[1 << 16];
        for (int read = bytes.read(buffer); read >= 0; read = bytes.read(buffer)) {
            if (channel.position() + read > file.size()) {
                throw Refusal.tooLarge(
                        file.name() + " was announced with " + file.size() + " bytes, and more are being sent");
            }
            ByteBuffer some = ByteBuffer.wrap(buffer, 0, read);
            while (some.hasRemaining()) {
                channel.write(some);
            }
        }
    }

    InputStream open(long upload, String kind, String name) throws IOException {
        return Files.newInputStream(path(upload, kind, name));
    }

    void drop(long upload, String kind, String name) {
        try {
            Files.deleteIfExists(path(upload, kind, name));
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
