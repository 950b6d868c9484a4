package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;

/**
 * What is on disk about one piece of work, so that an agent that was killed can go on: the lease, whether the files are
 * in place, and a folder for each try of a step. Only the agent's own user can read it.
 */
public final class Spool {

    /** A deletion is tried so often, with pauses, while something still writes. */
    private static final int MOST_TRIES = 40;
    private static final Duration PAUSE = Duration.ofMillis(50);

    private static final Set<PosixFilePermission> OWN = PosixFilePermissions.fromString("rwx------");

    private final Path folder;

    private Spool(Path folder) {
        this.folder = folder;
    }

    public static Spool open(Path spools, long work) throws IOException {
        Path folder = spools.resolve("work-" + work);
        Files.createDirectories(folder, PosixFilePermissions.asFileAttribute(OWN));
        return new Spool(folder);
    }

    /** The spools of work that was not finished. */
    public static List<Spool> left(Path spools) throws IOException {
        if (!Files.isDirectory(spools)) {
            return List.of();
        }
        try (Stream<Path> folders = Files.list(spools)) {
            return folders.filter(folder -> folder.getFileName().toString().startsWith("work-")).sorted()
                    .map(Spool::new).toList();
        }
    }

    /** The work that it is about. */
    public long work() {
        return Long.parseLong(folder.getFileName().toString().substring("work-".length()));
    }

    public Path folder() {
        return folder;
    }

    public Path workspace() {
        return folder.resolve("workspace");
    }

    public Path artifacts() {
        return folder.resolve("artifacts");
    }

    /** The home that steps find, which is the work's own. */
    public Path home() {
        return folder.resolve("home");
    }

    /** What steps find as {@code /tmp}. */
    public Path temporary() {
        return folder.resolve("tmp");
    }

    /** What its steps write to, which is its own alone. */
    public List<Path> own() {
        return List.of(workspace(), home(), temporary());
    }

    public void keepLease(String token) throws IOException {
        write("lease", token);
    }

    public Optional<String> lease() throws IOException {
        return read("lease");
    }

    /** The files are in place. */
    public void prepared() throws IOException {
        write("prepared", "");
    }

    /** Nothing of it was begun yet. */
    public boolean isFresh() {
        return !isPrepared() && !Files.exists(words(true)) && !Files.exists(words(false));
    }

    public boolean isPrepared() {
        return Files.exists(folder.resolve("prepared"));
    }

    /** Removes what a preparation that was cut off has left. */
    public void clearFiles() throws IOException {
        for (Path own : List.of(workspace(), artifacts(), home(), temporary())) {
            delete(own);
            Files.createDirectories(own);
        }
    }

    /** The agent's own words, before the first step ({@code before}) or after the last. */
    public Path words(boolean before) {
        return folder.resolve(before ? "words-before" : "words-after");
    }

    /** @param tried counts from 1 */
    public Path step(int position, int tried) {
        return folder.resolve("step-" + position + (tried == 1 ? "" : "-try-" + tried));
    }

    /** For how long its files have been in place. */
    public Duration age() throws IOException {
        return Duration.between(Files.getLastModifiedTime(folder.resolve("prepared")).toInstant(), Instant.now());
    }

    /** For how long it has been this agent's. */
    public Duration held() throws IOException {
        return Duration.between(Files.getLastModifiedTime(folder.resolve("lease")).toInstant(), Instant.now());
    }

    private Optional<String> read(String name) throws IOException {
        Path file = folder.resolve(name);
        return Files.exists(file) ? Optional.of(Files.readString(file)) : Optional.empty();
    }

    private void write(String name, String text) throws IOException {
        Path fresh = folder.resolve(name + ".new");
        Files.writeString(fresh, text);
        Files.move(fresh, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /** Ends whatever steps of it are still running. */
    public void endProcesses() throws IOException, InterruptedException {
        try (Stream<Path> steps = Files.list(folder)) {
            for (Path step : steps.filter(path -> path.getFileName().toString().startsWith("step-")).toList()) {
                StepProcess.of(step).end(false);
            }
        }
    }

    public void delete() throws IOException {
        // The lease goes first, so that what is left of a deletion that was cut off is not taken for work.
        Files.deleteIfExists(folder.resolve("lease"));
        for (int tried = 1;; tried++) {
            try {
                delete(folder);
                return;
            } catch (DirectoryNotEmptyException late) {
                // What was stopped at once has written one more file meanwhile.
                if (tried == MOST_TRIES) {
                    throw late;
                }
                LockSupport.parkNanos(PAUSE.toNanos());
            }
        }
    }

    /** A step may leave folders that even their owner may not list or change. */
    private static void delete(Path tree) throws IOException {
        if (!Files.exists(tree, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        Files.walkFileTree(tree, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes attributes) throws IOException {
                if (!Files.isWritable(folder)) {
                    Files.setPosixFilePermissions(folder, OWN);
                }
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path path, IOException failed) throws IOException {
                if (failed instanceof NoSuchFileException) {
                    return FileVisitResult.CONTINUE;
                }
                if (!(failed instanceof AccessDeniedException) || !Files.isDirectory(path, LinkOption.NOFOLLOW_LINKS)) {
                    throw failed;
                }
                Files.setPosixFilePermissions(path, OWN);
                delete(path);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.deleteIfExists(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path folder, IOException failed) throws IOException {
                Files.deleteIfExists(folder);
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
