package dev.paseo.agent.process;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

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
            sh -e "$1/script" </dev/null >>"$1/output" 2>&1
            echo $? >"$1/exit"
            """;
    static final String MARK = "PASEO_STEP_MARK";

    private static final int LOOKS_PER_SAMPLE = 10;

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

        /** It said more than it may. */
        record SaidTooMuch() implements End {}

        /** It was started, and neither it nor its exit status is there. */
        record Unknown() implements End {}
    }

    /** The try in this folder, whatever became of it. */
    static StepProcess of(Path folder) {
        return new StepProcess(folder);
    }

    /** Starts it, or adopts it where it was started before. */
    public static StepProcess start(Path folder, String command, Path workspace, Map<String, String> environment) throws IOException {
        StepProcess step = new StepProcess(folder);
        if (step.wasStarted()) {
            return step;
        }
        Files.createDirectories(folder);
        // Renamed into place: a wrapper that an earlier life of the agent started may be about to read it.
        Path script = Files.createTempFile(folder, "script", "");
        Files.writeString(script, command + "\n");
        Files.move(script, folder.resolve("script"), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        ProcessBuilder builder = new ProcessBuilder(List.of("setsid", "sh", "-c", WRAPPER, "step", folder.toString(), workspace.toString()));
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
     * @param mostOutput how many bytes it may say
     */
    public End await(long timeoutSeconds, long mostOutput, StopSignal stop) throws IOException, InterruptedException {
        long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(timeoutSeconds);
        long began = System.nanoTime();
        while (true) {
            Optional<Integer> code = exitCode();
            if (code.isPresent()) {
                leftRunning = ProcessTree.end(mark, 0);
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
            if (Files.exists(output()) && Files.size(output()) > mostOutput) {
                end(true);
                return new End.SaidTooMuch();
            }
            if (isGone(began)) {
                // It may have ended between the two looks; what it left running ends with it in any case.
                leftRunning = ProcessTree.end(mark, 0);
                return exitCode().<End>map(End.Exited::new).orElseGet(End.Unknown::new);
            }
            awaitExit();
            if (looks++ % LOOKS_PER_SAMPLE == 0) {
                peakMemory = Math.max(peakMemory, wrapper().map(ProcessTree::memory).orElse(0L));
            }
        }
    }

    /** The programs that it had left running, and that were ended with it. */
    public List<String> leftRunning() {
        return leftRunning;
    }

    /** The most memory that its processes held together, in bytes, looked at about four times a second; empty where it was too short for that. */
    public Optional<Long> peakMemory() {
        return peakMemory == 0 ? Optional.empty() : Optional.of(peakMemory);
    }

    private Optional<Integer> exitCode() throws IOException {
        Path exit = folder.resolve("exit");
        String text = Files.exists(exit) ? Files.readString(exit) : "";
        // Only a whole line is an exit status: the wrapper may be writing it.
        return text.endsWith("\n") ? Optional.of(Integer.parseInt(text.strip())) : Optional.empty();
    }

    /** Its wrapper is not there although it had the time to start. The wrapper's name is read once: it may be written at this moment. */
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
        return ProcessHandle.of(Long.parseLong(name)).filter(ProcessHandle::isAlive).filter(process -> ProcessTree.carries(process.pid(), mark));
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
    public void end(boolean withGrace) throws InterruptedException {
        ProcessTree.end(mark, withGrace ? 10_000 : 0);
    }

    /** Whether a try should be ended before it ends by itself. */
    public interface StopSignal {
        boolean wanted();

        boolean atOnce();
    }
}
