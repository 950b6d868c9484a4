package dev.paseo.language.piece;

import java.util.Optional;

/**
 * A piece that a file uses, as it was found.
 *
 * @param at      the part for which it stands, such as {@code stages}; empty: for all parts that it has
 * @param of      the component whose piece it is, as it is called now
 * @param named   the name by which the file names it
 * @param wanted  which version the file asks for: {@code newest}, a pattern, {@code live in} an environment
 * @param version the one that was found
 * @param digest  SHA-256 of the piece: what it says, not how it is laid out
 * @param within  the piece that uses it in its turn
 */
public record Used(String at, String piece, String of, String named, String wanted, String version, String digest,
        Optional<String> within) {}
