package dev.paseo.service.audit;

import dev.paseo.core.audit.HeadSignature;
import dev.paseo.core.audit.TreeHead;
import dev.paseo.service.settings.Settings;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.PrivateKey;
import java.security.PublicKey;
import java.security.Signature;
import java.security.spec.PKCS8EncodedKeySpec;
import java.security.spec.X509EncodedKeySpec;
import java.util.Base64;
import java.util.List;
import org.springframework.stereotype.Component;

/** The key (Ed25519) that signs tree heads, and the file of heads; both lie outside the database. */
@Component
class HeadKey {

    private final PrivateKey secret;
    private final PublicKey known;
    private final Path heads;

    HeadKey(Settings settings) throws IOException, GeneralSecurityException {
        Path folder = Files.createDirectories(settings.data().resolve("keys"));
        Path file = folder.resolve("audit-ed25519");
        if (!Files.exists(file)) {
            create(folder, file);
        }
        List<String> lines = Files.readAllLines(file);
        KeyFactory factory = KeyFactory.getInstance("Ed25519");
        this.secret = factory.generatePrivate(new PKCS8EncodedKeySpec(Base64.getDecoder().decode(lines.get(0))));
        this.known = factory.generatePublic(new X509EncodedKeySpec(Base64.getDecoder().decode(lines.get(1))));
        this.heads = settings.data().resolve("audit-heads.txt");
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

    String sign(TreeHead head) {
        try {
            Signature signature = Signature.getInstance("Ed25519");
            signature.initSign(secret);
            signature.update(head.bytes());
            return Base64.getEncoder().encodeToString(signature.sign());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    boolean good(TreeHead head, String signed) {
        return HeadSignature.good(known, head, signed);
    }

    /** The public key, as {@link HeadSignature#key} reads it. */
    String known() {
        return Base64.getEncoder().encodeToString(known.getEncoded());
    }

    void append(TreeHead head, String signature) throws IOException {
        Files.writeString(heads, head.size() + " " + head.root() + " " + head.at() + " " + signature + "\n",
                StandardCharsets.UTF_8, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
    }

    List<String> lines() throws IOException {
        return Files.exists(heads) ? Files.readAllLines(heads) : List.of();
    }
}
