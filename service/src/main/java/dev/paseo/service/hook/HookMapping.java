package dev.paseo.service.hook;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.signature.StandardWebhooks;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * How the hooks of a source that cannot sign our way are read.
 *
 * @param header   the header with the signature or the shared word
 * @param scheme   {@code hmac-sha256}: the body's, in hexadecimal; {@code shared-word}: the secret itself
 * @param prefix   what stands before it in the header, such as {@code digest:}
 * @param delivery the header with the message's number; without one the body's digest stands for it
 * @param pusher   where the body says who pushed, as a JSON Pointer (RFC 6901)
 */
record HookMapping(String header, Scheme scheme, Optional<String> prefix, Optional<String> delivery,
        Optional<String> pusher) {

    /** How the sender shows that it knows the secret. */
    enum Scheme {
        @JsonProperty("hmac-sha256")
        HMAC_SHA256,
        @JsonProperty("shared-word")
        SHARED_WORD
    }

    private static final Pattern HEADER = Pattern.compile("[A-Za-z0-9][A-Za-z0-9-]{0,80}");
    private static final Pattern POINTER = Pattern.compile("(/[^/]{1,80}){1,10}");

    void check() {
        if (!HEADER.matcher(header).matches() || delivery.filter(name -> !HEADER.matcher(name).matches()).isPresent()) {
            throw Refusal.invalid("/header", "A header's name has letters, digits and dashes");
        }
        if (pusher.filter(pointer -> !POINTER.matcher(pointer).matches()).isPresent()) {
            throw Refusal.invalid("/pusher",
                    "should be a JSON Pointer such as /who/account; got “" + pusher.get() + "”");
        }
        if (prefix.filter(text -> text.length() > 40).isPresent()) {
            throw Refusal.invalid("/prefix", "has at most 40 characters");
        }
    }

    /** Why a request is not to be believed, if so. */
    Optional<String> reasonAgainst(String secret, @Nullable String value, byte[] body) {
        String before = prefix.orElse("");
        if (value == null || !value.startsWith(before)) {
            return Optional.of("it has no header " + header + (before.isEmpty() ? "" : " that begins with " + before));
        }
        String expected = switch (scheme) {
            case HMAC_SHA256 -> HexFormat.of()
                    .formatHex(StandardWebhooks.hmac(secret.getBytes(StandardCharsets.UTF_8), new byte[0], body));
            case SHARED_WORD -> secret;
        };
        boolean same = MessageDigest.isEqual(expected.getBytes(StandardCharsets.UTF_8),
                value.substring(before.length()).getBytes(StandardCharsets.UTF_8));
        return same ? Optional.empty() : Optional.of("its " + header + " does not match the hook's secret");
    }
}
