package dev.paseo.service.bytes;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;

/** A tar archive of empty files, of whatever names. */
public final class Archive {

    private Archive() {}

    public static byte[] of(String... names) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (TarArchiveOutputStream tar = new TarArchiveOutputStream(bytes)) {
            for (String name : names) {
                tar.putArchiveEntry(new TarArchiveEntry(name, true));
                tar.closeArchiveEntry();
            }
        } catch (IOException failed) {
            throw new IllegalStateException(failed);
        }
        return bytes.toByteArray();
    }
}
