package dev.paseo.service.trigger;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** Signatures as Standard Webhooks have them: HMAC-SHA-256 over id, time and body. */
final class HookSignature {

    private static final Duration TOLERANCE = Duration.ofMinutes(5);

    private HookSignature() {}

    /** Why a request is not to be believed, if so. */
    static Optional<String> doubt(String secret, String id, String timestamp, String signatures, byte[] body, Instant now) {
        if (!timestamp.matches("[0-9]{1,12}") || Duration.between(Instant.ofEpochSecond(Long.parseLong(timestamp)), now).abs().compareTo(TOLERANCE) > 0) {
            return Optional.of("its time is more than " + TOLERANCE.toMinutes() + " min from ours");
        }
        byte[] expected = sign(secret, id, timestamp, body);
        for (String signature : signatures.split(" ")) {
            if (signature.startsWith("v1,") && MessageDigest.isEqual(expected, decode(signature.substring(3)))) {
                return Optional.empty();
            }
        }
        return Optional.of("its signature is not ours");
    }

    private static byte[] sign(String secret, String id, String timestamp, byte[] body) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(Base64.getDecoder().decode(secret.replaceFirst("^whsec_", "")), "HmacSHA256"));
            mac.update((id + "." + timestamp + ".").getBytes(StandardCharsets.UTF_8));
            return mac.doFinal(body);
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static byte[] decode(String base64) {
        try {
            return Base64.getDecoder().decode(base64);
        } catch (IllegalArgumentException notBase64) {
            return new byte[0];
        }
    }
}
