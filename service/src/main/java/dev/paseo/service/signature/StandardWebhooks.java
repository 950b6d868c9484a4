package dev.paseo.service.signature;

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
public final class StandardWebhooks {

    private static final Duration TOLERANCE = Duration.ofMinutes(5);

    private StandardWebhooks() {}

    /** Why a request is not to be believed, if so. */
    public static Optional<String> reasonAgainst(String secret, String id, String timestamp, String signatures,
            byte[] body,
            Instant now) {
        if (!timestamp.matches("[0-9]{1,12}") || Duration.between(Instant.ofEpochSecond(Long.parseLong(timestamp)), now)
                .abs().compareTo(TOLERANCE) > 0) {
            return Optional.of("its time is more than " + TOLERANCE.toMinutes() + " min from ours");
        }
        byte[] expected = hmac(key(secret), (id + "." + timestamp + ".").getBytes(StandardCharsets.UTF_8), body);
        for (String signature : signatures.split(" ")) {
            if (signature.startsWith("v1,") && MessageDigest.isEqual(expected, decode(signature.substring(3)))) {
                return Optional.empty();
            }
        }
        return Optional.of("its signature does not match the hook's secret");
    }

    /** The header {@code webhook-signature} of a message. */
    public static String sign(String secret, String id, long seconds, byte[] body) {
        return "v1," + Base64.getEncoder()
                .encodeToString(hmac(key(secret), (id + "." + seconds + ".").getBytes(StandardCharsets.UTF_8), body));
    }

    private static byte[] key(String secret) {
        return Base64.getDecoder().decode(secret.replaceFirst("^whsec_", ""));
    }

    /** HMAC-SHA-256 of one text after another. */
    public static byte[] hmac(byte[] key, byte[] before, byte[] body) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            mac.update(before);
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
