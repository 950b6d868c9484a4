package dev.paseo.service.source;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.paseo.service.database.RealDatabase;
import dev.paseo.service.problem.Refusal;
import dev.paseo.service.problem.Refused;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What git says of a commit is told from git not being able to say it. */
class MirrorTest {

    private static final List<String> AUTHOR = List.of("-c", "user.name=A Warden", "-c",
            "user.email=warden@park.example");

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
        mirror = new Mirror(folder.resolve("mirror.git"), "file://" + work.resolve(".git"), () -> SourceAccess.NONE,
                Optional::empty);
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
    void whoWroteACommitAndWhoCommittedItBothCount() throws Exception {
        Path work = folder.resolve("work");
        Files.writeString(work.resolve("note"), "from a letter\n");
        git(work, "add", ".");
        git(work, "commit", "-q", "-m", "A letter\n\nCo-authored-by: A Guide <guide@park.example>", "--author",
                "A Walker <walker@park.example>");
        mirror.fetch();
        assertEquals(java.util.Set.of("walker@park.example", "warden@park.example", "guide@park.example"),
                mirror.authors(Optional.of(second), git(work, "rev-parse", "HEAD").strip()));
    }

    /** A commit object as somebody may write it by hand, whatever git itself would make. */
    private Mirror.Commit byHand(String committer, String message) throws Exception {
        Path work = folder.resolve("work");
        String tree = git(work, "rev-parse", "HEAD^{tree}").strip();
        Path object = Files.write(folder.resolve("object"),
                ("tree " + tree + "\nparent " + second
                        + "\nauthor A Warden <warden@park.example> 1770000000 +0100\ncommitter "
                        + committer + "\n\n" + message).getBytes(StandardCharsets.ISO_8859_1));
        String id = git(work, "hash-object", "-t", "commit", "-w", "--literally", object.toString()).strip();
        git(work, "update-ref", "refs/heads/odd", id);
        mirror.fetch();
        return mirror.commit(id);
    }

    /** Committer and subject as they are → what is understood of them; nothing of it keeps a commit from being read. */
    static Stream<Arguments> odd() {
        return Stream.of(
                Arguments.of("A Warden <w@park.example> 568971820800 +0000", "In the year 20000", "In the year 20000",
                        Instant.parse("9999-12-31T23:59:59Z")),
                Arguments.of("A Warden <w@park.example> 99999999999999999999 +0000", "Beyond all years",
                        "Beyond all years", null),
                Arguments.of("A Warden <w@park.example> -5 +0000", "Before 1970", "Before 1970", null),
                Arguments.of("A Warden <w@park.example> 1770000000 +9999", "A zone that is none", "A zone that is none",
                        Instant.ofEpochSecond(1770000000)),
                Arguments.of("A Warden <w@park.example>", "No date", "No date", Instant.EPOCH),
                Arguments.of("nobody", "No address", "No address", Instant.EPOCH),
                Arguments.of("A Warden <w@park.example> 1770000000 +0000",
                        "A unit\u001fseparator, a bell\u0007, \u001b[31mred", "A unit separator, a bell ,  [31mred",
                        Instant.ofEpochSecond(1770000000)),
                Arguments.of("A Warden <w@park.example> 1770000000 +0000", "", "", Instant.ofEpochSecond(1770000000)),
                Arguments.of("A Warden <w@park.example> 1770000000 +0000", "\u00e9t\u00e9 in Latin-1", null,
                        Instant.ofEpochSecond(1770000000)),
                Arguments.of("A Warden <w@park.example> 1770000000 +0000", "long ".repeat(100_000), null,
                        Instant.ofEpochSecond(1770000000)));
    }

    @ParameterizedTest
    @MethodSource("odd")
    void noCommitIsTooOddToBeRead(String committer, String message, @Nullable String summary, @Nullable Instant at)
            throws Exception {
        Mirror.Commit read = byHand(committer, message);
        if (summary != null) {
            assertEquals(summary, read.summary());
        }
        if (at != null) {
            assertEquals(at, read.at());
        }
        assertTrue(read.summary().codePointCount(0, read.summary().length()) <= 400);
        assertFalse(read.at().isBefore(Instant.EPOCH));
        assertEquals("A Warden", read.author());
        assertEquals(List.of(read.id(), second),
                mirror.between(Optional.of(first), read.id(), 10).stream().map(Mirror.Commit::id).toList());
    }

    /** Where a component is moved to another repository, both mirrors have one folder for a while. */
    @Test
    void twoMirrorsOfOneFolderFetchOneAfterTheOther() throws Exception {
        AtomicInteger next = new AtomicInteger();
        List<Boolean> fetched = RealDatabase.atOnce(8, () -> {
            Path other = folder.resolve(next.incrementAndGet() % 2 == 0 ? "work" : "work/.git/..");
            new Mirror(folder.resolve("mirror.git"), "file://" + other.resolve(".git"), () -> SourceAccess.NONE,
                    Optional::empty).fetch();
            return true;
        });
        assertEquals(8, fetched.size());
    }

    @Test
    void aFileThatIsTooLargeIsNotRead() throws Exception {
        Path work = folder.resolve("work");
        Files.write(work.resolve("paseo.yaml"), new byte[(int) Mirror.LARGEST_FILE]);
        String most = commit(work);
        Files.write(work.resolve("paseo.yaml"), new byte[(int) Mirror.LARGEST_FILE + 1]);
        String more = commit(work);
        mirror.fetch();
        assertEquals(Mirror.LARGEST_FILE, mirror.file(most, "paseo.yaml").orElseThrow().length());
        assertEquals("paseo.yaml has 1000001 bytes; at most 1 MB are read",
                assertThrows(Mirror.TooLarge.class, () -> mirror.file(more, "paseo.yaml")).getMessage());
    }

    @Test
    void ofAPushThatIsRefusedTheRepositorysOwnWordsAreKept() {
        assertEquals("This branch is locked; hook declined to update refs/heads/locked", NewCommit.remoteWords("""
                git push failed: remote: This branch is locked\040\040
                remote: error: hook declined to update refs/heads/locked
                To file:///srv/git/board.git
                 ! [remote rejected] c0ffee -> locked (hook declined)"""));
        assertEquals("git push failed: too slow", NewCommit.remoteWords("git push failed: too slow"));
    }

    private String tree(Mirror of, String commit, Optional<String> folder) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        of.tree(commit, folder, out);
        return Base64.getEncoder().encodeToString(out.toByteArray());
    }

    /** Whoever archives it, whenever, from whichever copy. */
    @Test
    void theArchiveOfACommitDependsOnTheCommitAlone() throws Exception {
        Path work = folder.resolve("work");
        Files.createDirectories(work.resolve("site/summer"));
        Files.writeString(work.resolve("site/summer/h\u00fctte.html"), "<p>open</p>");
        Files.writeString(work.resolve("site/" + "long".repeat(40) + ".txt"), "x");
        Files.createSymbolicLink(work.resolve("site/today"), Path.of("summer"));
        assertTrue(work.resolve("deploy/install.sh").toFile().setExecutable(true));
        String commit = commit(work);
        mirror.fetch();
        String all = tree(mirror, commit, Optional.empty());
        git(work, "clone", "-q", "--bare", ".", folder.resolve("other.git").toString());
        git(folder.resolve("other.git"), "config", "tar.umask", "0077");
        Mirror other = new Mirror(folder.resolve("other.git"), "file:///none", () -> SourceAccess.NONE,
                Optional::empty);
        assertEquals(all, tree(other, commit, Optional.empty()));
        Path unpacked = Files.createDirectories(folder.resolve("unpacked"));
        Files.write(unpacked.resolve("site.tar"),
                Base64.getDecoder().decode(tree(mirror, commit, Optional.of("site"))));
        assertEquals(0, new ProcessBuilder("tar", "-xf", "site.tar").directory(unpacked.toFile()).inheritIO().start()
                .waitFor());
        assertEquals("<p>open</p>", Files.readString(unpacked.resolve("today/h\u00fctte.html")));
        assertTrue(Files.exists(unpacked.resolve("long".repeat(40) + ".txt")));
        assertEquals(mirror.commit(commit).at(),
                Files.getLastModifiedTime(unpacked.resolve("summer/h\u00fctte.html")).toInstant());
        assertEquals("the commit has no folder sites", assertThrows(Mirror.NoSuchFiles.class,
                () -> tree(mirror, commit, Optional.of("sites"))).getMessage());
    }

    @Test
    void aRepositoryThatIsAwayIsToldWithWhatGitSays() throws Exception {
        Files.move(folder.resolve("work"), folder.resolve("elsewhere"));
        String said = Refused.by(Refusal.Kind.UNAVAILABLE, () -> mirror.fetch());
        String git = said.substring(said.indexOf(": ") + 2);
        assertEquals("The repository is unreachable or rejects the credentials: " + git, said);
        assertTrue(git.contains("work/.git"), git);
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
