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
