package dev.paseo.api.pattern;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class GlobTest {

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "out/**       | out/a/b.txt   | true", "out/**         | out           | false",
            "*.txt        | a.txt       | true", "*.txt | a/b.txt | false",
            "**/pom.xml   | pom.xml       | true", "**/pom.xml     | a/b/pom.xml   | true",
            "**/pom.xml   | a/xpom.xml  | false", "a/**/b.c | a/b.c | true",
            "a/**/b.c     | a/x/y/b.c     | true", "a/**/b.c       | ab.c          | false",
            "**           | a/b         | true", "**.c | a/b.c | true",
            "?/x          | a/x           | true", "?              | /             | false",
            "[a-c]x       | bx          | true", "[!a-c]x | bx | false",
            "[!a]x        | /x            | false", "{a,b}/*.{c,h} | b/x.h         | true",
            "{a,b}        | ab          | false", "\\*x | *x | true",
            "\\*x         | ax            | false", "a{,s}          | a             | true",
            "[a-]         | -           | true", ".* | .hidden | true"})
    void whatAPatternMatches(String pattern, String name, boolean expected) {
        assertEquals(expected, new Glob(pattern).matches(Path.of(name)));
    }

    @ParameterizedTest
    @ValueSource(strings = {"[a", "[]", "{a", "{a,{b}}", "a\\", "{a,b,c,d,e}{a,b,c,d,e}{a,b,c,d,e}"})
    void whatIsNoPattern(String text) {
        assertThrows(IllegalArgumentException.class, () -> new Glob(text));
    }

    /** Java's own takes longer than anybody waits. */
    @Test
    void aPatternMadeToBeSlowIsNot() {
        Glob glob = new Glob("**" + "*a".repeat(20) + "*b");
        assertTimeoutPreemptively(Duration.ofSeconds(10), () -> {
            for (int time = 0; time < 100; time++) {
                assertFalse(glob.matches("a".repeat(200)));
            }
        });
    }

    /** On what both know they agree. */
    @Test
    void itAgreesWithJavasOwn() {
        Random random = new Random(20_261_128);
        String signs = "ab/*?[a]";
        for (int time = 0; time < 20_000; time++) {
            StringBuilder pattern = new StringBuilder();
            for (int at = random.nextInt(1, 7); at > 0; at--) {
                pattern.append(new String[]{"a", "b", "/", "*", "?", "[ab]", "[!a]", "{a,b}"}[random.nextInt(8)]);
            }
            StringBuilder name = new StringBuilder();
            for (int at = random.nextInt(1, 7); at > 0; at--) {
                name.append(signs.charAt(random.nextInt(3)));
            }
            Path path = Path.of(name.toString());
            // That a folder may be none is ours alone.
            if (!pattern.toString().contains("**/")) {
                assertEquals(FileSystems.getDefault().getPathMatcher("glob:" + pattern).matches(path),
                        new Glob(pattern.toString()).matches(path), pattern + " on " + path);
            }
        }
    }
}
