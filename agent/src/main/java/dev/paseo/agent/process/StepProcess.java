package dev.paseo.agent.process;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;

/**
 * One try of a step: a shell under a small wrapper in a session of its own, which spools its output and writes its exit
 * status to disk. It outlives the agent, which adopts it again.
 *
 * <p>The wrapper starts the step only if it is the one that creates the file {@code started}, so that a try is started
 * at most once, whatever happens around it.
 */
public final class StepProcess {

    private static final String WRAPPER = """
            cd "$2" || exit 1
            set -C
            { echo $$ >"$1/started"; } 2>/dev/null || exit 0
            set +C
            step=$1
            shift 2
            "$@" </dev/null >>"$step/output" 2>&1 3>"$step/left"
            echo $? >"$step/exit"
            """;
    static final String MARK = "PASEO_STEP_MARK";

    private static final int LOOKS_PER_SAMPLE = 10;
    private static final int MOST_LEFT_BYTES = 4096;
    private static final int MOST_LEFT_NAMES = 20;

    private final Path folder;
    private final String mark;
    private int looks;
    private List<String> leftRunning = List.of();
    private long peakMemory;

    private StepProcess(Path folder) {
        this.folder = folder;
        this.mark = MARK + "=" + folder;
    }

    /** How a try ended. */
    public sealed interface End {
        record Exited(int code) implements End {}

        record TimedOut() implements End {}

        record Stopped() implements End {}

        /** It took more than it may: {@code words} go on after the step's name, such as {@code said more than …}. */
        record TookTooMuch(String words) implements End {}

        /** It was started, and neither it nor its exit status is there. */
        record Unknown() implements End {}
    }

    /** The try in this folder, whatever became of it. */
    static StepProcess of(Path folder) {
        return new StepProcess(folder);
    }

    /**
     * Starts it, or adopts it where it was started before.
     *
     * @param box how its script is carried out
     */
    public static StepProcess start(Path folder, String command, Path workspace, Walls.Box box,
            Map<String, String> environment) throws IOException {
        StepProcess step = new StepProcess(folder);
        if (step.wasStarted()) {
            return step;
        }
        Files.createDirectories(folder);
        // Renamed into place: a wrapper that an earlier life of the agent started may be about to read it.
        Path script = Files.createTempFile(folder, "script", "");
        Files.writeString(script, command + "\n");
        // Its user may be another than the agent's; it lies where only the agent's own can reach it.
        Files.setPosixFilePermissions(script, PosixFilePermissions.fromString("rw-r--r--"));
        Files.move(script, folder.resolve("script"), StandardCopyOption.ATOMIC_MOVE,
                StandardCopyOption.REPLACE_EXISTING);
        ProcessBuilder builder = new ProcessBuilder(
                Stream.concat(Stream.of("setsid", "sh", "-c", WRAPPER, "step", folder.toString(), workspace.toString()),
                        box.command().stream()).toList());
        builder.environment().clear();
        builder.environment().putAll(environment);
        builder.environment().put(MARK, folder.toString());
        builder.redirectInput(ProcessBuilder.Redirect.from(Path.of("/dev/null").toFile()));
        builder.redirectOutput(ProcessBuilder.Redirect.DISCARD).redirectError(ProcessBuilder.Redirect.DISCARD);
        builder.start();
        return step;
    }

    public Path output() {
        return folder.resolve("output");
    }

    public boolean wasStarted() {
        return Files.exists(folder.resolve("started"));
    }

    /**
     * Waits until it ends, at most until the deadline; asks {@code stop} whether it should be ended before.
     *
     * @param own what it writes to that is its own alone
     */
    public End await(long timeoutSeconds, Limits limits, List<Path> own, StopSignal stop)
            throws IOException, InterruptedException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(timeoutSeconds);
        long began = System.nanoTime();
        Limits.Disk disk = new Limits.Disk(own);
        while (true) {
            Optional<Integer> code = exitCode();
            if (code.isPresent()) {
                endWhatIsLeft();
                return new End.Exited(code.get());
            }
            if (stop.wanted()) {
                end(!stop.atOnce());
                return new End.Stopped();
            }
            if (System.nanoTime() > deadline) {
                end(true);
                return new End.TimedOut();
            }
            if (Files.exists(output()) && Files.size(output()) > limits.output()) {
                end(true);
                return new End.TookTooMuch(limits.saidTooMuch());
            }
            if (isGone(began)) {
                // It may have ended between the two looks; what it left running ends with it in any case.
                endWhatIsLeft();
                return exitCode().<End>map(End.Exited::new).orElseGet(End.Unknown::new);
            }
            awaitExit();
            if (looks++ % LOOKS_PER_SAMPLE == 0) {
                Optional<String> passed = sample(limits, disk);
                if (passed.isPresent()) {
                    end(false);
                    return new End.TookTooMuch(passed.get());
                }
            }
        }
    }

    /** What it takes too much of. */
    private Optional<String> sample(Limits limits, Limits.Disk disk) throws IOException {
        ProcessTree.Taken taken = wrapper().map(started -> ProcessTree.taken(started, limits.processes()))
                .orElse(ProcessTree.Taken.NOTHING);
        peakMemory = Math.max(peakMemory, taken.memory());
        Optional<String> passed = limits.passedBy(taken);
        return passed.isPresent() ? passed : disk.filled();
    }

    /** What ended with its namespace is known from the list that was made before; the rest is ended here. */
    private void endWhatIsLeft() throws IOException, InterruptedException {
        List<String> names = new ArrayList<>();
        Path left = folder.resolve("left");
        if (Files.exists(left)) {
            try (InputStream said = Files.newInputStream(left)) {
                new String(said.readNBytes(MOST_LEFT_BYTES), StandardCharsets.UTF_8).lines()
                        .filter(name -> !name.isBlank()).limit(MOST_LEFT_NAMES)
                        .map(name -> name.replaceAll("\\p{Cc}", "?")).forEach(names::add);
            }
        }
        names.addAll(ProcessTree.end(mark, Optional.empty(), 0));
        leftRunning = List.copyOf(names);
    }

    /** The programs that it had left running, and that were ended with it. */
    public List<String> leftRunning() {
        return leftRunning;
    }

    /**
     * The most memory that its processes held together, in bytes, looked at about four times a second; empty where it
     * was too short for that.
     */
    public Optional<Long> peakMemory() {
        return peakMemory == 0 ? Optional.empty() : Optional.of(peakMemory);
    }

    private Optional<Integer> exitCode() throws IOException {
        Path exit = folder.resolve("exit");
        String text = Files.exists(exit) ? Files.readString(exit) : "";
        // Only a whole line is an exit status: the wrapper may be writing it.
        return text.endsWith("\n") ? Optional.of(Integer.parseInt(text.strip())) : Optional.empty();
    }

    /**
     * Its wrapper is not there although it had the time to start. The wrapper's name is read once: it may be written at
     * this moment.
     */
    private boolean isGone(long began) throws IOException {
        String name = wrapperName();
        return name.isEmpty() ? System.nanoTime() - began > TimeUnit.SECONDS.toNanos(20) : wrapper(name).isEmpty();
    }

    private Optional<ProcessHandle> wrapper() throws IOException {
        String name = wrapperName();
        return name.isEmpty() ? Optional.empty() : wrapper(name);
    }

    /** The wrapper's process id as it wrote it; empty as long as it has not. */
    private String wrapperName() throws IOException {
        Path started = folder.resolve("started");
        String text = Files.exists(started) ? Files.readString(started) : "";
        return text.endsWith("\n") ? text.strip() : "";
    }

    private Optional<ProcessHandle> wrapper(String name) {
        return ProcessHandle.of(Long.parseLong(name)).filter(ProcessHandle::isAlive)
                .filter(process -> ProcessTree.carries(process.pid(), mark));
    }

    private void awaitExit() throws IOException, InterruptedException {
        Optional<ProcessHandle> wrapper = wrapper();
        if (wrapper.isEmpty()) {
            Thread.sleep(2);
            return;
        }
        try {
            wrapper.get().onExit().get(25, TimeUnit.MILLISECONDS);
        } catch (TimeoutException stillRunning) {
            // Looked at again by the caller.
        } catch (java.util.concurrent.ExecutionException impossible) {
            throw new IOException(impossible);
        }
    }

    /** Ends everything that it started: TERM, a grace period where that is wanted, KILL. */
    public void end(boolean withGrace) throws IOException, InterruptedException {
        ProcessTree.end(mark, wrapper(), withGrace ? 10_000 : 0);
    }

    /** Whether a try should be ended before it ends by itself. */
    public interface StopSignal {
        boolean wanted();

        boolean atOnce();
    }
}
