package dev.paseo.service.bytes;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Digests of streams, in hexadecimal. */
public final class Digests {

    private Digests() {}

    public static String of(String algorithm, InputStream bytes) {
        try (DigestInputStream in = new DigestInputStream(bytes, MessageDigest.getInstance(algorithm))) {
            in.transferTo(OutputStream.nullOutputStream());
            return HexFormat.of().formatHex(in.getMessageDigest().digest());
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
