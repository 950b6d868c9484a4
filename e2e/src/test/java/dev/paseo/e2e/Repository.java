package dev.paseo.e2e;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;

/** A real bare git repository and a checkout of it. */
final class Repository {

    private final Path bare;
    private final Path work;

    Repository(Path folder, String name) throws IOException, InterruptedException {
        this.bare = folder.resolve(name + ".git");
        this.work = folder.resolve(name + "-work");
        Files.createDirectories(folder);
        run(folder, List.of("git", "init", "-q", "--bare", "--initial-branch=main", bare.toString()));
        run(folder, List.of("git", "clone", "-q", bare.toString(), work.toString()));
    }

    String url() {
        return "file://" + bare;
    }

    void hook(String script) throws IOException {
        hook("post-receive", script);
    }

    /** One of git's own hooks, such as {@code update}. */
    void hook(String name, String script) throws IOException {
        Path file = bare.resolve("hooks").resolve(name);
        Files.writeString(file, script);
        file.toFile().setExecutable(true);
    }

    /** Commits these files as somebody and pushes them; what the hook said. */
    String push(String author, String branch, Map<String, String> files) throws IOException, InterruptedException {
        return push(author, branch, files, author + "@park.example");
    }

    /** @param pusher whom the hook tells; empty: it tells nobody */
    String push(String author, String branch, Map<String, String> files, String pusher)
            throws IOException, InterruptedException {
        checkOut(branch);
        for (Map.Entry<String, String> file : files.entrySet()) {
            Path path = work.resolve(file.getKey());
            Files.createDirectories(path.getParent());
            Files.writeString(path, file.getValue());
            path.toFile().setExecutable(file.getKey().endsWith(".sh"));
        }
        run(work, List.of("git", "add", "-A"));
        run(work,
                List.of("git", "-c", "user.name=" + author, "-c", "user.email=" + author + "@park.example", "commit",
                        "-q", "--allow-empty",
                        "-m", "Change " + String.join(", ", files.keySet())));
        return run(work, List.of("git", "push", "origin", branch), pusher);
    }

    /** A branch that is new begins at main. */
    private void checkOut(String branch) throws IOException, InterruptedException {
        boolean known = !run(work, List.of("git", "branch", "--list", branch)).isBlank();
        boolean empty = run(work, List.of("git", "branch", "--list", "main")).isBlank();
        if (known) {
            run(work, List.of("git", "checkout", "-q", "-f", branch));
        } else if (empty) {
            run(work, List.of("git", "checkout", "-q", "-B", branch));
        } else {
            run(work, List.of("git", "checkout", "-q", "-f", "-b", branch, "main"));
        }
    }

    /** Tags the commit that is checked out, and pushes the tag. */
    void tag(String name) throws IOException, InterruptedException {
        run(work, List.of("git", "tag", name));
        run(work, List.of("git", "push", "-q", "origin", name));
    }

    /** Takes what others have pushed to main. */
    void pull() throws IOException, InterruptedException {
        run(work, List.of("git", "pull", "-q", "--ff-only", "origin", "main"));
    }

    /** Where it is checked out. */
    Path work() {
        return work;
    }

    /** Any git command in the checkout; what it said. */
    String git(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(
                List.of("git", "-c", "user.name=developer", "-c", "user.email=developer@park.example"));
        command.addAll(List.of(arguments));
        return run(work, command);
    }

    /** Sets a ref of the repository itself, whatever it is called; no commit removes it. */
    void raw(String ref, String commit) throws IOException, InterruptedException {
        run(bare,
                commit.isEmpty() ? List.of("git", "update-ref", "-d", ref) : List.of("git", "update-ref", ref, commit));
    }

    /** Makes commits, each on top of the one before, that no branch has yet. */
    List<String> commits(int count) throws IOException, InterruptedException {
        StringBuilder stream = new StringBuilder();
        for (int at = 0; at < count; at++) {
            stream.append("commit refs/made/up\nmark :").append(at + 1)
                    .append("\ncommitter developer <developer@park.example> ").append(1_760_000_000 + at)
                    .append(" +0000\ndata 2\nx\n").append(at == 0 ? "from refs/heads/main^0\n" : "");
        }
        Path marks = bare.resolve("made-up");
        Process process = new ProcessBuilder("git", "fast-import", "--quiet", "--export-marks=" + marks)
                .directory(bare.toFile()).redirectErrorStream(true).start();
        try (var in = process.getOutputStream()) {
            in.write(stream.toString().getBytes(StandardCharsets.UTF_8));
        }
        process.getInputStream().readAllBytes();
        process.waitFor();
        List<String> commits = new ArrayList<>(Collections.nCopies(count, ""));
        Files.readAllLines(marks)
                .forEach(line -> commits.set(Integer.parseInt(line.substring(1, line.indexOf(' '))) - 1,
                        line.substring(line.indexOf(' ') + 1)));
        return commits;
    }

    /** A bare copy of it beside it. */
    void copy(String name) throws IOException, InterruptedException {
        run(bare.getParent(), List.of("git", "clone", "-q", "--bare", bare.toString(),
                bare.resolveSibling(name + ".git").toString()));
    }

    String head() throws IOException, InterruptedException {
        return run(work, List.of("git", "rev-parse", "HEAD")).strip();
    }

    private static String run(Path folder, List<String> command) throws IOException, InterruptedException {
        return run(folder, command, "developer@park.example");
    }

    private static String run(Path folder, List<String> command, String pusher)
            throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder(new ArrayList<>(command)).directory(folder.toFile())
                .redirectErrorStream(true);
        builder.environment().put("GIT_CONFIG_GLOBAL", "/dev/null");
        builder.environment().put("PASEO_PUSHER", pusher);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IllegalStateException(String.join(" ", command) + ": " + said);
        }
        return said;
    }
}
