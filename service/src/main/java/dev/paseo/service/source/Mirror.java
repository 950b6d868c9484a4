package dev.paseo.service.source;

import dev.paseo.core.text.Size;
import dev.paseo.service.problem.Refusal;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;

/** Our own bare copy of one repository. */
public final class Mirror {

    /**
     * A commit, as far as people look at it.
     *
     * @param tag the nearest tag at or before it, where it was asked for alone
     */
    public record Commit(String id, String summary, String author, String address, Instant at, Optional<String> tag) {}

    /** A pattern matches none of the commit's files. */
    public static final class NoSuchFiles extends RuntimeException {
        NoSuchFiles(String message) {
            super(message);
        }
    }

    /** A file of a commit that is larger than is read. */
    public static final class TooLarge extends RuntimeException {
        TooLarge(String path, long size, long most) {
            super(path + " has " + size + " bytes; at most " + Size.words(most) + " are read");
        }
    }

    /** The most bytes of a commit's file that are read; git is asked for its size first. */
    public static final long LARGEST_FILE = 1_000_000;
    /** The most of a commit's summary, and of its author, that is kept. */
    private static final int LONGEST_SUMMARY = 400;
    private static final int LONGEST_AUTHOR = 200;
    private static final int FIELDS = 6;
    private static final long LAST_SECOND = Instant.parse("9999-12-31T23:59:59Z").getEpochSecond();

    /** How long a repository may take to hand over what is new. */
    private static final Duration FETCH = Duration.ofMinutes(2);
    /** How long it may take to say where its branches are. */
    private static final Duration LISTING = Duration.ofSeconds(30);

    private final Path folder;
    private final String repository;
    private final Supplier<SourceAccess> credentials;
    private final Supplier<Optional<String>> pinned;
    /** One for each folder: where a repository was moved, the mirror before it may still be fetching into it. */
    private static final Map<Path, ReentrantLock> FETCHING = new ConcurrentHashMap<>();

    private final ReentrantLock fetching;

    /**
     * @param pinned refuses where the repository may not be asked, at this moment; else the addresses its host stands
     * for, as git takes them
     */
    Mirror(Path folder, String repository, Supplier<SourceAccess> credentials, Supplier<Optional<String>> pinned) {
        this.folder = folder;
        this.repository = repository;
        this.credentials = credentials;
        this.pinned = pinned;
        this.fetching = FETCHING.computeIfAbsent(folder, any -> new ReentrantLock());
    }

    boolean isOf(String address) {
        return repository.equals(address);
    }

    private static Refusal away(RuntimeException failed) {
        return Refusal.unavailable("The repository is unreachable or rejects the credentials: " + failed.getMessage());
    }

    /** What the repository says about all its branches and tags, asked of it and not of the mirror. */
    public String listing() {
        Optional<String> addresses = pinned.get();
        try {
            return repository.startsWith("file://")
                    ? new String(Git.run(Path.of(URI.create(repository)),
                            List.of("for-each-ref", "--format=%(objectname) %(refname)", "refs/heads", "refs/tags"),
                            Map.of(), LISTING), StandardCharsets.UTF_8)
                    : credentials.get().with(addresses,
                            environment -> new String(Git.run(Path.of("/"),
                                    List.of("ls-remote", "--refs", "--heads", "--tags", repository),
                                    environment, LISTING), StandardCharsets.UTF_8));
        } catch (Git.Failed | UncheckedIOException failed) {
            throw away(failed);
        }
    }

    /** Brings it up to date. Other replicas on this folder wait meanwhile. */
    public void fetch() {
        fetching.lock();
        try {
            Files.createDirectories(folder.getParent());
            Path lock = folder.resolveSibling(folder.getFileName() + ".lock");
            try (FileChannel channel = FileChannel.open(lock, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock held = channel.lock()) {
                if (!Files.exists(folder.resolve("HEAD"))) {
                    Git.run(folder.getParent(), List.of("init", "-q", "--bare", folder.toString()));
                }
                credentials.get().with(pinned.get(),
                        environment -> Git.run(folder,
                                List.of("fetch", "-q", "--prune", "--no-write-fetch-head", "--force", "--no-tags",
                                        repository, "+refs/heads/*:refs/heads/*", "+refs/tags/*:refs/tags/*"),
                                environment, FETCH));
            }
        } catch (Git.Failed failed) {
            throw away(failed);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } finally {
            fetching.unlock();
        }
    }

    /** Puts all refs into one file, after many have come: one file for each makes every later look slow. */
    public void pack() {
        Git.run(folder, List.of("pack-refs", "--all"));
    }

    /**
     * Where the branches and the tags are.
     *
     * @param tags to the commit; of an annotated tag the one that it is put on
     */
    public record Refs(Map<String, String> heads, Map<String, String> tags) {}

    public Refs refs() {
        Refs refs = new Refs(new LinkedHashMap<>(), new LinkedHashMap<>());
        for (String line : Git.text(folder,
                List.of("for-each-ref", "--format=%(objectname) %(*objectname) %(refname)", "refs/heads", "refs/tags"))
                .split("\n")) {
            String[] parts = line.split(" ", 3);
            if (parts.length == 3 && parts[2].startsWith("refs/heads/")) {
                refs.heads().put(parts[2].substring("refs/heads/".length()), parts[0]);
            } else if (parts.length == 3) {
                refs.tags().put(parts[2].substring("refs/tags/".length()), parts[1].isEmpty() ? parts[0] : parts[1]);
            }
        }
        return refs;
    }

    /** Branch to commit. */
    public Map<String, String> heads() {
        return refs().heads();
    }

    /** The branches that hold a commit. */
    public List<String> branchesWith(String commit) {
        return Git.text(folder, List.of("for-each-ref", "--contains=" + commit, "--format=%(refname)", "refs/heads"))
                .lines()
                .map(line -> line.substring("refs/heads/".length())).toList();
    }

    /** The paths that differ between two commits, at most this many. */
    public List<String> changed(String from, String to, int most) {
        return Arrays
                .stream(Git.text(folder, List.of("diff", "--name-only", "--no-renames", "-z", from, to)).split("\0"))
                .filter(path -> !path.isEmpty()).limit(most).toList();
    }

    /** Whether one commit is in the history of another. */
    public boolean precedes(String earlier, String later) {
        try {
            Git.run(folder, List.of("merge-base", "--is-ancestor", earlier, later));
            return true;
        } catch (Git.Failed failed) {
            if (failed.exit() != 1) {
                throw away(failed);
            }
            return false;
        }
    }

    /**
     * A file's text at a commit; empty where there is none. That git failed is no answer: it is thrown, and asked
     * again.
     *
     * @throws TooLarge where it has more than {@link #LARGEST_FILE} bytes; none of them is read then
     */
    public Optional<String> file(String commit, String path) {
        try {
            Optional<String> entry = Optional
                    .of(Git.text(folder,
                            List.of("--literal-pathspecs", "ls-tree", "-z", "-l", "--full-tree", commit, "--", path)))
                    .filter(found -> found.contains(" blob "));
            if (entry.isEmpty()) {
                return Optional.empty();
            }
            // Mode, type, object and size stand before the tab.
            String[] parts = entry.get().substring(0, entry.get().indexOf('\t')).split(" +");
            if (parts[3].equals("BAD")) {
                throw new Git.Failed("git has not the bytes of " + path + " at " + commit);
            }
            long size = Long.parseLong(parts[3]);
            if (size > LARGEST_FILE) {
                throw new TooLarge(path, size, LARGEST_FILE);
            }
            return Optional.of(Git.text(folder, List.of("cat-file", "blob", parts[2])));
        } catch (Git.Failed failed) {
            throw away(failed);
        }
    }

    public Commit commit(String id) {
        return log(List.of("-1", id), "").getFirst();
    }

    /** The commit with the tag that is nearest to it, which takes the longer to find the more tags there are. */
    public Commit tagged(String id) {
        return log(List.of("-1", id), "%(describe:tags=true,abbrev=0)").getFirst();
    }

    /**
     * The commits that {@code to} has and {@code from} has not, the newest first; {@code from} empty: all, at most
     * {@code most}.
     */
    public List<Commit> between(Optional<String> from, String to, int most) {
        List<String> range = new ArrayList<>(List.of("-" + most, to));
        from.ifPresent(commit -> range.add("^" + commit));
        return log(range, "");
    }

    /** How many commits {@code to} has and {@code from} has not. */
    public int distance(String from, String to) {
        return Integer.parseInt(Git.text(folder, List.of("rev-list", "--count", to, "^" + from, "--")).strip());
    }

    /** Fields and commits end with NUL, which none of them can have; a date is what is left of it. */
    private List<Commit> log(List<String> range, String tag) {
        List<String> arguments = new ArrayList<>(List.of("log", "-z", "--no-color", "--encoding=UTF-8",
                "--format=%H%x00%s%x00%an%x00%ae%x00%ct%x00" + tag));
        arguments.addAll(range);
        arguments.add("--");
        String[] parts = Git.text(folder, arguments).split("\0", -1);
        List<Commit> commits = new ArrayList<>();
        for (int at = 0; at + FIELDS <= parts.length; at += FIELDS) {
            commits.add(new Commit(parts[at], line(parts[at + 1], LONGEST_SUMMARY), line(parts[at + 2], LONGEST_AUTHOR),
                    line(parts[at + 3], LONGEST_AUTHOR), moment(parts[at + 4]),
                    Optional.of(parts[at + 5]).filter(name -> !name.isBlank())));
        }
        return commits;
    }

    /** As one line without characters that steer a terminal, cut where it is too long. */
    static String line(String text, int most) {
        String plain = text.codePoints().map(each -> Character.isISOControl(each) ? ' ' : each)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append).toString().strip();
        return plain.codePointCount(0, plain.length()) > most
                ? plain.substring(0, plain.offsetByCodePoints(0, most - 1)) + "…" : plain;
    }

    /** Seconds since 1970, within what can be kept; what is no number is 1970. */
    static Instant moment(String seconds) {
        try {
            return Instant.ofEpochSecond(Math.clamp(Long.parseLong(seconds), 0, LAST_SECOND));
        } catch (NumberFormatException none) {
            return Instant.EPOCH;
        }
    }

    /** The addresses of the authors, committers and co-authors of these commits. */
    public Set<String> authors(Optional<String> from, String to) {
        List<String> arguments = new ArrayList<>(List.of("log",
                "--format=%ae%n%ce%n%(trailers:key=Co-authored-by,valueonly)", to));
        from.ifPresent(commit -> arguments.add("^" + commit));
        arguments.add("--");
        Set<String> addresses = new LinkedHashSet<>();
        for (String line : Git.text(folder, arguments).split("\n")) {
            int open = line.indexOf('<');
            String address = open >= 0 && line.indexOf('>', open) > 0
                    ? line.substring(open + 1, line.indexOf('>', open)) : line.strip();
            if (!address.isEmpty()) {
                addresses.add(address.toLowerCase(Locale.ROOT));
            }
        }
        return addresses;
    }

    /** The paths of a commit's files, at most this many. */
    public List<String> paths(String commit, int most) {
        return Arrays.stream(
                Git.text(folder, List.of("ls-tree", "-r", "-z", "--name-only", "--full-tree", commit)).split("\0"))
                .filter(path -> !path.isEmpty()).limit(most).toList();
    }

    /** Somebody who commits. */
    public record Author(String name, String address) {}

    /** The branch is no longer where it was, or the repository does not take the commit. */
    public static final class NotTaken extends RuntimeException {
        NotTaken(String message) {
            super(message);
        }
    }

    /**
     * Commits one file on top of a commit and pushes it to a branch of the repository; the new commit.
     *
     * @param base  where the branch must be; for a new branch, what it begins at
     * @param fresh whether the branch must not be there yet
     */
    public String commit(String branch, String base, boolean fresh, String path, String text, String message,
            Author author) {
        String commit = NewCommit.of(folder, base, path, text, message, author);
        push(branch, commit, fresh ? "" : base);
        return commit;
    }

    /** The same commit as a patch to be mailed or applied elsewhere; nothing is pushed. */
    public String patch(String base, String path, String text, String message, Author author) {
        return Git.text(folder,
                List.of("format-patch", "-1", "--stdout", NewCommit.of(folder, base, path, text, message, author)));
    }

    private void push(String branch, String commit, String expected) {
        try {
            credentials.get().with(pinned.get(),
                    environment -> Git.run(folder,
                            List.of("push", "-q", "--force-with-lease=refs/heads/" + branch + ":" + expected,
                                    repository, commit + ":refs/heads/" + branch),
                            environment, FETCH));
        } catch (Git.Failed refused) {
            throw new NotTaken(NewCommit.remoteWords(String.valueOf(refused.getMessage())));
        }
    }

    /** Keeps a commit from being collected when its branch goes away. */
    public void pin(String name, String commit) {
        Git.run(folder, List.of("update-ref", "refs/paseo/" + name, commit));
    }

    /**
     * Writes the commit's files as a tar archive; of {@code patterns} only those that match, each of which must match
     * something.
     */
    public void archive(String commit, List<String> patterns, OutputStream out) {
        List<String> arguments = new ArrayList<>(List.of("archive", "--format=tar", commit));
        if (!patterns.isEmpty()) {
            arguments.add("--");
            patterns.forEach(pattern -> arguments.add(":(glob)" + pattern));
        }
        try (Git.Streaming running = Git.stream(folder, arguments)) {
            running.output().transferTo(out);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (Git.Failed failed) {
            if (failed.getMessage().contains("did not match any files")) {
                throw new NoSuchFiles("one of " + String.join(", ", patterns) + " matches no file of the commit");
            }
            throw failed;
        }
    }

    /** Writes the commit's files, or those of one folder, as an archive whose bytes depend on the commit alone. */
    public void tree(String commit, Optional<String> of, OutputStream out) {
        of.filter(path -> Git.text(folder, List.of("ls-tree", "-d", "--full-tree", commit, "--", path)).isBlank())
                .ifPresent(path -> {
                    throw new NoSuchFiles("the commit has no folder " + path);
                });
        try (Git.Streaming running = Git.stream(folder,
                List.of("archive", "--format=tar", commit + of.map(path -> ":" + path).orElse("")))) {
            TreeArchive.write(running.output(), commit(commit).at(), out);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
