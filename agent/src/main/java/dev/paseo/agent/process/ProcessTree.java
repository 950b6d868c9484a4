package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** All processes that carry a mark in their environment: a step's children keep it, also those that left its session. */
final class ProcessTree {

    private ProcessTree() {}

    static boolean carries(long pid, String mark) {
        return carries(Path.of("/proc", Long.toString(pid)), mark.getBytes(StandardCharsets.UTF_8));
    }

    private static boolean carries(Path process, byte[] mark) {
        try {
            byte[] environment = Files.readAllBytes(process.resolve("environ"));
            for (int at = 0; at + mark.length < environment.length; at++) {
                if ((at == 0 || environment[at - 1] == 0) && environment[at + mark.length] == 0 && matches(environment, at, mark)) {
                    return true;
                }
            }
            return false;
        } catch (IOException goneOrNotOurs) {
            return false;
        }
    }

    private static boolean matches(byte[] text, int at, byte[] mark) {
        for (int i = 0; i < mark.length; i++) {
            if (text[at + i] != mark[i]) {
                return false;
            }
        }
        return true;
    }

    private static List<ProcessHandle> carrying(String mark) {
        byte[] bytes = mark.getBytes(StandardCharsets.UTF_8);
        List<ProcessHandle> found = new ArrayList<>();
        try (Stream<Path> processes = Files.list(Path.of("/proc"))) {
            processes.filter(path -> Character.isDigit(path.getFileName().toString().charAt(0)))
                    .filter(path -> carries(path, bytes))
                    .map(path -> ProcessHandle.of(Long.parseLong(path.getFileName().toString())))
                    .flatMap(Optional::stream).forEach(found::add);
        } catch (IOException unreadable) {
            throw new IllegalStateException("/proc cannot be read: processes of steps cannot be ended", unreadable);
        }
        return found;
    }

    /** What a process and all that it started hold in memory now, in bytes. */
    static long memory(ProcessHandle root) {
        return Stream.concat(Stream.of(root), root.descendants()).mapToLong(process -> resident(process.pid())).sum();
    }

    private static long resident(long pid) {
        try (Stream<String> lines = Files.lines(Path.of("/proc", Long.toString(pid), "status"))) {
            return lines.filter(line -> line.startsWith("VmRSS:")).findFirst()
                    .map(line -> Long.parseLong(line.replaceAll("[^0-9]", "")) * 1024).orElse(0L);
        } catch (IOException | java.io.UncheckedIOException gone) {
            return 0;
        }
    }

    /** TERM, then, after the grace period, KILL, until none is left. */
    static void end(String mark, long graceMillis) throws InterruptedException {
        long until = System.nanoTime() + graceMillis * 1_000_000;
        boolean termed = false;
        List<ProcessHandle> left = carrying(mark);
        while (!left.isEmpty()) {
            boolean kill = System.nanoTime() >= until;
            if (kill) {
                left.forEach(ProcessHandle::destroyForcibly);
            } else if (!termed) {
                left.forEach(ProcessHandle::destroy);
                termed = true;
            }
            Thread.sleep(kill ? 5 : 50);
            left = carrying(mark).stream().filter(ProcessHandle::isAlive).toList();
        }
    }
}
