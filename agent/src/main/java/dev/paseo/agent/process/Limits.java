package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import java.util.Optional;

/**
 * How much one try of a step may take. What is looked at now and then may be passed for about a quarter of a second.
 *
 * @param output    bytes that it may say
 * @param memory    bytes that its processes may hold together
 * @param processes how many it may have at once
 */
public record Limits(long output, long memory, int processes) {

    /** How much output of one try of a step is kept, in bytes: 1 GB. */
    public static final long MOST_OUTPUT = 1_000_000_000;
    public static final int MOST_PROCESSES = 4000;
    /** So much of a disk is left free, in bytes: 1 GB, or half of what was free where that is less. */
    static final long SPARE_DISK = 1_000_000_000;
    private static final double SHARE_OF_MEMORY = 0.9;

    /** Nine tenths of the machine's memory, unless it is said otherwise. */
    public static Limits usual() {
        return new Limits(MOST_OUTPUT, (long) (machineMemory() * SHARE_OF_MEMORY), MOST_PROCESSES);
    }

    private static long machineMemory() {
        return ((com.sun.management.OperatingSystemMXBean) java.lang.management.ManagementFactory
                .getOperatingSystemMXBean()).getTotalMemorySize();
    }

    public String saidTooMuch() {
        return "said more than " + megabytes(output) + " MB, which is the most that is kept of a step";
    }

    /** What its processes take too much of; empty where it is within the limits. */
    Optional<String> passedBy(ProcessTree.Taken taken) {
        if (taken.processes() > processes) {
            return Optional.of(
                    "had more than " + processes + " processes at once, which is the most that a step may have here");
        }
        return taken.memory() > memory ? Optional
                .of("used more than " + megabytes(memory) + " MB of memory, which is the most that a step may use here")
                : Optional.empty();
    }

    private static long megabytes(long bytes) {
        return bytes / 1_000_000;
    }

    /** The disk that a step writes to, as it was when the step began. */
    static final class Disk {

        private final List<Path> own;
        private final long spare;
        private final long enough;

        /** @param own what counts as written by the step; the first of them tells which disk it is */
        Disk(List<Path> own) {
            this.own = own;
            long free = free();
            this.spare = Math.min(SPARE_DISK, free / 2);
            this.enough = (free - spare) / 2;
        }

        private long free() {
            return own.getFirst().toFile().getUsableSpace();
        }

        /** That the disk is nearly full, where at least half of what has filled it is the step's. */
        Optional<String> filled() throws IOException {
            long left = free();
            if (left >= spare) {
                return Optional.empty();
            }
            long written = 0;
            for (Path tree : own) {
                written += size(tree);
            }
            return written < enough ? Optional.empty()
                    : Optional.of("has written " + megabytes(written) + " MB, and the agent's disk has only "
                            + megabytes(left) + " MB left");
        }

        private static long size(Path tree) throws IOException {
            long[] bytes = {0};
            if (Files.exists(tree)) {
                Files.walkFileTree(tree, new SimpleFileVisitor<>() {
                    @Override
                    public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                        bytes[0] += attributes.size();
                        return FileVisitResult.CONTINUE;
                    }

                    @Override
                    public FileVisitResult visitFileFailed(Path file, IOException gone) {
                        return FileVisitResult.CONTINUE;
                    }
                });
            }
            return bytes[0];
        }
    }
}
