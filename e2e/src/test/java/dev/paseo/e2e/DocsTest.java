package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** No page leads to one that is not there, nor to a heading that is not. */
class DocsTest {

    private static final Pattern LINK = Pattern.compile("]\\(([^)\\s]+)\\)");
    private static final Pattern HEADING = Pattern.compile("(?m)^#+ (.*)$");

    private static List<Path> pages() throws IOException, InterruptedException {
        Process git = new ProcessBuilder("git", "ls-files", "-co", "--exclude-standard", "*.md")
                .directory(TestDatabase.ROOT.toFile()).start();
        String files = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertEquals(0, git.waitFor());
        return files.lines().map(TestDatabase.ROOT::resolve).filter(Files::isRegularFile).toList();
    }

    /** As pages are rendered: small letters, dashes for spaces, nothing else. */
    private static String anchor(String heading) {
        return heading.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9 _-]", "").strip().replace(' ', '-');
    }

    private static boolean has(Path page, String anchor) throws IOException {
        Matcher heading = HEADING.matcher(Files.readString(page));
        while (heading.find()) {
            if (anchor(heading.group(1)).equals(anchor)) {
                return true;
            }
        }
        return false;
    }

    private static List<String> dead(Path page, String text) throws IOException {
        List<String> dead = new ArrayList<>();
        Matcher link = LINK.matcher(text);
        while (link.find()) {
            String target = link.group(1);
            if (target.matches("[a-z]+:.*")) {
                continue;
            }
            String file = target.replaceFirst("#.*", "");
            Path to = file.isEmpty() ? page : page.resolveSibling(file).normalize();
            boolean there = Files.exists(to)
                    && (!target.contains("#") || has(to, target.substring(target.indexOf('#') + 1)));
            if (!there) {
                dead.add(TestDatabase.ROOT.relativize(page) + " leads to " + target);
            }
        }
        return dead;
    }

    @Test
    void noLinkIsDead() throws Exception {
        List<String> dead = new ArrayList<>();
        for (Path page : pages()) {
            dead.addAll(dead(page, Files.readString(page)));
        }
        assertEquals(List.of(), dead);
        assertTrue(pages().size() > 20, "the pages were not found");
        assertEquals(2, dead(TestDatabase.ROOT.resolve("README.md"), "[a](nowhere.md) [b](README.md#nothing)").size());
    }
}
