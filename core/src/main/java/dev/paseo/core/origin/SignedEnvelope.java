package dev.paseo.core.origin;

import dev.paseo.core.signature.Ed25519;
import dev.paseo.core.signature.KeyRing;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/**
 * A signed text with its type, as DSSE 1.0 has it.
 *
 * @param payloadType what the payload is, a media type
 * @param payload     the very bytes that were signed, with their type
 */
public record SignedEnvelope(String payloadType, byte[] payload, List<Signed> signatures) {

    /** The media type of in-toto statements. */
    public static final String IN_TOTO = "application/vnd.in-toto+json";

    /**
     * One signature.
     *
     * @param keyId     a hint by which key, as {@link Ed25519#print} tells it; nothing depends on it
     * @param signature in Base64
     */
    public record Signed(String keyId, String signature) {}

    /** The bytes that are signed for a payload of a type: DSSE's pre-authentication encoding. */
    public static byte[] signed(String payloadType, byte[] payload) {
        byte[] type = payloadType.getBytes(StandardCharsets.UTF_8);
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.writeBytes(("DSSEv1 " + type.length + " ").getBytes(StandardCharsets.UTF_8));
        bytes.writeBytes(type);
        bytes.writeBytes((" " + payload.length + " ").getBytes(StandardCharsets.UTF_8));
        bytes.writeBytes(payload);
        return bytes.toByteArray();
    }

    /** Whether one of the keys signed it. */
    public boolean good(KeyRing keys) {
        return signer(keys).isPresent();
    }

    /** Which of the keys signed it. Nothing in it says when: whoever has a key that was replaced can sign with it. */
    public Optional<KeyRing.Term> signer(KeyRing keys) {
        byte[] bytes = signed(payloadType, payload);
        return signatures.stream().flatMap(each -> keys.signer(bytes, each.signature()).stream()).findFirst();
    }
}
