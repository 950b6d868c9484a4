package dev.paseo.core.signature;

import dev.paseo.core.text.Sha256;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.PublicKey;
import java.security.Signature;
import java.security.spec.X509EncodedKeySpec;
import java.util.Base64;
import java.util.HexFormat;

/** Signatures by Ed25519 (RFC 8032), in Base64. */
public final class Ed25519 {

    private Ed25519() {}

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

    /** What a key is told by: SHA-256 over its SubjectPublicKeyInfo, in hexadecimal. */
    public static String print(PublicKey key) {
        return HexFormat.of().formatHex(Sha256.digest().digest(key.getEncoded()));
    }

    /** Whether whoever has the key signed these bytes. */
    public static boolean good(PublicKey key, byte[] signed, String signature) {
        try {
            Signature check = Signature.getInstance("Ed25519");
            check.initVerify(key);
            check.update(signed);
            byte[] bytes = Base64.getDecoder().decode(signature);
            // Base64 that has unused bits set says the same in another way: one signature is written in one way only.
            return Base64.getEncoder().encodeToString(bytes).equals(signature) && check.verify(bytes);
        } catch (GeneralSecurityException | IllegalArgumentException bad) {
            return false;
        }
    }
}
