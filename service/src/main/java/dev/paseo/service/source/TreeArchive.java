package dev.paseo.service.source;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Instant;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;

/**
 * What git archives, in a tar (POSIX.1-2001) that is the same whatever git wrote it and whenever: files in git's order,
 * of nobody, with the commit's time, 644 or 755 as they are executable.
 */
final class TreeArchive {

    private static final int FOLDER = 0755;
    private static final int PROGRAM = 0755;
    private static final int PLAIN = 0644;
    private static final int LINK = 0777;
    private static final int OWNER_EXECUTES = 0100;

    private TreeArchive() {}

    static void write(InputStream git, Instant at, OutputStream out) throws IOException {
        TarArchiveInputStream from = new TarArchiveInputStream(git);
        TarArchiveOutputStream to = new TarArchiveOutputStream(out);
        to.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
        to.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_POSIX);
        to.setAddPaxHeadersForNonAsciiNames(true);
        for (TarArchiveEntry entry = from.getNextEntry(); entry != null; entry = from.getNextEntry()) {
            to.putArchiveEntry(plain(entry, at));
            from.transferTo(to);
            to.closeArchiveEntry();
        }
        to.finish();
        // What git pads its archive with is read too, so that it does not write to nobody.
        git.transferTo(OutputStream.nullOutputStream());
    }

    private static TarArchiveEntry plain(TarArchiveEntry entry, Instant at) {
        TarArchiveEntry plain;
        if (entry.isSymbolicLink()) {
            plain = new TarArchiveEntry(entry.getName(), TarConstants.LF_SYMLINK);
            plain.setLinkName(entry.getLinkName());
            plain.setMode(LINK);
        } else {
            plain = new TarArchiveEntry(entry.getName());
            plain.setSize(entry.isDirectory() ? 0 : entry.getSize());
            plain.setMode(entry.isDirectory() ? FOLDER : (entry.getMode() & OWNER_EXECUTES) != 0 ? PROGRAM : PLAIN);
        }
        plain.setIds(0, 0);
        plain.setNames("", "");
        plain.setModTime(at.getEpochSecond() * 1000);
        return plain;
    }
}
