package dev.paseo.core.signature;

import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.Signature;
import java.time.Instant;
import java.util.Base64;
import java.util.List;

/** A key that signs, for tests. */
public record SigningPair(KeyPair pair) {

    public static SigningPair fresh() {
        try {
            return new SigningPair(KeyPairGenerator.getInstance("Ed25519").generateKeyPair());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The public key. */
    public String text() {
        return Base64.getEncoder().encodeToString(pair.getPublic().getEncoded());
    }

    public KeyRing ring() {
        return new KeyRing(text(), List.of());
    }

    public String sign(byte[] bytes) {
        try {
            Signature signature = Signature.getInstance("Ed25519");
            signature.initSign(pair.getPrivate());
            signature.update(bytes);
            return Base64.getEncoder().encodeToString(signature.sign());
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The renewal of this key by another. */
    public KeyRing.Renewal renewedBy(SigningPair next, Instant at) {
        return new KeyRing.Renewal(next.text(), at, sign(KeyRing.Renewal.bytes(text(), next.text(), at)));
    }
}
