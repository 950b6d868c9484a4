package dev.paseo.agent.work;

import dev.paseo.api.archive.TarReader;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;

/** Unpacks tar archives, and nothing outside the folder they are unpacked into. */
final class Archives {

    private Archives() {}

    /** Links are made as they stand in the archive, wherever they lead; nothing is ever written through one. */
    static void unpack(InputStream archive, Path folder) throws IOException {
        Path root = folder.toRealPath();
        TarReader tar = new TarReader(archive);
        for (Optional<TarArchiveEntry> next = tar.next(); next.isPresent(); next = tar.next()) {
            TarArchiveEntry entry = next.get();
            if (entry.isDirectory()) {
                Inside.folder(root, entry.getName());
            } else if (entry.isSymbolicLink()) {
                Files.createSymbolicLink(Inside.file(root, entry.getName()), Path.of(entry.getLinkName()));
            } else {
                Path target = Inside.file(root, entry.getName());
                Files.copy(tar.content(), target);
                if ((entry.getMode() & 0100) != 0) {
                    Files.setPosixFilePermissions(target, PosixFilePermissions.fromString("rwxr-xr-x"));
                }
            }
        }
    }

    /**
     * Writes these files of a folder, in their order, as a tar archive; the SHA-256 of its bytes. A link that leads out
     * of the folder is refused.
     */
    static String pack(Path folder, List<Path> files, Path archive) throws IOException {
        Path root = folder.toRealPath();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(
                new BufferedOutputStream(Files.newOutputStream(archive)))) {
            tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
            tar.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_POSIX);
            for (Path file : files) {
                add(tar, root, file);
            }
        }
        return Digests.of(archive);
    }

    private static void add(TarArchiveOutputStream tar, Path root, Path file) throws IOException {
        Path path = root.resolve(file);
        if (Files.isSymbolicLink(path)) {
            Path to = Files.readSymbolicLink(path);
            if (!path.getParent().resolve(to).normalize().startsWith(root)) {
                throw new CannotGoOn(file + " is a link that leads out of the workspace");
            }
            TarArchiveEntry link = new TarArchiveEntry(file.toString(), TarConstants.LF_SYMLINK);
            link.setLinkName(to.toString());
            tar.putArchiveEntry(link);
            tar.closeArchiveEntry();
            return;
        }
        if (!Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS)) {
            throw new CannotGoOn(file + " is no file any more");
        }
        TarArchiveEntry entry = new TarArchiveEntry(file.toString());
        entry.setSize(Files.size(path));
        entry.setMode(Files.isExecutable(path) ? 0755 : 0644);
        entry.setModTime(0);
        tar.putArchiveEntry(entry);
        Files.copy(path, tar);
        tar.closeArchiveEntry();
    }
}
