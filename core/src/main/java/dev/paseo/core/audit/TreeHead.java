package dev.paseo.core.audit;

import java.nio.charset.StandardCharsets;
import java.time.Instant;

/**
 * What is signed of the tree: its size, its root and when.
 *
 * @param root in lower-case hexadecimal
 */
public record TreeHead(long size, String root, Instant at) {

    /** The bytes that are signed. */
    public byte[] bytes() {
        return ("paseo tree head 1\n" + size + "\n" + root + "\n" + at + "\n").getBytes(StandardCharsets.UTF_8);
    }
}
