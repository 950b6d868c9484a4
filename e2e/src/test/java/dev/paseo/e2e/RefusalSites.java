package dev.paseo.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Where the sources of the service refuse something, with which words. */
final class RefusalSites {

    private static final Pattern CALL = Pattern.compile("Refusal\\.([a-z]\\w+)\\(");
    /** A variable, a call, or whatever else stands where a text does. */
    private static final String HOLE = "\0";

    private RefusalSites() {}

    /**
     * One text that may be said.
     *
     * @param where the class
     * @param parts its fixed parts, in their order
     */
    record Said(String where, List<String> parts) {
        boolean isOneOf(List<String> texts) {
            Pattern whole = Pattern.compile(
                    parts.stream().map(Pattern::quote).collect(Collectors.joining(".*")), Pattern.DOTALL);
            return texts.stream().anyMatch(text -> text.startsWith(parts.getFirst()) && whole.matcher(text).matches());
        }

        String words() {
            return String.join("…", parts);
        }
    }

    /** Every text of the service's refusals that has a fixed part. */
    static List<Said> all() throws IOException {
        List<Said> found = new ArrayList<>();
        for (Path file : files("service/src/main/java")) {
            String text = Files.readString(file);
            Matcher call = CALL.matcher(text);
            while (call.find()) {
                List<String> arguments = split(inside(text, call.end()), ',');
                boolean second = List.of("invalid", "unprocessable").contains(call.group(1));
                if (arguments.size() > (second ? 1 : 0)) {
                    String where = file.getFileName().toString().replace(".java", "");
                    texts(arguments.get(second ? 1 : 0)).stream().filter(said -> !said.replace(HOLE, "").isBlank())
                            .forEach(said -> found.add(new Said(where, List.of(said.split(HOLE, -1)))));
                }
            }
        }
        return found;
    }

    /** Every text that the tests compare something with. */
    static List<String> inTests() throws IOException {
        Pattern joined = Pattern
                .compile("(?:[\\w.]+(?:\\([^()]*\\))?\\s*\\+\\s*)?\"(?:[^\"\\\\\\n]|\\\\.)*\"(?:\\s*\\+\\s*"
                        + "(?:\"(?:[^\"\\\\\\n]|\\\\.)*\"|[\\w.]+(?:\\([^()]*\\))?))*");
        List<String> found = new ArrayList<>();
        for (String module : List.of("service", "e2e", "cli")) {
            for (Path file : files(module + "/src/test/java")) {
                Matcher text = joined.matcher(Files.readString(file));
                while (text.find()) {
                    found.add(texts(text.group()).getFirst().replace(HOLE, "x"));
                }
            }
        }
        return found;
    }

    private static List<Path> files(String folder) throws IOException {
        try (Stream<Path> files = Files.walk(TestDatabase.ROOT.resolve(folder))) {
            return files.filter(file -> file.toString().endsWith(".java")).sorted().toList();
        }
    }

    /** What stands between the bracket before this place and its other one. */
    private static String inside(String text, int from) {
        int depth = 1;
        int at = from;
        for (; depth > 0; at++) {
            char sign = text.charAt(at);
            if (sign == '"') {
                at = endOfText(text, at);
            } else {
                depth += sign == '(' ? 1 : sign == ')' ? -1 : 0;
            }
        }
        return text.substring(from, at - 1);
    }

    private static int endOfText(String text, int from) {
        int at = from + 1;
        while (text.charAt(at) != '"') {
            at += text.charAt(at) == '\\' ? 2 : 1;
        }
        return at;
    }

    /** The parts between these signs, where they stand in no bracket and in no text. */
    private static List<String> split(String expression, char sign) {
        List<String> parts = new ArrayList<>();
        int depth = 0;
        int from = 0;
        for (int at = 0; at < expression.length(); at++) {
            char each = expression.charAt(at);
            if (each == '"') {
                at = endOfText(expression, at);
            } else if (each == sign && depth == 0 && !expression.startsWith("::", at)
                    && !(at > 0 && expression.startsWith("::", at - 1))) {
                parts.add(expression.substring(from, at).strip());
                from = at + 1;
            } else {
                depth += "([{".indexOf(each) >= 0 ? 1 : ")]}".indexOf(each) >= 0 ? -1 : 0;
            }
        }
        parts.add(expression.substring(from).strip());
        return parts;
    }

    /** Each text that this expression may be: of what is asked in it, either answer. */
    private static List<String> texts(String expression) {
        List<String> asked = split(expression, '?');
        if (asked.size() > 1) {
            String answers = String.join("?", asked.subList(1, asked.size()));
            List<String> either = split(answers, ':');
            return Stream.concat(texts(either.getFirst()).stream(),
                    texts(String.join(":", either.subList(1, either.size()))).stream()).toList();
        }
        List<String> whole = List.of("");
        for (String written : split(expression, '+')) {
            String part = written.startsWith("\"") ? written.substring(0, endOfText(written, 0) + 1) : written;
            List<String> may = part.startsWith("(") && part.endsWith(")")
                    ? texts(part.substring(1, part.length() - 1))
                    : List.of(part.startsWith("\"") && part.length() > 1
                            ? part.substring(1, part.length() - 1).replace("\\\"", "\"").replaceAll("%[sd]", HOLE)
                            : HOLE);
            whole = whole.stream().flatMap(begun -> may.stream().map(begun::concat)).toList();
        }
        return whole;
    }
}
