package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The lines that are pasted on an agent's machine: they fetch, check and start it, and it works. */
class AgentArchiveTest {

    private static final String FILE = """
            paseo: 1
            component: lamp
            versions: "1.{serial}"
            starts: [{push: [main]}]
            stages: {light: {steps: ["mkdir out && echo on > out/lamp"], keep: {lamp: out/lamp}}}
            """;

    private static Process pasted(Path folder, String lines) throws Exception {
        ProcessBuilder shell = new ProcessBuilder("sh", "-e", "-c", lines).directory(folder.toFile())
                .redirectErrorStream(true).redirectOutput(folder.resolve("said").toFile());
        shell.environment().put("HOME", folder.toString());
        shell.environment().put("JAVA_HOME", System.getProperty("java.home"));
        return shell.start();
    }

    @Test
    void pastedLinesMakeAnAgentThatWorks() throws Exception {
        try (Park park = new Park()) {
            int port = Processes.freePort();
            park.startService("--server.port=" + port, "--paseo.address=http://127.0.0.1:" + port);
            park.accounts();
            Repository repository = park.bring("lamp", Map.of());
            Path folder = Files.createDirectories(park.folder.resolve("machine"));
            Process agent = pasted(folder, park.paseo("admin", "agent", "enrol", "builder", "--lines").out()
                    .replace("--enrol", "--without-walls --allow-root --enrol"));
            park.closeToo(() -> {
                agent.descendants().forEach(ProcessHandle::destroy);
                agent.destroy();
                agent.waitFor();
            });
            repository.push("developer", "main", Map.of("paseo.yaml", FILE));
            assertEquals("passed", park.runEnds("lamp", 1).path("run").path("status").asString(),
                    () -> said(folder));
        }
    }

    private static String said(Path folder) {
        try {
            return Files.readString(folder.resolve("said"));
        } catch (java.io.IOException none) {
            return none.toString();
        }
    }

    @Test
    void whatIsNotTheArchiveIsNotStarted() throws Exception {
        try (Park park = new Park()) {
            int port = Processes.freePort();
            park.startService("--server.port=" + port, "--paseo.address=http://127.0.0.1:" + port);
            park.accounts();
            String lines = park.paseo("admin", "agent", "enrol", "builder", "--lines").out();
            assertEquals(4, lines.lines().count());
            Path folder = Files.createDirectories(park.folder.resolve("machine"));
            Process pasted = pasted(folder, lines.replaceFirst("(?m)^tar", "echo never; tar")
                    .replaceFirst("echo \"[0-9a-f]{8}", "echo \"00000000"));
            assertTrue(pasted.waitFor() != 0);
            assertTrue(said(folder).contains("paseo-agent.tar.gz: FAILED"), () -> said(folder));
            assertFalse(said(folder).contains("never"), () -> said(folder));
        }
    }
}
