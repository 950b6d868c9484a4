package dev.paseo.service.secret;

import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
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
    private static final byte[] NOTHING = {};
    private static final String NAME = "secrets-aes";
    private static final SecureRandom RANDOM = new SecureRandom();

    private final Path folder;
    /**
     * Every key that there is, the newest first: values are sealed with the newest and opened with the one that fits.
     */
    private volatile List<byte[]> serviceKeys;

    Envelope(Settings settings) throws IOException {
        this.folder = Files.createDirectories(settings.data().resolve("keys"));
        if (!Files.exists(folder.resolve(NAME))) {
            create(NAME);
        }
        this.serviceKeys = readAll();
    }

    private void create(String name) throws IOException {
        Path fresh = Files.createTempFile(folder, "key", "",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.write(fresh, random(32));
        try {
            Files.createLink(folder.resolve(name), fresh);
        } catch (FileAlreadyExistsException other) {
            // Another replica was first: its key is everyone's.
        } finally {
            Files.delete(fresh);
        }
    }

    private List<byte[]> readAll() throws IOException {
        List<byte[]> keys = new ArrayList<>();
        keys.add(Files.readAllBytes(folder.resolve(NAME)));
        for (int number = 2; Files.exists(folder.resolve(NAME + "-" + number)); number++) {
            keys.addFirst(Files.readAllBytes(folder.resolve(NAME + "-" + number)));
        }
        return List.copyOf(keys);
    }

    /** Makes a new key of the service, in a file of its own. */
    void renew() {
        try {
            serviceKeys = readAll();
            create(NAME + "-" + (serviceKeys.size() + 1));
            serviceKeys = readAll();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** The key of a value, sealed under the newest key of the service. */
    byte[] wrapAgain(byte[] dataKey) {
        return encrypt(serviceKeys.getFirst(), unwrap(dataKey), NOTHING);
    }

    private byte[] unwrap(byte[] dataKey) {
        return fitting(dataKey).orElseGet(() -> {
            try {
                serviceKeys = readAll();
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
            return fitting(dataKey).orElseThrow(
                    () -> new Secrets.Unopened("the key file that it was sealed with is not in " + folder));
        });
    }

    private Optional<byte[]> fitting(byte[] dataKey) {
        for (byte[] key : serviceKeys) {
            try {
                return Optional.of(decrypt(key, dataKey, NOTHING));
            } catch (GeneralSecurityException other) {
                // Sealed with another of the keys.
            }
        }
        return Optional.empty();
    }

    /** A value under its key, and that key under the service's. */
    record Sealed(byte[] ciphertext, byte[] dataKey) {}

    /** @param bound what the value is of: it opens for nothing else */
    Sealed seal(String value, String bound) {
        byte[] key = random(32);
        return new Sealed(encrypt(key, value.getBytes(StandardCharsets.UTF_8), bound.getBytes(StandardCharsets.UTF_8)),
                encrypt(serviceKeys.getFirst(), key, NOTHING));
    }

    String open(byte[] ciphertext, byte[] dataKey, String bound) {
        try {
            return new String(decrypt(unwrap(dataKey), ciphertext, bound.getBytes(StandardCharsets.UTF_8)),
                    StandardCharsets.UTF_8);
        } catch (GeneralSecurityException wrong) {
            throw new Secrets.Unopened("its row was changed, or is another's");
        }
    }

    private static byte[] random(int length) {
        byte[] bytes = new byte[length];
        RANDOM.nextBytes(bytes);
        return bytes;
    }

    private static byte[] encrypt(byte[] key, byte[] plain, byte[] bound) {
        byte[] nonce = random(NONCE);
        try {
            byte[] sealed = cipher(Cipher.ENCRYPT_MODE, key, nonce, plain, bound);
            return ByteBuffer.allocate(NONCE + sealed.length).put(nonce).put(sealed).array();
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException("every Java platform has AES in GCM", impossible);
        }
    }

    private static byte[] decrypt(byte[] key, byte[] sealed, byte[] bound) throws GeneralSecurityException {
        byte[] nonce = java.util.Arrays.copyOf(sealed, NONCE);
        return cipher(Cipher.DECRYPT_MODE, key, nonce, java.util.Arrays.copyOfRange(sealed, NONCE, sealed.length),
                bound);
    }

    private static byte[] cipher(int mode, byte[] key, byte[] nonce, byte[] input, byte[] bound)
            throws GeneralSecurityException {
        Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
        cipher.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
        cipher.updateAAD(bound);
        return cipher.doFinal(input);
    }
}
