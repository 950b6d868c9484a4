package dev.paseo.core.text;

/** Shortens texts, and says so. */
public final class Shortened {

    private Shortened() {}

    /** At most so many UTF-16 units of it, the last one … where it was longer; no character is cut in two. */
    public static String to(String text, int most) {
        if (text.length() <= most) {
            return text;
        }
        int end = Math.max(1, most - 1);
        return text.substring(0, Character.isHighSurrogate(text.charAt(end - 1)) ? end - 1 : end) + "…";
    }
}
