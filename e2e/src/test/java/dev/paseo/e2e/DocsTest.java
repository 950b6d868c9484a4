package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.cli.Context;
import dev.paseo.cli.command.Commands;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import picocli.CommandLine;

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

    private static final Pattern FOR_USERS = Pattern
            .compile("docs/(start|how-to|reference|explanation)/.*|README\\.md");

    /** What keeps a page true is no matter of who reads it. */
    @Test
    void pagesForUsersNameNoTestNorDecision() throws Exception {
        List<String> found = new ArrayList<>();
        for (Path page : pages()) {
            String name = TestDatabase.ROOT.relativize(page).toString();
            if (FOR_USERS.matcher(name).matches() && !name.equals("README.md")) {
                Matcher word = Pattern.compile("`\\w+Test\\b|decisions/|benchmark").matcher(Files.readString(page));
                while (word.find()) {
                    found.add(name + ": " + word.group());
                }
            }
        }
        assertEquals(List.of(), found);
    }

    /** Decisions have one form, and are numbered without a hole. */
    @Test
    void decisionsHaveOneForm() throws Exception {
        Pattern form = Pattern.compile("# (\\d{4})\\. \\p{Lu}.*\n\nDate: \\d{4}-\\d\\d-\\d\\d · Status: "
                + "(accepted|replaced by \\d{4})\n\n## Context\n\n[^#]+\n\n## Decision\n\n[^#]+\n\n"
                + "## Consequences\n\n[^#]+");
        List<String> wrong = new ArrayList<>();
        int number = 0;
        List<Path> all = pages().stream().filter(page -> page.getParent().endsWith("decisions")).sorted().toList();
        for (Path page : all) {
            Matcher text = form.matcher(Files.readString(page));
            number++;
            if (!text.matches() || Integer.parseInt(text.group(1)) != number
                    || !page.getFileName().toString().startsWith(text.group(1) + "-")) {
                wrong.add(page.getFileName().toString());
            }
        }
        assertEquals(List.of(), wrong);
        assertTrue(number > 20, "the decisions were not found");
    }

    /** Every command that a page shows is one of the client's, with options that it has. */
    @Test
    void commandsOfPagesAreTheClients() throws Exception {
        Context context = new Context(new PrintWriter(new StringWriter()), InputStream.nullInputStream(), Map.of(),
                false);
        CommandLine client = Commands.line(context, "");
        List<String> wrong = new ArrayList<>();
        int count = 0;
        for (Path page : pages()) {
            String name = TestDatabase.ROOT.relativize(page).toString();
            if (FOR_USERS.matcher(name).matches()) {
                Matcher command = Pattern.compile("(?m)(?:^|`|\\bor )paseo ((?:[^`\\n\\\\]|\\\\\n)+)")
                        .matcher(Files.readString(page));
                for (; command.find(); count++) {
                    wrong(client, command.group(1)).ifPresent(why -> wrong.add(name + ": " + why));
                }
            }
        }
        assertEquals(List.of(), wrong);
        assertTrue(count > 150, "only " + count);
        assertTrue(wrong(client, "agent enroll builder").isPresent());
        assertTrue(wrong(client, "agent enrol builder --label jdk25").isPresent());
    }

    private static Optional<String> wrong(CommandLine client, String shown) {
        CommandLine at = client;
        for (String word : shown.split("\\s{2,}|[|;<>]", 2)[0].strip().split("\\s+")) {
            if (at.getSubcommands().containsKey(word)) {
                at = at.getSubcommands().get(word);
            } else if (!at.getSubcommands().isEmpty() && word.matches("[a-z-]+")) {
                return Optional.of("there is no command paseo " + shown);
            } else if (word.startsWith("--")
                    && at.getCommandSpec().findOption(word.replaceAll("[=,.].*", "")) == null) {
                return Optional.of("paseo " + shown + ": there is no option " + word);
            }
        }
        return Optional.empty();
    }
}
