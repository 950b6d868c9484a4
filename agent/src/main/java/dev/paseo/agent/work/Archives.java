package dev.paseo.agent.work;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;

/** Unpacks tar archives, and nothing outside the folder they are unpacked into. */
final class Archives {

    private Archives() {}

    static void unpack(InputStream archive, Path folder) throws IOException {
        Path root = folder.toRealPath();
        TarArchiveInputStream tar = new TarArchiveInputStream(archive);
        for (TarArchiveEntry entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
            Path target = root.resolve(entry.getName()).normalize();
            if (!target.startsWith(root)) {
                throw new IOException("the archive holds " + entry.getName() + ", which lies outside the workspace");
            }
            if (entry.isDirectory()) {
                Files.createDirectories(target);
            } else if (entry.isSymbolicLink()) {
                link(root, target, entry.getLinkName());
            } else if (entry.isFile()) {
                write(root, target, tar, (entry.getMode() & 0100) != 0);
            }
        }
    }

    private static void link(Path root, Path target, String to) throws IOException {
        if (!target.getParent().resolve(to).normalize().startsWith(root)) {
            throw new IOException("the archive holds a link to " + to + ", which lies outside the workspace");
        }
        Files.createDirectories(target.getParent());
        Files.createSymbolicLink(target, Path.of(to));
    }

    private static void write(Path root, Path target, InputStream bytes, boolean executable) throws IOException {
        Files.createDirectories(target.getParent());
        if (!target.getParent().toRealPath().startsWith(root)) {
            throw new IOException("the archive writes " + target + " through a link that leaves the workspace");
        }
        Files.copy(bytes, target);
        if (executable) {
            Files.setPosixFilePermissions(target, PosixFilePermissions.fromString("rwxr-xr-x"));
        }
    }
}
