package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** No file that git tracks still has a word of the scenario before, or an outer word of the release before. */
class WordsTest {

    private static final Pattern FORMER = Pattern.compile(
            "\\btide|\\btidal|harbou?r|quay|\\bberth|lighthouse|slipway|regatta|\\bbuoy|\\bferry|\\bpilot|"
                    + "mooring|high[ -]water|low[ -]water"
                    + "|\\bsoak(ed)?:|soaking|Criterion\\.Soak|--param\\b|kind: choice|\\bchoices: "
                    + "\\[|^\\s+(entry|exit):|agent enrol .*--tag",
            Pattern.CASE_INSENSITIVE);

    /** What reads the words of before has to name them. */
    private static final List<String> READERS = List.of("db/migration/", "resources/stored/", "FormerWords",
            "StoredRules.java", "WordsTest.java");
    private static final Pattern NOT_TEXT = Pattern.compile(".*(\\.png|\\.woff2|package-lock\\.json)");

    private static List<String> tracked() throws IOException, InterruptedException {
        Process git = new ProcessBuilder("git", "ls-files").directory(TestDatabase.ROOT.toFile()).start();
        String files = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertEquals(0, git.waitFor());
        return files.lines().toList();
    }

    private static List<String> formerIn(String name, List<String> lines) {
        List<String> found = new ArrayList<>(FORMER.matcher(name).find() ? List.of(name) : List.of());
        for (int at = 0; at < lines.size(); at++) {
            if (FORMER.matcher(lines.get(at)).find()) {
                found.add(name + ":" + (at + 1) + ": " + lines.get(at).strip());
            }
        }
        return found;
    }

    @Test
    void noFormerWordIsLeft() throws Exception {
        List<String> found = new ArrayList<>();
        for (String name : tracked()) {
            Path file = TestDatabase.ROOT.resolve(name);
            if (!NOT_TEXT.matcher(name).matches() && READERS.stream().noneMatch(name::contains)
                    && Files.isRegularFile(file)) {
                found.addAll(formerIn(name, Files.readAllLines(file, StandardCharsets.UTF_8)));
            }
        }
        assertEquals(List.of(), found);
    }

    /** Sentences that readers had to guess at; said plainly since, and not to come back where people read them. */
    private static final Pattern RIDDLE = Pattern.compile(
            "let us in\\b|by no way|is not ours|sends on and on|near to what was meant|are set apart"
                    + "|held against triggers|time alone will do|believed by|said nothing|[\"> ]Leave it\\b"
                    + "|Do something|Hit before|is no condition|round in a circle|(\\d|\") signs\\b"
                    + "|start a thing|at its sign"
                    + "|is the one who is away|nobody decided until|makes mails wait|goes on where its plan");
    private static final Pattern FOR_USERS = Pattern.compile(
            "README\\.md|docs/(?!decisions|benchmarks).*\\.md|(service|cli|core|language|agent)/src/main/.*\\.java"
                    + "|console/src/(?!.*\\.test\\.).*\\.tsx?");
    private static final Pattern COMMENT = Pattern.compile("\\s*(\\*|//|/\\*).*");

    private static List<String> riddlesIn(String name, List<String> lines) {
        return lines.stream().filter(line -> !COMMENT.matcher(line).matches() || name.endsWith(".md"))
                .filter(line -> RIDDLE.matcher(line).find()).map(line -> name + ": " + line.strip()).toList();
    }

    @Test
    void noRiddleIsLeftForPeople() throws Exception {
        List<String> found = new ArrayList<>();
        for (String name : tracked()) {
            Path file = TestDatabase.ROOT.resolve(name);
            if (FOR_USERS.matcher(name).matches() && Files.isRegularFile(file)) {
                found.addAll(riddlesIn(name, Files.readAllLines(file, StandardCharsets.UTF_8)));
            }
        }
        assertEquals(List.of(), found);
        assertEquals(1, riddlesIn("A.java", List.of("throw new Wrong(\"has 1 to 20 signs\");", "// 20 signs")).size());
    }

    @Test
    void formerWordsAreFoundWhereTheyAre() {
        assertTrue(Stream
                .of("component: tide-api", "    entry:", "      soak: 2h", "paseo start x --param a=b", "kind: choice",
                        "paseo agent enrol builder --tag jdk25")
                .allMatch(line -> formerIn("a", List.of(line)).size() == 1));
        assertEquals(List.of(), formerIn("a",
                List.of("an entry of the trail", "its exit code", "git tag v1", "--offer jdk25", "live-for: 2h")));
    }

    private static final Pattern CALL = Pattern.compile("(?s)(?:Refusal\\.[a-z]\\w+|new Failure)\\((.*?)\\);\n");
    private static final Pattern LITERAL = Pattern.compile("\"((?:[^\"\\\\]|\\\\.)*)\"");
    /** A capital letter; what a field should be; or what follows a name. */
    private static final Pattern FORM = Pattern.compile(
            "([A-Z“ :#,;.”]|\\\\n|should |has |needs |--|files: |reports |paseo ).*", Pattern.DOTALL);

    /** What is said first in each refusal, where it is of another form; fields (JSON pointers) stand before it. */
    private static List<String> malformedIn(String name, String text) {
        List<String> wrong = new ArrayList<>();
        Matcher call = CALL.matcher(text);
        while (call.find()) {
            Matcher literal = LITERAL.matcher(call.group(1));
            boolean found = false;
            while (literal.find() && !found) {
                String said = literal.group(1);
                found = !said.isEmpty() && !said.matches("/[a-zA-Z/-]*");
                if (found && !FORM.matcher(said).matches()) {
                    wrong.add(name + ": " + said);
                }
            }
            if (Pattern.compile("'\" \\+|\\+ \"'|got '").matcher(call.group(1)).find()) {
                wrong.add(name + ": quotes in " + call.group(1).strip());
            }
        }
        return wrong;
    }

    /** A message begins with a capital letter, with what was given in quotes, or with what its field should be. */
    @Test
    void refusalsAreWellFormed() throws Exception {
        List<String> found = new ArrayList<>();
        for (String name : tracked()) {
            Path file = TestDatabase.ROOT.resolve(name);
            if (name.matches("(service|cli)/src/main/.*\\.java") && Files.isRegularFile(file)) {
                found.addAll(malformedIn(name, Files.readString(file)));
            }
        }
        assertEquals(List.of(), found);
        assertEquals(2, malformedIn("A.java", "Refusal.conflict(\"it is not so\");\n"
                + "Refusal.invalid(\"/name\", \"should be text; got '\" + name + \"'\");\n").stream().distinct()
                .count());
    }
}
