package dev.paseo.core.trigger;

import java.util.regex.Pattern;

/**
 * A pattern of branch names: {@code *} stands for any signs but a slash, {@code **} for any signs at all,
 * {@code ?} for one sign; everything else for itself.
 */
public record BranchPattern(String text) {

    public BranchPattern {
        if (text.isBlank() || text.length() > 200) {
            throw new IllegalArgumentException("a branch pattern has 1 to 200 signs, got '" + text + "'");
        }
    }

    public boolean matches(String branch) {
        return compile().matcher(branch).matches();
    }

    private Pattern compile() {
        StringBuilder regex = new StringBuilder();
        for (int at = 0; at < text.length(); at++) {
            char sign = text.charAt(at);
            if (sign == '*' && at + 1 < text.length() && text.charAt(at + 1) == '*') {
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
        return Pattern.compile(regex.toString());
    }
}
