package dev.paseo.agent.work;

import dev.paseo.agent.lease.DigestedFile;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.util.HexFormat;

/** The SHA-256 of files. */
final class Digests {

    private Digests() {}

    static String of(Path file) throws IOException {
        MessageDigest digest = DigestedFile.sha256();
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest)) {
            in.transferTo(OutputStream.nullOutputStream());
        }
        return HexFormat.of().formatHex(digest.digest());
    }
}
