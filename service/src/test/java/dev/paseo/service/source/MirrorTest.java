package dev.paseo.service.source;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.problem.Refusal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What git says of a commit is told from git not being able to say it. */
class MirrorTest {

    private static final List<String> AUTHOR = List.of("-c", "user.name=A Warden", "-c", "user.email=warden@park.example");

    @TempDir
    Path folder;

    private Mirror mirror;
    private String first = "";
    private String second = "";

    @BeforeEach
    void twoCommits() throws Exception {
        Path work = Files.createDirectories(folder.resolve("work"));
        git(work, "init", "-q", "-b", "main");
        Files.createDirectories(work.resolve("deploy"));
        Files.writeString(work.resolve("deploy/install.sh"), "echo here\n");
        first = commit(work);
        Files.writeString(work.resolve("paseo.yaml"), "paseo: 1\n");
        second = commit(work);
        mirror = new Mirror(folder.resolve("mirror.git"), "file://" + work.resolve(".git"), () -> SourceAccess.NONE);
        mirror.fetch();
    }

    private static String commit(Path work) {
        git(work, "add", ".");
        git(work, "commit", "-q", "-m", "A change");
        return git(work, "rev-parse", "HEAD").strip();
    }

    private static String git(Path work, String... arguments) {
        return Git.text(work, Stream.concat(AUTHOR.stream(), Stream.of(arguments)).toList());
    }

    @Test
    void aFileThatIsNotThereIsNotThere() {
        assertEquals(Optional.of("paseo: 1\n"), mirror.file(second, "paseo.yaml"));
        assertEquals(Optional.empty(), mirror.file(first, "paseo.yaml"));
        assertEquals(Optional.empty(), mirror.file(second, "deploy"), "a folder is no file");
        assertEquals(Optional.empty(), mirror.file(second, "deploy/*"), "a name is no pattern");
        assertTrue(mirror.precedes(first, second));
        assertFalse(mirror.precedes(second, first));
    }

    @Test
    void thatGitFailsIsNoAnswer() throws Exception {
        try (Stream<Path> all = Files.walk(folder.resolve("mirror.git/objects"))) {
            for (Path object : all.filter(Files::isRegularFile).toList()) {
                Files.delete(object);
            }
        }
        assertThrows(Refusal.class, () -> mirror.file(second, "paseo.yaml"));
        assertThrows(Refusal.class, () -> mirror.precedes(first, second));
    }

    @Test
    void aDamagedFileIsNotAnAbsentOne() throws Exception {
        String blob = git(folder.resolve("mirror.git"), "rev-parse", second + ":paseo.yaml").strip();
        // Small fetches are unpacked, so the object is a file of its own.
        Files.delete(folder.resolve("mirror.git/objects").resolve(blob.substring(0, 2)).resolve(blob.substring(2)));
        assertThrows(Refusal.class, () -> mirror.file(second, "paseo.yaml"));
        assertEquals(Optional.of("echo here\n"), mirror.file(second, "deploy/install.sh"));
    }
}
