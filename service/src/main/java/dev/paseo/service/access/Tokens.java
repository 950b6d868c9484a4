package dev.paseo.service.access;

import java.security.SecureRandom;
import java.util.Base64;

/** Random tokens, of which only the SHA-256 is kept. */
public final class Tokens {

    private static final SecureRandom RANDOM = new SecureRandom();

    private Tokens() {}

    /** A token of 256 random bits behind a prefix that tells its use. */
    public static String fresh(String prefix) {
        byte[] bytes = new byte[32];
        RANDOM.nextBytes(bytes);
        return prefix + "_" + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }
}
