package dev.paseo.language.piece;

import java.util.List;
import java.util.Optional;

/**
 * A piece, for whoever would use it.
 *
 * @param parts     what it brings: {@code stages}, {@code deployment}, {@code checks}, {@code route}
 * @param mayChange what a file that is like it may change or add
 * @param digest    SHA-256 of what it says
 */
public record Described(String name, String summary, List<Given> inputs, List<String> parts, List<String> mayChange,
        String digest) {

    /**
     * What it is given.
     *
     * @param kind     flag, text, number, one-of, list or duration
     * @param standard what holds where nothing is given; absent: it has to be
     * @param of       the values that may be given, where it is one of several
     */
    public record Given(String name, String words, String kind, Optional<String> standard, List<String> of) {}
}
