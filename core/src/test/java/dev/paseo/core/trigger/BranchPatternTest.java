package dev.paseo.core.trigger;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BranchPatternTest {

    @ParameterizedTest
    @CsvSource({
            "main, main, true", "main, mains, false", "season/*, season/spring, true",
            "season/*, season/spring/late, false", "season/**, season/spring/late, true",
            "season/*, season/, true", "**/docs/*.md, docs/a.md, true", "**/docs/*.md, deep/er/docs/a.md, true",
            "**/docs/*.md, xdocs/a.md, false", "a/**/b, a/b, true",
            "a/**/b, a/x/y/b, true", "a/**/b, a/xb, false", "v?.?, v1.2, true", "v?.?, v/.2, false",
            "**, any/thing, true", "a.c, abc, false", "x**y, x/1/y, true"})
    void whatAPatternNames(String pattern, String name, boolean matches) {
        assertEquals(matches, new BranchPattern(pattern).matches(name));
    }

    /** The same in Java's regular expressions, which go back and forth. */
    private static Pattern regex(String text) {
        StringBuilder regex = new StringBuilder();
        for (int at = 0; at < text.length(); at++) {
            if (text.startsWith("**/", at) && (at == 0 || text.charAt(at - 1) == '/')) {
                regex.append("(?:.*/)?");
                at += 2;
            } else if (text.startsWith("**", at)) {
                regex.append(".*");
                at++;
            } else {
                regex.append(text.charAt(at) == '*' ? "[^/]*"
                        : text.charAt(at) == '?' ? "[^/]" : Pattern.quote(text.substring(at, at + 1)));
            }
        }
        return Pattern.compile(regex.toString());
    }

    private static String made(Random random, String signs, int most) {
        StringBuilder text = new StringBuilder();
        for (int left = 1 + random.nextInt(most); left > 0; left--) {
            text.append(signs.charAt(random.nextInt(signs.length())));
        }
        return text.toString();
    }

    @Test
    void itMeansWhatTheExpressionMeans() {
        Random random = new Random(20261128);
        int matched = 0;
        for (int time = 0; time < 60_000; time++) {
            String pattern = made(random, "ab/**?", 8);
            String name = made(random, "aab/", 8);
            boolean matches = new BranchPattern(pattern).matches(name);
            assertEquals(regex(pattern).matcher(name).matches(), matches, pattern + " on " + name);
            matched += matches ? 1 : 0;
        }
        assertTrue(matched > 5_000, "some do: " + matched);
    }

    /** Whoever goes back and forth takes years for this. */
    @Test
    void aPatternMadeToBeSlowIsNot() {
        BranchPattern pattern = new BranchPattern("*a".repeat(20) + "b");
        BranchPattern folders = new BranchPattern("**/a/".repeat(20) + "b");
        String name = "a".repeat(200);
        String path = "a/".repeat(100);
        assertTimeoutPreemptively(Duration.ofMinutes(1), () -> {
            for (int time = 0; time < 100; time++) {
                assertFalse(pattern.matches(name));
                assertFalse(folders.matches(path));
            }
        });
    }
}
