package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * All processes that carry a mark in their environment: a step's children keep it, also those that left its session.
 */
final class ProcessTree {

    /**
     * Where {@code stat} tells a process's parent, flags and beginning, counted from its state, and which flag the
     * kernel's own threads have; see proc(5).
     */
    private static final int PARENT = 1;
    private static final int FLAGS = 6;
    private static final int BEGAN = 19;
    private static final long KERNEL_THREAD = 0x0020_0000;

    /**
     * A process that is just becoming another program shows no environment for a moment: so long it is looked at again.
     */
    private static final long UNDECIDED_MILLIS = 200;

    /** The program that holds a step's namespaces. */
    private static final String NAMESPACE = "bwrap";

    private ProcessTree() {}

    static boolean carries(long pid, String mark) {
        return look(Path.of("/proc", Long.toString(pid)), mark.getBytes(StandardCharsets.UTF_8)) == Shown.CARRIES;
    }

    /** What a process shows of the mark. */
    private enum Shown {
        CARRIES, CARRIES_NOT,
        /** It shows no environment, or not all of it: it is between two programs, or was given none. */
        NOTHING
    }

    private static Shown look(Path process, byte[] mark) {
        try {
            byte[] environment = Files.readAllBytes(process.resolve("environ"));
            if (has(environment, mark)) {
                return Shown.CARRIES;
            }
            // While a program is becoming another, the first signs of it alone may be shown.
            if (environment.length > 0 && environment[environment.length - 1] == 0) {
                return Shown.CARRIES_NOT;
            }
        } catch (IOException goneOrBetweenTwo) {
            // Between two programs the kernel may also refuse to show it. Its state tells.
        }
        return mayBeOurs(process, mark) ? Shown.NOTHING : Shown.CARRIES_NOT;
    }

    private static boolean has(byte[] environment, byte[] mark) {
        for (int at = 0; at + mark.length < environment.length; at++) {
            if ((at == 0 || environment[at - 1] == 0) && environment[at + mark.length] == 0
                    && matches(environment, at, mark)) {
                return true;
            }
        }
        return false;
    }

    private static boolean matches(byte[] text, int at, byte[] mark) {
        for (int i = 0; i < mark.length; i++) {
            if (text[at + i] != mark[i]) {
                return false;
            }
        }
        return true;
    }

    /**
     * The kernel's own threads and the dead are not, nor what began before this agent, nor the child of something that
     * is not ours.
     */
    private static boolean mayBeOurs(Path process, byte[] mark) {
        try {
            String[] fields = stat(process);
            boolean ofTheKernel = (Long.parseLong(fields[FLAGS]) & KERNEL_THREAD) != 0;
            boolean dead = fields[0].equals("Z") || fields[0].equals("X");
            return !ofTheKernel && !dead
                    && Long.parseLong(fields[BEGAN]) >= Long.parseLong(stat(Path.of("/proc/self"))[BEGAN])
                    && ofOursOrNobody(fields[PARENT], mark);
        } catch (IOException gone) {
            return false;
        }
    }

    /** Whose parent has died belongs to the first process, or to the one that stands in for it in a session. */
    private static boolean ofOursOrNobody(String parent, byte[] mark) throws IOException {
        Path process = Path.of("/proc", parent);
        return parent.equals("1") || Files.readString(process.resolve("comm")).startsWith("systemd")
                || look(process, mark) != Shown.CARRIES_NOT;
    }

    /** What {@code stat} tells from a process's state on; its name before may have any characters. */
    private static String[] stat(Path process) throws IOException {
        String stat = Files.readString(process.resolve("stat"));
        return stat.substring(stat.lastIndexOf(')') + 2).split(" ");
    }

    private static Map<Shown, List<ProcessHandle>> looked(String mark) {
        byte[] bytes = mark.getBytes(StandardCharsets.UTF_8);
        Map<Shown, List<ProcessHandle>> looked = new EnumMap<>(Shown.class);
        try (Stream<Path> processes = Files.list(Path.of("/proc"))) {
            processes.filter(path -> Character.isDigit(path.getFileName().toString().charAt(0))).forEach(path -> {
                Shown shown = look(path, bytes);
                if (shown != Shown.CARRIES_NOT) {
                    ProcessHandle.of(Long.parseLong(path.getFileName().toString())).filter(ProcessHandle::isAlive)
                            .ifPresent(process -> looked.computeIfAbsent(shown, key -> new ArrayList<>()).add(process));
                }
            });
        } catch (IOException unreadable) {
            throw new IllegalStateException("/proc cannot be read: processes of steps cannot be ended", unreadable);
        }
        return looked;
    }

    /** What a process and all that it started take now; {@code memory} is in bytes. */
    record Taken(int processes, long memory) {

        static final Taken NOTHING = new Taken(0, 0);
    }

    /** @param most where there are more processes, their memory is not looked at: they multiply meanwhile */
    static Taken taken(ProcessHandle root, int most) {
        List<ProcessHandle> all = Stream.concat(Stream.of(root), root.descendants()).toList();
        return new Taken(all.size(),
                all.size() > most ? 0 : all.stream().mapToLong(process -> resident(process.pid())).sum());
    }

    private static long resident(long pid) {
        try (Stream<String> lines = Files.lines(Path.of("/proc", Long.toString(pid), "status"))) {
            return lines.filter(line -> line.startsWith("VmRSS:")).findFirst()
                    .map(line -> Long.parseLong(line.replaceAll("[^0-9]", "")) * 1024).orElse(0L);
        } catch (IOException | java.io.UncheckedIOException gone) {
            return 0;
        }
    }

    /**
     * TERM, then, after the grace period, KILL, until none is left. The programs that were ended.
     *
     * @param root what started them, where it is there: those below it are ended also where they do not carry the mark
     */
    static List<String> end(String mark, Optional<ProcessHandle> root, long graceMillis) throws InterruptedException {
        long until = System.nanoTime() + graceMillis * 1_000_000;
        boolean termed = false;
        Map<Long, String> ended = new LinkedHashMap<>();
        if (graceMillis == 0) {
            root.ifPresent(started -> started.children().forEach(ProcessHandle::destroyForcibly));
        }
        List<ProcessHandle> left = alive(mark, root);
        while (!left.isEmpty()) {
            left.forEach(process -> ended.merge(process.pid(), name(process),
                    (before, now) -> now.equals("a process") ? before : now));
            boolean kill = System.nanoTime() >= until;
            if (kill) {
                // A namespace ends as a whole with what holds it, however fast its processes multiply.
                root.ifPresent(started -> started.children().forEach(ProcessHandle::destroyForcibly));
                left.forEach(ProcessHandle::destroyForcibly);
            } else if (!termed) {
                // What holds a namespace would end all that is in it at once: it ends with the last of them.
                left.stream().filter(process -> !name(process).equals(NAMESPACE)).forEach(ProcessHandle::destroy);
                termed = true;
            }
            Thread.sleep(kill ? 5 : 50);
            left = alive(mark, root);
        }
        return ended.values().stream().filter(name -> !name.equals(NAMESPACE)).toList();
    }

    private static List<ProcessHandle> alive(String mark, Optional<ProcessHandle> root) throws InterruptedException {
        Map<Long, ProcessHandle> all = new LinkedHashMap<>();
        root.stream().flatMap(ProcessHandle::descendants).filter(ProcessHandle::isAlive)
                .forEach(process -> all.put(process.pid(), process));
        alive(mark).forEach(process -> all.put(process.pid(), process));
        return List.copyOf(all.values());
    }

    /** Those that carry the mark; empty only where no process goes on showing nothing of itself. */
    private static List<ProcessHandle> alive(String mark) throws InterruptedException {
        long until = System.nanoTime() + UNDECIDED_MILLIS * 1_000_000;
        for (long pause = 1;; pause *= 2) {
            Map<Shown, List<ProcessHandle>> looked = looked(mark);
            List<ProcessHandle> found = looked.getOrDefault(Shown.CARRIES, List.of());
            if (!found.isEmpty() || !looked.containsKey(Shown.NOTHING) || System.nanoTime() > until) {
                return found;
            }
            Thread.sleep(pause);
        }
    }

    private static String name(ProcessHandle process) {
        return process.info().command().map(command -> Path.of(command).getFileName().toString()).orElse("a process");
    }
}
