package dev.paseo.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;

/** Repositories that are large or odd in every way that git allows. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class OddRepositoriesTest {

    /** What is slow here for each of them takes hours for the fifty thousand that some repositories have. */
    private static final int BRANCHES = 500;
    private static final int TAGS = 10_000;

    private Park park;

    @BeforeAll
    void open() throws Exception {
        park = new Park();
        park.startService();
        park.accounts();
        park.startAgent("builder");
    }

    @AfterAll
    void close() throws Exception {
        park.close();
    }

    private Repository brought(String name, String steps) throws Exception {
        Repository repository = park.bring(name, Map.of());
        repository.push("developer", "main", Map.of("paseo.yaml", "paseo: 1\ncomponent: " + name
                + "\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages:\n  look:\n    steps:\n      - |\n"
                + steps.indent(8)));
        return repository;
    }

    private String status(String component, long run) {
        return park.run(component, run).path("run").path("status").asString("");
    }

    private static void feed(Path folder, byte[] input, String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
        try (var in = process.getOutputStream()) {
            in.write(input);
        }
        assertEquals(0, process.waitFor(), () -> Arrays.toString(command));
    }

    @Test
    void manyBranchesAndTagsDelayNoRun() throws Exception {
        Repository repository = brought("crowded", "true");
        Await.until("the first run passed", () -> status("crowded", 1).equals("passed"));
        String head = repository.head();
        StringBuilder refs = new StringBuilder();
        for (int at = 0; at < BRANCHES; at++) {
            refs.append("create refs/heads/")
                    .append(at % 3 == 0 ? "odd/öresund-明石-" : at % 3 == 1 ? "odd/$(touch)-" : "odd/a'b\"c;-").append(at)
                    .append(' ').append(head).append('\n');
        }
        for (int at = 0; at < TAGS; at++) {
            refs.append("create refs/tags/odd-").append(at).append(' ').append(head).append('\n');
        }
        Path bare = Path.of(repository.url().substring("file://".length()));
        feed(bare, refs.toString().getBytes(StandardCharsets.UTF_8), "git", "update-ref", "--stdin");
        feed(bare, new byte[0], "git", "pack-refs", "--all");
        long began = System.nanoTime();
        // git itself takes its time to write down so many; the hook may give up waiting, and the run starts all the
        // same.
        repository.push("developer", "main", Map.of("README", "one more"));
        Await.until("the push ran", () -> status("crowded", 2).equals("passed"));
        Duration crowded = Duration.ofNanos(System.nanoTime() - began);
        Await.until("all is told", () -> {
            String events = park.as("developer").get("/api/v1/components/crowded/events").body().toString();
            return events.contains("500 new branches, such as ") && events.contains("10,000 new tags, such as ");
        });
        began = System.nanoTime();
        repository.push("developer", "main", Map.of("README", "and another"));
        Await.until("the push ran", () -> status("crowded", 3).equals("passed"));
        Duration again = Duration.ofNanos(System.nanoTime() - began);
        assertTrue(again.compareTo(crowded) < 0, "the push that brought them: " + crowded + ", the next: " + again);
    }

    /** Whatever was there in between, the last one counts, and nobody else waits. */
    @Test
    void aFileThatChangesAHundredTimesASecondEndsAtItsLast() throws Exception {
        Repository restless = brought("restless", "true");
        Repository calm = brought("calm", "true");
        Await.until("both ran", () -> status("restless", 1).equals("passed") && status("calm", 1).equals("passed"));
        String file = "paseo: 1\ncomponent: restless\nversions: \"1.{serial}\"\nstarts: [{push: [main]}]\nstages: "
                + "{look-%d: {steps: ['true']}}\n";
        List<String> commits = new ArrayList<>();
        for (int at = 0; at < 200; at++) {
            Files.writeString(restless.work().resolve("paseo.yaml"), file.formatted(at));
            restless.git("commit", "-q", "-a", "-m", "Change " + at);
            commits.add(restless.head());
        }
        restless.git("push", "-q", "origin", "HEAD:refs/heads/kept");
        AtomicBoolean over = new AtomicBoolean();
        Thread noise = Thread.ofPlatform().start(() -> {
            while (!over.get()) {
                park.as("release-engineer").post("/api/v1/components/restless/look", Map.of());
            }
        });
        Process updates = new ProcessBuilder("git", "update-ref", "--stdin")
                .directory(Path.of(restless.url().substring("file://".length())).toFile())
                .redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
        Thread pushes = Thread.ofPlatform().start(() -> {
            try (var in = updates.getOutputStream()) {
                for (String commit : commits) {
                    in.write(("start\nupdate refs/heads/main " + commit + "\ncommit\n")
                            .getBytes(StandardCharsets.US_ASCII));
                    in.flush();
                    LockSupport.parkNanos(10_000_000);
                }
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        });
        calm.push("developer", "main", Map.of("README", "calm"));
        Await.until("the calm one starts meanwhile", () -> park.run("calm", 2).path("run").has("status"));
        pushes.join();
        assertEquals(0, updates.waitFor());
        Await.until("the last one is in force", () -> park.as("developer").get("/api/v1/components/restless/pipeline")
                .body().path("text").asString("").contains("look-199"));
        over.set(true);
        noise.join();
        Await.until("a run of the last one passed",
                () -> StreamSupport
                        .stream(park.as("developer").get("/api/v1/runs?component=restless").body().path("runs")
                                .spliterator(),
                                false)
                        .anyMatch(run -> run.path("commit").asString("").equals(commits.getLast())
                                && run.path("status").asString("").equals("passed")));
    }

    /**
     * Names with a line end, of 255 bytes, that differ by case or by Unicode form alone; a submodule; a pointer to a
     * large file.
     */
    @Test
    void oddNamesAreCheckedOutAsTheyAre() throws Exception {
        Repository repository = brought("oddly",
                "test -f \"$(printf 'line\\nend')\"\ntest \"$(cat Case case CASE | tr -d '\\n')\" = 123\ntest "
                        + "\"$(ls | grep -c '^caf')\" = 2\n"
                        + "test -d sub && test -z \"$(ls -A sub)\"\ngrep -q git-lfs large.bin\ntest -f "
                        + "n".repeat(255) + "\ntest \"$(readlink link)\" = ../../etc/passwd");
        Path work = repository.work();
        for (Map.Entry<String, String> file : Map
                .of("line\nend", "x", "Case", "1", "case", "2", "CASE", "3", "caf\u00e9", "x", "cafe\u0301", "x",
                        "n".repeat(255), "x",
                        "large.bin",
                        "version https://git-lfs.github.com/spec/v1\noid sha256:" + "0".repeat(64) + "\nsize 12345\n")
                .entrySet()) {
            Files.writeString(work.resolve(file.getKey()), file.getValue() + "\n");
        }
        Files.createSymbolicLink(work.resolve("link"), Path.of("../../etc/passwd"));
        repository.git("update-index", "--add", "--cacheinfo", "160000," + repository.head() + ",sub");
        repository.git("add", "--", ".");
        repository.git("commit", "-q", "-m", "Odd names");
        repository.git("push", "-q", "origin", "main");
        Await.until("the run has ended", () -> !park.run("oddly", 2).path("run").path("endedAt").isMissingNode());
        assertEquals("passed", status("oddly", 2), () -> park.run("oddly", 2).toString());
    }

    /** A name that is no UTF-8 cannot be one of a Java program's files: it is told, and nothing hangs. */
    @Test
    void aNameInLatin1FailsTheStageAndIsTold() throws Exception {
        Repository repository = brought("latin", "true");
        Await.until("the first run passed", () -> status("latin", 1).equals("passed"));
        String blob = repository.git("hash-object", "-w", "paseo.yaml").strip();
        ByteArrayOutputStream index = new ByteArrayOutputStream();
        index.writeBytes(("100644 " + blob + "\tcaf").getBytes(StandardCharsets.US_ASCII));
        index.write(0xe9);
        index.write(0);
        feed(repository.work(), index.toByteArray(), "git", "update-index", "-z", "--index-info");
        repository.git("commit", "-q", "-m", "A name in Latin-1");
        repository.git("push", "-q", "origin", "main");
        Await.until("the run has ended", () -> status("latin", 2).equals("failed"));
        assertTrue(park.run("latin", 2).path("stages").path(0).path("reason").asString("")
                .startsWith("while fetching its files: the archive holds caf"), () -> park.run("latin", 2).toString());
        repository.git("reset", "-q", "--hard", "HEAD^");
        repository.git("commit", "-q", "--allow-empty", "-m", "Well again");
        repository.git("push", "-q", "-f", "origin", "main");
        Await.until("the next one passes", () -> status("latin", 3).equals("passed"));
    }

    @Test
    void threeHundredMegabytesInOneCommitAreCarriedThrough() throws Exception {
        Repository repository = brought("heavy", "true");
        Await.until("the first run passed", () -> status("heavy", 1).equals("passed"));
        byte[] block = new byte[1 << 20];
        try (var out = Files.newOutputStream(repository.work().resolve("large.bin"))) {
            for (int at = 0; at < 300; at++) {
                Arrays.fill(block, (byte) at);
                out.write(block);
            }
        }
        repository.push("developer", "main", Map.of("README", "heavy"));
        Await.until("the run passed", () -> status("heavy", 2).equals("passed"));
    }
}
