package dev.paseo.service.secret;

import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;

/**
 * Envelope encryption: each value under a key of its own, that key under the service's, AES-256-GCM both. The service's
 * key lies in a file outside the database.
 */
@Component
class Envelope {

    private static final int NONCE = 12;
    private static final SecureRandom RANDOM = new SecureRandom();

    private final byte[] serviceKey;

    Envelope(Settings settings) throws IOException {
        Path folder = Files.createDirectories(settings.data().resolve("keys"));
        Path file = folder.resolve("secrets-aes");
        if (!Files.exists(file)) {
            Path fresh = Files.createTempFile(folder, "key", "", PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.write(fresh, random(32));
            try {
                Files.createLink(file, fresh);
            } catch (FileAlreadyExistsException other) {
                // Another replica was first: its key is everyone's.
            } finally {
                Files.delete(fresh);
            }
        }
        this.serviceKey = Files.readAllBytes(file);
    }

    /** A value under its key, and that key under the service's. */
    record Sealed(byte[] ciphertext, byte[] dataKey) {}

    Sealed seal(String value) {
        byte[] key = random(32);
        return new Sealed(encrypt(key, value.getBytes(StandardCharsets.UTF_8)), encrypt(serviceKey, key));
    }

    String open(byte[] ciphertext, byte[] dataKey) {
        return new String(decrypt(decrypt(serviceKey, dataKey), ciphertext), StandardCharsets.UTF_8);
    }

    private static byte[] random(int length) {
        byte[] bytes = new byte[length];
        RANDOM.nextBytes(bytes);
        return bytes;
    }

    private static byte[] encrypt(byte[] key, byte[] plain) {
        byte[] nonce = random(NONCE);
        byte[] sealed = cipher(Cipher.ENCRYPT_MODE, key, nonce, plain);
        return ByteBuffer.allocate(NONCE + sealed.length).put(nonce).put(sealed).array();
    }

    private static byte[] decrypt(byte[] key, byte[] sealed) {
        byte[] nonce = java.util.Arrays.copyOf(sealed, NONCE);
        return cipher(Cipher.DECRYPT_MODE, key, nonce, java.util.Arrays.copyOfRange(sealed, NONCE, sealed.length));
    }

    private static byte[] cipher(int mode, byte[] key, byte[] nonce, byte[] input) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
            return cipher.doFinal(input);
        } catch (GeneralSecurityException wrong) {
            throw new IllegalStateException("a secret cannot be opened: the key file is not the one it was sealed with", wrong);
        }
    }
}
