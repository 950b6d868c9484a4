package dev.paseo.agent.lease;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Files that are digested as they are written. */
public final class DigestedFile {

    private static final int BLOCK = 1 << 16;

    private DigestedFile() {}

    /** Writes all of it into a file; the SHA-256 of what was written. */
    public static String write(InputStream bytes, Path file) throws IOException {
        MessageDigest digest = sha256();
        Files.createDirectories(file.getParent());
        byte[] block = new byte[BLOCK];
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.CREATE, StandardOpenOption.WRITE,
                StandardOpenOption.TRUNCATE_EXISTING)) {
            for (int count = bytes.read(block); count >= 0; count = bytes.read(block)) {
                digest.update(block, 0, count);
                for (ByteBuffer left = ByteBuffer.wrap(block, 0, count); left.hasRemaining();) {
                    channel.write(left);
                }
            }
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    public static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java platform has SHA-256", impossible);
        }
    }
}
