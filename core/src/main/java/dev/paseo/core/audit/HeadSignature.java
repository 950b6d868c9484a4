package dev.paseo.core.audit;

import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.PublicKey;
import java.security.Signature;
import java.security.spec.X509EncodedKeySpec;
import java.util.Base64;

/** Signatures of tree heads: Ed25519 (RFC 8032) over {@link TreeHead#bytes()}, in Base64. */
public final class HeadSignature {

    private HeadSignature() {}

    /**
     * The public key of a text.
     *
     * @param text the key as RFC 8410 has it (SubjectPublicKeyInfo), in Base64
     * @throws IllegalArgumentException where it is none
     */
    public static PublicKey key(String text) {
        try {
            return KeyFactory.getInstance("Ed25519")
                    .generatePublic(new X509EncodedKeySpec(Base64.getDecoder().decode(text.strip())));
        } catch (GeneralSecurityException bad) {
            throw new IllegalArgumentException("this is no public key of Ed25519", bad);
        }
    }

    /** Whether whoever has the key signed it. */
    public static boolean good(PublicKey key, TreeHead head, String signature) {
        try {
            Signature check = Signature.getInstance("Ed25519");
            check.initVerify(key);
            check.update(head.bytes());
            byte[] bytes = Base64.getDecoder().decode(signature);
            // Base64 that has unused bits set says the same in another way: one signature is written in one way only.
            return Base64.getEncoder().encodeToString(bytes).equals(signature) && check.verify(bytes);
        } catch (GeneralSecurityException | IllegalArgumentException bad) {
            return false;
        }
    }
}
