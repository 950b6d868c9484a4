package dev.paseo.cli.output;

/** Colour, where the output is a terminal and nobody said NO_COLOR. State is always told by a word as well. */
public final class Ink {

    private final boolean coloured;

    public Ink(boolean coloured) {
        this.coloured = coloured;
    }

    private String in(String code, String text) {
        return coloured && !text.isEmpty() ? "\u001b[" + code + "m" + text + "\u001b[0m" : text;
    }

    public String quiet(String text) {
        return in("2", text);
    }

    public String strong(String text) {
        return in("1", text);
    }

    public String good(String text) {
        return in("32", text);
    }

    public String bad(String text) {
        return in("31", text);
    }

    /** Worth a look. */
    public String warn(String text) {
        return in("33", text);
    }

    /** Waits for somebody. */
    public String need(String text) {
        return in("35", text);
    }

    /** A state in its colour, as people say it: {@code not-yet} is {@code not yet}. */
    public String state(String name) {
        String word = name.replace('-', ' ');
        return switch (word) {
            case "passed", "live", "met" -> good(word);
            case "failed", "undone", "rejected", "stopped", "not met" -> bad(word);
            case "warned" -> warn(word);
            case "waiting", "asked" -> need(word);
            default -> word;
        };
    }
}
