package dev.paseo.core.trigger;

import java.util.regex.Pattern;

/**
 * A pattern of names or paths: {@code *} stands for any signs but a slash, {@code **} for any signs at all, a leading
 * or inner <code>**&#47;</code> also for nothing, {@code ?} for one sign but a slash; everything else for itself.
 */
public final class BranchPattern {

    private static final int LONGEST = 200;

    private final String text;
    private final Pattern pattern;

    public BranchPattern(String text) {
        if (text.isBlank() || text.length() > LONGEST) {
            throw new IllegalArgumentException("a pattern has 1 to " + LONGEST + " signs, got '" + text + "'");
        }
        this.text = text;
        this.pattern = Pattern.compile(regex(text));
    }

    public boolean matches(String name) {
        return pattern.matcher(name).matches();
    }

    /** Whether it stands for more than one name. */
    boolean wild() {
        return text.contains("*") || text.contains("?");
    }

    private static String regex(String text) {
        StringBuilder regex = new StringBuilder();
        for (int at = 0; at < text.length(); at++) {
            char sign = text.charAt(at);
            if (text.startsWith("**/", at) && (at == 0 || text.charAt(at - 1) == '/')) {
                regex.append("(?:.*/)?");
                at += 2;
            } else if (text.startsWith("**", at)) {
                regex.append(".*");
                at++;
            } else if (sign == '*') {
                regex.append("[^/]*");
            } else if (sign == '?') {
                regex.append("[^/]");
            } else {
                regex.append(Pattern.quote(String.valueOf(sign)));
            }
        }
        return regex.toString();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof BranchPattern same && same.text.equals(text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    @Override
    public String toString() {
        return text;
    }
}
