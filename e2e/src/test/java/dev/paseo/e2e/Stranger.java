package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Somebody who has nothing but the docs. */
final class Stranger {

    private Stranger() {}

    /** What the verifier that the docs print says of an export. */
    static String verifies(Path export) throws IOException, InterruptedException {
        Matcher code = Pattern.compile("```python\n(.*?)```", Pattern.DOTALL)
                .matcher(Files.readString(TestDatabase.ROOT.resolve("docs/reference/audit.md")));
        assertTrue(code.find());
        Process process = new ProcessBuilder("python3", "-c", code.group(1), export.toString())
                .redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(1, TimeUnit.MINUTES));
        return said.strip();
    }
}
