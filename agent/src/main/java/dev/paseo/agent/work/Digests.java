package dev.paseo.agent.work;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Writes files and says the SHA-256 of what was written. */
final class Digests {

    private Digests() {}

    static String write(InputStream bytes, Path file) throws IOException {
        MessageDigest digest = sha256();
        Files.createDirectories(file.getParent());
        try (OutputStream out = Files.newOutputStream(file)) {
            new DigestInputStream(bytes, digest).transferTo(out);
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    static String of(Path file) throws IOException {
        MessageDigest digest = sha256();
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), digest)) {
            in.transferTo(OutputStream.nullOutputStream());
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java platform has SHA-256", impossible);
        }
    }
}
