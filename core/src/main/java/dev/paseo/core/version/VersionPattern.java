package dev.paseo.core.version;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The pattern of a component's version numbers, such as {@code 1.4.{serial}}.
 *
 * <p>A serial counts within a scope: the component and the pattern with everything but the serial filled in.
 */
public record VersionPattern(String text) {

    /** The placeholders that a pattern may have. */
    public static final List<String> PLACEHOLDERS = List.of("serial", "commit", "branch", "tag", "date");

    private static final Pattern PLACEHOLDER = Pattern.compile("\\{([^{}]*)}");
    private static final Pattern NUMBER = Pattern.compile("[0-9A-Za-z][0-9A-Za-z.+_-]{0,79}");

    public VersionPattern {
        for (String name : names(text)) {
            if (!PLACEHOLDERS.contains(name)) {
                throw new IllegalArgumentException("unknown placeholder {" + name + "} in versions \"" + text + "\"");
            }
        }
        if (!NUMBER.matcher(PLACEHOLDER.matcher(text).replaceAll("1")).matches()) {
            throw new IllegalArgumentException(
                    "versions \"" + text + "\" gives a number with signs other than letters, digits and . + _ -");
        }
    }

    private static TreeSet<String> names(String text) {
        TreeSet<String> names = new TreeSet<>();
        Matcher matcher = PLACEHOLDER.matcher(text);
        while (matcher.find()) {
            names.add(matcher.group(1));
        }
        return names;
    }

    /** The pattern with everything but {@code {serial}} filled in: within this scope the serial counts. */
    public String scope(Map<String, String> values) {
        return PLACEHOLDER.matcher(text).replaceAll(found -> Matcher.quoteReplacement(
                found.group(1).equals("serial") ? "{serial}" : slug(values.getOrDefault(found.group(1), "none"))));
    }

    /** The number that a scope gives with this serial. */
    public static String number(String scope, long serial) {
        return scope.replace("{serial}", Long.toString(serial));
    }

    /** The scope of a branch that is not trusted: the line's next number, then the branch and a serial of its own. */
    public static String beside(String nextTrusted, String branch) {
        return nextTrusted + "-" + slug(branch) + ".{serial}";
    }

    /** A branch's name as part of a version number: letters, digits and dashes, at most 40 of them. */
    public static String slug(String text) {
        String plain = text.toLowerCase(Locale.ROOT).replaceAll("[^0-9a-z.]+", "-").replaceAll("^[-.]+|[-.]+$", "");
        String cut = plain.length() > 40 ? plain.substring(0, 40) : plain;
        return cut.isEmpty() ? "x" : cut;
    }
}
