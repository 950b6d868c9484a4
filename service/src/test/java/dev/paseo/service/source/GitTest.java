package dev.paseo.service.source;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The real git, saying too much. */
class GitTest {

    private static final int MOST = 32_000_000;

    private static String kept(Path folder, int size) throws IOException {
        Files.write(folder.resolve("large"), new byte[size]);
        return Git.text(folder, List.of("hash-object", "-w", "large")).strip();
    }

    @Test
    void whatItSaysIsKeptUpToALimitAndThenItIsEnded(@TempDir Path folder) throws IOException {
        Git.run(folder, List.of("init", "-q"));
        String just = kept(folder, MOST);
        assertEquals(MOST, Git.run(folder, List.of("cat-file", "blob", just)).length);
        String more = kept(folder, MOST + 1);
        assertEquals("git cat-file said more than 32 MB",
                assertThrows(Git.Failed.class, () -> Git.run(folder, List.of("cat-file", "blob", more))).getMessage());
    }
}
