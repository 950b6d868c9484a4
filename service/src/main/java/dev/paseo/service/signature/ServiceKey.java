package dev.paseo.service.signature;

import dev.paseo.core.signature.Ed25519;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.PublicKey;
import java.security.Signature;
import java.security.spec.PKCS8EncodedKeySpec;
import java.util.Base64;
import java.util.List;
import org.springframework.stereotype.Component;

/**
 * The key (Ed25519) by which the service signs what others keep: tree heads of the trail, and statements. It lies
 * outside the database. What is signed begins differently for each, so that none can stand for another.
 */
@Component
public class ServiceKey {

    private final PrivateKey secret;
    private final PublicKey known;

    public ServiceKey(Settings settings) throws IOException, GeneralSecurityException {
        Path folder = Files.createDirectories(settings.data().resolve("keys"));
        Path file = folder.resolve("audit-ed25519");
        if (!Files.exists(file)) {
            create(folder, file);
        }
        List<String> lines = Files.readAllLines(file);
        this.secret = KeyFactory.getInstance("Ed25519")
                .generatePrivate(new PKCS8EncodedKeySpec(Base64.getDecoder().decode(lines.get(0))));
        this.known = Ed25519.key(lines.get(1));
    }

    /** Two replicas may do this at once: the first one's key is everyone's. */
    private static void create(Path folder, Path file) throws IOException, GeneralSecurityException {
        KeyPair pair = KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
        String text = Base64.getEncoder().encodeToString(pair.getPrivate().getEncoded()) + "\n"
                + Base64.getEncoder().encodeToString(pair.getPublic().getEncoded()) + "\n";
        Path fresh = Files.createTempFile(folder, "key", "",
                PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
        Files.writeString(fresh, text);
        try {
            Files.createLink(file, fresh);
        } catch (FileAlreadyExistsException other) {
            // Theirs is kept.
        } finally {
            Files.delete(fresh);
        }
    }

    /** The signature over these bytes, in Base64. */
    public String sign(byte[] bytes) {
        try {
            Signature signature = Signature.getInstance("Ed25519");
            signature.initSign(secret);
            signature.update(bytes);
            return Base64.getEncoder().encodeToString(signature.sign());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The public key. */
    public PublicKey known() {
        return known;
    }

    /** The public key, as {@link Ed25519#key} reads it. */
    public String text() {
        return Base64.getEncoder().encodeToString(known.getEncoded());
    }
}
