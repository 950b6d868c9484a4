package dev.paseo.api.pattern;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntPredicate;

/**
 * A pattern of files: {@code *} stands for any characters but a slash, {@code **} for any characters at all, a
 * <code>**&#47;</code> at the beginning or after a slash also for nothing, {@code ?} for one character but a slash,
 * {@code [a-z]} and {@code [!a-z]} for one of these or none of these, {@code {a,b}} for one of these texts, and what
 * stands behind a backslash for itself. It takes time in proportion to its own length and the name's, whatever both
 * are: all that may be reached is followed at once, and nothing is gone back to.
 */
public final class Glob {

    private static final int MOST_FORMS = 100;

    /**
     * What one part takes of a name; {@code again}: as often as it comes, also never; {@code folders}: then up to a
     * slash, and that.
     */
    private record Part(IntPredicate takes, boolean again, boolean folders) {}

    private final List<List<Part>> forms;

    /** @throws IllegalArgumentException where it is no pattern, or its braces stand for more than 100 */
    public Glob(String text) {
        List<String> plain = new ArrayList<>();
        expand("", text, text, plain);
        forms = plain.stream().map(Glob::parts).toList();
    }

    private static IllegalArgumentException wrong(String text, String why) {
        return new IllegalArgumentException("'" + text + "' is no pattern: " + why);
    }

    /** Each text that the braces stand for. */
    private static void expand(String before, String rest, String whole, List<String> plain) {
        int open = find(rest, '{', 0);
        if (open < 0) {
            if (plain.size() == MOST_FORMS) {
                throw wrong(whole, "its braces stand for more than " + MOST_FORMS);
            }
            plain.add(before + rest);
            return;
        }
        int close = find(rest, '}', open);
        int inner = find(rest, '{', open + 1);
        if (close < 0 || inner >= 0 && inner < close) {
            throw wrong(whole, close < 0 ? "a brace is not closed" : "braces stand within braces");
        }
        int from = open + 1;
        while (from <= close) {
            int comma = find(rest, ',', from);
            int to = comma < 0 || comma > close ? close : comma;
            expand(before + rest.substring(0, open) + rest.substring(from, to), rest.substring(close + 1), whole,
                    plain);
            from = to + 1;
        }
    }

    private static int find(String text, char sign, int from) {
        for (int at = from; at < text.length(); at++) {
            if (text.charAt(at) == '\\') {
                at++;
            } else if (text.charAt(at) == sign) {
                return at;
            }
        }
        return -1;
    }

    private static List<Part> parts(String text) {
        List<Part> parts = new ArrayList<>();
        for (int at = 0; at < text.length(); at++) {
            char sign = text.charAt(at);
            switch (sign) {
                case '*' -> {
                    boolean across = text.startsWith("**", at);
                    boolean folders = text.startsWith("**/", at) && (at == 0 || text.charAt(at - 1) == '/');
                    parts.add(new Part(across ? any -> true : any -> any != '/', true, folders));
                    at += folders ? 2 : across ? 1 : 0;
                }
                case '?' -> parts.add(new Part(any -> any != '/', false, false));
                case '[' -> at = set(text, at, parts);
                case '\\' -> {
                    if (++at == text.length()) {
                        throw wrong(text, "nothing stands behind its last backslash");
                    }
                    char itself = text.charAt(at);
                    parts.add(new Part(any -> any == itself, false, false));
                }
                default -> parts.add(new Part(any -> any == sign, false, false));
            }
        }
        return parts;
    }

    /** Where the set ends. */
    private static int set(String text, int open, List<Part> parts) {
        boolean not = text.startsWith("!", open + 1);
        int first = open + (not ? 2 : 1);
        int close = text.indexOf(']', first);
        if (close <= first) {
            throw wrong(text, "a bracket is not closed, or has nothing in it");
        }
        String signs = text.substring(first, close);
        parts.add(new Part(any -> any != '/' && in(signs, any) != not, false, false));
        return close;
    }

    private static boolean in(String signs, int sign) {
        for (int at = 0; at < signs.length(); at++) {
            boolean range = at + 2 < signs.length() && signs.charAt(at + 1) == '-';
            if (range ? sign >= signs.charAt(at) && sign <= signs.charAt(at + 2) : sign == signs.charAt(at)) {
                return true;
            }
            at += range ? 2 : 0;
        }
        return false;
    }

    /** @param path relative, with slashes */
    public boolean matches(Path path) {
        return matches(path.toString());
    }

    public boolean matches(String name) {
        return forms.stream().anyMatch(parts -> matches(parts, name));
    }

    private static boolean matches(List<Part> parts, String name) {
        BitSet reached = new BitSet(parts.size() + 1);
        reach(parts, 0, reached);
        for (int at = 0; at < name.length() && !reached.isEmpty(); at++) {
            BitSet next = new BitSet(parts.size() + 1);
            char sign = name.charAt(at);
            for (int part = reached.nextSetBit(0); part >= 0
                    && part < parts.size(); part = reached.nextSetBit(part + 1)) {
                Part here = parts.get(part);
                if (here.takes().test(sign)) {
                    if (here.folders()) {
                        next.set(part);
                        if (sign == '/') {
                            reach(parts, part + 1, next);
                        }
                    } else {
                        reach(parts, here.again() ? part : part + 1, next);
                    }
                }
            }
            reached = next;
        }
        return reached.get(parts.size());
    }

    /** A part that may be left out is left out as well. */
    private static void reach(List<Part> parts, int part, BitSet reached) {
        int at = part;
        reached.set(at);
        while (at < parts.size() && parts.get(at).again()) {
            reached.set(++at);
        }
    }
}
