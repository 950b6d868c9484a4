package dev.paseo.service.signature;

import dev.paseo.core.signature.KeyRing;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.Signature;
import java.security.spec.PKCS8EncodedKeySpec;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import java.util.function.Consumer;
import org.springframework.stereotype.Component;

/**
 * The key (Ed25519) by which the service signs what others keep: tree heads of the trail, and statements. It lies
 * outside the database, in a file that all replicas share: the private key in the first line, the public ones below it,
 * as {@link KeyRing#text} has them. What is signed begins differently for each, so that none can stand for another.
 */
@Component
public class ServiceKey {

    private final Path folder;
    private final Path file;
    private volatile Optional<Held> read = Optional.empty();

    /** What the file says. */
    private record Held(String text, PrivateKey secret, KeyRing ring) {}

    public ServiceKey(Settings settings) throws IOException {
        this.folder = Files.createDirectories(settings.data().resolve("keys"));
        this.file = folder.resolve("audit-ed25519");
        if (!Files.exists(file)) {
            create();
        }
        held();
    }

    /** Another replica may have renewed it: the file is read each time, what it says only where it is another. */
    private Held held() {
        try {
            String text = Files.readString(file);
            Optional<Held> known = read.filter(held -> held.text().equals(text));
            if (known.isPresent()) {
                return known.get();
            }
            int end = text.indexOf('\n');
            PrivateKey secret = KeyFactory.getInstance("Ed25519")
                    .generatePrivate(new PKCS8EncodedKeySpec(Base64.getDecoder().decode(text.substring(0, end))));
            Held held = new Held(text, secret, KeyRing.of(text.substring(end + 1)));
            read = Optional.of(held);
            return held;
        } catch (IOException failed) {
            throw new UncheckedIOException("the key that signs cannot be read", failed);
        } catch (GeneralSecurityException none) {
            throw new IllegalStateException("there is no key that signs in " + file, none);
        }
    }

    /** Two replicas may do this at once: the first one's key is everyone's. */
    private void create() throws IOException {
        KeyPair pair = pair();
        Path fresh = write(pair, text(pair));
        try {
            Files.createLink(file, fresh);
        } catch (FileAlreadyExistsException other) {
            // Theirs is kept.
        } finally {
            Files.delete(fresh);
        }
    }

    private Path write(KeyPair pair, String ring) throws IOException {
        Path fresh = Files.createTempFile(folder, "key", "",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.writeString(fresh,
                Base64.getEncoder().encodeToString(pair.getPrivate().getEncoded()) + "\n" + ring + "\n",
                StandardOpenOption.DSYNC);
        return fresh;
    }

    private static KeyPair pair() {
        try {
            return KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static String text(KeyPair pair) {
        return Base64.getEncoder().encodeToString(pair.getPublic().getEncoded());
    }

    /**
     * A new key takes the place of this one, which signs it and is gone then; one renewal after the other.
     *
     * @param first writes down what will be; where it fails, nothing is renewed
     */
    public KeyRing renew(Instant at, Consumer<KeyRing> first) {
        synchronized (ServiceKey.class) {
            return renewAlone(at, first);
        }
    }

    private KeyRing renewAlone(Instant at, Consumer<KeyRing> first) {
        try (FileChannel channel = FileChannel.open(folder.resolve("renewal.lock"), StandardOpenOption.CREATE,
                StandardOpenOption.WRITE); FileLock lock = channel.lock()) {
            KeyRing before = ring();
            KeyPair pair = pair();
            String signature = sign(KeyRing.Renewal.bytes(before.newest(), text(pair), at));
            KeyRing after = before.with(new KeyRing.Renewal(text(pair), at, signature));
            first.accept(after);
            Files.move(write(pair, after.text()), file, StandardCopyOption.ATOMIC_MOVE);
            return after;
        } catch (IOException failed) {
            throw new UncheckedIOException("the new key cannot be written", failed);
        }
    }

    /** The signature over these bytes by the newest key, in Base64. */
    public String sign(byte[] bytes) {
        try {
            Signature signature = Signature.getInstance("Ed25519");
            signature.initSign(held().secret());
            signature.update(bytes);
            return Base64.getEncoder().encodeToString(signature.sign());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The public keys, of which the newest signs. */
    public KeyRing ring() {
        return held().ring();
    }
}
