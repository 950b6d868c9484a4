package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.springframework.util.FileSystemUtils;

/** The tutorial is followed word by word on an empty service; only its port and its folder are others here. */
class TutorialTest {

    private static final Path ROOT = TestDatabase.ROOT;
    private static final Pattern BLOCK = Pattern.compile("```(sh|text)\n(.*?)\n```", Pattern.DOTALL);

    /** Commands of the page, and what it shows that the ones before it print. */
    private record Step(String commands, List<String> shown) {}

    private static List<Step> steps(String page) {
        List<Step> steps = new ArrayList<>();
        Matcher block = BLOCK.matcher(page);
        while (block.find()) {
            if (block.group(1).equals("sh")) {
                steps.add(new Step(block.group(2), new ArrayList<>()));
            } else {
                steps.getLast().shown().add(block.group(2));
            }
        }
        return steps;
    }

    private static String bash(Path script, Path folder) throws IOException, InterruptedException {
        Path said = folder.resolve("said.txt");
        ProcessBuilder builder = new ProcessBuilder("bash", "-e", script.toString()).directory(ROOT.toFile())
                .redirectErrorStream(true).redirectOutput(said.toFile());
        builder.environment().put("PASEO_PORT", folder.getFileName().toString());
        builder.environment().put("PASEO_AGENT_OPTIONS", "--allow-root");
        Process process = builder.start();
        process.getOutputStream().close();
        boolean ended = process.waitFor(5, TimeUnit.MINUTES);
        String text = Files.readString(said, StandardCharsets.UTF_8);
        assertTrue(ended && process.exitValue() == 0, () -> "the tutorial stops here:\n" + text);
        return text;
    }

    @Test
    void itCanBeFollowed() throws Exception {
        String port = Integer.toString(Processes.freePort());
        Path folder = Files.createDirectories(ROOT.resolve(".paseo/tutorial-test/" + port));
        String page = Files.readString(ROOT.resolve("docs/start/tutorial.md"));
        List<Step> steps = steps(page.replace("127.0.0.1:7600", "127.0.0.1:" + port).replace("$PWD/.paseo/tutorial",
                folder.toString()));
        assertTrue(steps.size() > 10, "the page has no commands");
        StringBuilder script = new StringBuilder("set -o pipefail\n");
        for (int at = 0; at < steps.size(); at++) {
            script.append("echo '=== ").append(at).append("'\n").append(steps.get(at).commands()).append("\n");
        }
        Path file = Files.writeString(folder.resolve("tutorial.sh"), script);
        try {
            String[] said = bash(file, folder).split("=== \\d+\n");
            assertEquals(steps.size() + 1, said.length);
            for (int at = 0; at < steps.size(); at++) {
                String printed = said[at + 1];
                steps.get(at).shown().forEach(text -> assertTrue(printed.contains(text),
                        () -> "this should show\n" + text + "\nand shows\n" + printed));
            }
        } finally {
            Path after = Files.writeString(folder.resolve("after.sh"), """
                    for pid in "$1"/agents/*.pid; do kill "$(cat "$pid")" 2>/dev/null || true; done
                    script/service stop "$1" || true
                    """.replace("$1", folder.toString()));
            bash(after, folder);
            FileSystemUtils.deleteRecursively(folder);
        }
    }
}
